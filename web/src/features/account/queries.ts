import { of, ofStill, useDo, useRead, useStale } from '../../shared/api/ask';
import { api, ifStill, take, type Schemas, type Seen } from '../../shared/api/client';
import { keys } from '../../shared/api/keys';
import { useLookedAt } from '../../shared/look/useLookedAt';

export const useAppPasswords = () =>
  useRead(keys.appPasswords, () => api.GET('/api/v1/account/app-passwords'));

export const useMakeAppPassword = () =>
  useDo(
    (body: Schemas['AppPasswordWish']) => api.POST('/api/v1/account/app-passwords', { body }),
    [keys.appPasswords],
  );

export const useWithdraw = () =>
  useDo(
    (id: number) => api.DELETE('/api/v1/account/app-passwords/{id}', of({ id })),
    [keys.appPasswords],
  );

/** Where one is signed in. */
export const useSessions = () => useRead(keys.sessions, () => api.GET('/api/v1/account/sessions'));

export const useEndSession = () =>
  useDo((id: string) => api.DELETE('/api/v1/account/sessions/{id}', of({ id })), [keys.sessions]);

export const useChangePassword = () =>
  useDo((body: Schemas['PasswordChange']) => api.POST('/api/v1/account/password', { body }), []);

export const useFeeds = () => useRead(keys.feeds, () => api.GET('/api/v1/feeds'));

export const useMakeFeed = () =>
  useLookedAt(
    (to, body: Schemas['FeedWish']) => take(to.POST('/api/v1/feeds', { body })),
    useStale([keys.feeds]),
  );

export const useWithdrawFeed = () =>
  useDo((id: number) => api.DELETE('/api/v1/feeds/{id}', of({ id })), [keys.feeds]);

export const useShares = () => useRead(keys.shares, () => api.GET('/api/v1/shares'));

/** What can be done with a share; calendars are read otherwise afterwards. */
export function useShareDeeds() {
  const done = useStale();
  return {
    offer: useLookedAt(
      (to, body: Schemas['ShareWish']) => take(to.POST('/api/v1/shares', { body })),
      done,
    ),
    accept: useDo((id: number) => api.POST('/api/v1/shares/{id}/accept', of({ id }))),
    change: useLookedAt(
      (to, { id, tag, ...body }: Seen<Schemas['ShareChange']> & { id: number }) =>
        take(to.PUT('/api/v1/shares/{id}', { ...ofStill({ id }, tag), body })),
      done,
    ),
    withdraw: useDo((id: number) => api.DELETE('/api/v1/shares/{id}', of({ id }))),
  };
}

export const useOwnTitle = () => useRead(keys.ownTitle, () => api.GET('/api/v1/account/title'));

export const useSetOwnTitle = () =>
  useDo(
    ({ tag, ...body }: Seen<Schemas['OwnTitleChange']>) =>
      api.PUT('/api/v1/account/title', { params: ifStill(tag), body }),
    [keys.ownTitle],
  );
