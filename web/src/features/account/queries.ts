import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, ifStill, take, type Schemas, type Seen } from '../../shared/api/client';
import { keys } from '../../shared/api/keys';
import { useLookedAt } from '../../shared/look/useLookedAt';

export const useAppPasswords = () =>
  useQuery({
    queryKey: keys.appPasswords,
    queryFn: () => take(api.GET('/api/v1/account/app-passwords')),
  });

export function useMakeAppPassword() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas['AppPasswordWish']) =>
      take(api.POST('/api/v1/account/app-passwords', { body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.appPasswords }),
  });
}

export function useWithdraw() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (id: number) =>
      take(api.DELETE('/api/v1/account/app-passwords/{id}', { params: { path: { id } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.appPasswords }),
  });
}

/** Where one is signed in. */
export const useSessions = () =>
  useQuery({ queryKey: keys.sessions, queryFn: () => take(api.GET('/api/v1/account/sessions')) });

export function useEndSession() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (id: string) =>
      take(api.DELETE('/api/v1/account/sessions/{id}', { params: { path: { id } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.sessions }),
  });
}

export const useChangePassword = () =>
  useMutation({
    mutationFn: (body: Schemas['PasswordChange']) =>
      take(api.POST('/api/v1/account/password', { body })),
  });

export function useFeeds() {
  return useQuery({ queryKey: keys.feeds, queryFn: () => take(api.GET('/api/v1/feeds')) });
}

export function useMakeFeed() {
  const queries = useQueryClient();
  return useLookedAt(
    (to, body: Schemas['FeedWish']) => take(to.POST('/api/v1/feeds', { body })),
    () => void queries.invalidateQueries({ queryKey: keys.feeds }),
  );
}

export function useWithdrawFeed() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (id: number) =>
      take(api.DELETE('/api/v1/feeds/{id}', { params: { path: { id } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.feeds }),
  });
}

export function useShares() {
  return useQuery({ queryKey: keys.shares, queryFn: () => take(api.GET('/api/v1/shares')) });
}

/** What can be done with a share; calendars are read otherwise afterwards. */
export function useShareDeeds() {
  const queries = useQueryClient();
  const done = () => void queries.invalidateQueries();
  const path = (id: number) => ({ params: { path: { id } } });
  return {
    offer: useLookedAt(
      (to, body: Schemas['ShareWish']) => take(to.POST('/api/v1/shares', { body })),
      done,
    ),
    accept: useMutation({
      mutationFn: (id: number) => take(api.POST('/api/v1/shares/{id}/accept', path(id))),
      onSuccess: done,
    }),
    change: useLookedAt(
      (to, { id, tag, ...body }: Seen<Schemas['ShareChange']> & { id: number }) =>
        take(to.PUT('/api/v1/shares/{id}', { params: { path: { id }, ...ifStill(tag) }, body })),
      done,
    ),
    withdraw: useMutation({
      mutationFn: (id: number) => take(api.DELETE('/api/v1/shares/{id}', path(id))),
      onSuccess: done,
    }),
  };
}

export function useOwnTitle() {
  return useQuery({
    queryKey: keys.ownTitle,
    queryFn: () => take(api.GET('/api/v1/account/title')),
  });
}

export function useSetOwnTitle() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ tag, ...body }: Seen<Schemas['OwnTitleChange']>) =>
      take(api.PUT('/api/v1/account/title', { params: ifStill(tag), body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: keys.ownTitle }),
  });
}
