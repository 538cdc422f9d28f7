import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, take, type Schemas } from '../../shared/api/client';

export type Session = Schemas['Session'];

export function useSession() {
  return useQuery({
    queryKey: ['session'],
    queryFn: () => take(api.GET('/api/v1/session')),
    staleTime: 60_000,
  });
}

export function useSignIn() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas['SignIn']) => take(api.POST('/api/v1/session', { body })),
    onSuccess: (session) => {
      client.removeQueries({ predicate: (query) => query.queryKey[0] !== 'session' });
      client.setQueryData(['session'], session);
    },
  });
}

export function useSignOut() {
  return useMutation({
    mutationFn: () => take(api.DELETE('/api/v1/session')),
    onSuccess: () => {
      window.location.assign('/');
    },
  });
}

export function useInvitation(token: string) {
  return useQuery({
    queryKey: ['invitation', token],
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
