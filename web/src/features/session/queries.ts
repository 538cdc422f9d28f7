import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, ProblemError, take, type Schemas } from '../../shared/api/client';
import { keys } from '../../shared/api/keys';
import { forgetDays } from '../myday';

export type Session = Schemas['Session'];

const KEPT = 'session';

function keep(session: Session): void {
  if (session.signedIn) {
    localStorage.setItem(KEPT, JSON.stringify(session));
  } else {
    localStorage.removeItem(KEPT);
  }
}

/** Who is signed in; without network, on My day, who was. */
async function fetchSession(): Promise<Session> {
  try {
    const session = await take(api.GET('/api/v1/session'));
    keep(session);
    return session;
  } catch (error) {
    const kept = localStorage.getItem(KEPT);
    const without = error instanceof ProblemError && error.problem.status === 0;
    if (without && kept && window.location.pathname === '/my-day') {
      return JSON.parse(kept) as Session;
    }
    throw error;
  }
}

export function useSession() {
  return useQuery({
    queryKey: keys.session,
    queryFn: fetchSession,
    staleTime: 60_000,
    networkMode: 'always',
  });
}

export function useSignIn() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas['SignIn']) => take(api.POST('/api/v1/session', { body })),
    onSuccess: (session) => {
      keep(session);
      queries.removeQueries({ predicate: (query) => query.queryKey[0] !== 'session' });
      queries.setQueryData(keys.session, session);
    },
  });
}

export function useSignOut() {
  return useMutation({
    mutationFn: () => take(api.DELETE('/api/v1/session')),
    onSuccess: () => {
      localStorage.removeItem(KEPT);
      sessionStorage.clear();
      forgetDays();
      window.location.assign('/');
    },
  });
}

export function useInvitation(token: string) {
  return useQuery({
    queryKey: keys.invitation(token),
    queryFn: () => take(api.GET('/api/v1/invitations/{token}', { params: { path: { token } } })),
    retry: false,
  });
}

export function useAccept(token: string) {
  return useMutation({
    mutationFn: (body: Schemas['InvitationAnswer']) =>
      take(api.POST('/api/v1/invitations/{token}', { params: { path: { token } }, body })),
  });
}
