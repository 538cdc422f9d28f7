import { of, useDo, useRead } from '../../shared/api/ask';
import { api, type Schemas } from '../../shared/api/client';
import { keys } from '../../shared/api/keys';

const OFTEN = 3_000;

/** What is open changes by itself, so it is asked for again while it is looked at. */
export const useCopies = () =>
  useRead(keys.copies, () => api.GET('/api/v1/copies'), { refetchInterval: OFTEN });

export const useOutsideChanges = () =>
  useRead(keys.outsideChanges, () => api.GET('/api/v1/outside-changes'), {
    refetchInterval: 2 * OFTEN,
  });

export const useLinks = () =>
  useRead(keys.links, () => api.GET('/api/v1/links'), { refetchInterval: OFTEN });

const LINKED = [keys.links, keys.copies, keys.outsideChanges];

/** What can be done with a link. */
export function useLinkDeeds() {
  return {
    tryIt: useDo((body: Schemas['OutsideAccount']) => api.POST('/api/v1/links/try', { body }), []),
    look: useDo((body: Schemas['LinkWish']) => api.POST('/api/v1/links/look', { body }), []),
    stop: useDo((id: number) => api.POST('/api/v1/links/{id}/stop', of({ id })), LINKED),
    goOn: useDo((id: number) => api.POST('/api/v1/links/{id}/go-on', of({ id })), LINKED),
    add: useDo((body: Schemas['LinkWish']) => api.POST('/api/v1/links', { body }), LINKED),
    end: useDo((id: number) => api.DELETE('/api/v1/links/{id}', of({ id })), LINKED),
    leave: useDo((id: number) => api.POST('/api/v1/links/{id}/leave', of({ id })), LINKED),
    again: useDo((id: number) => api.POST('/api/v1/links/{id}/again', of({ id })), LINKED),
    prove: useDo(
      ({ id, calendar }: { id: number; calendar: number }) =>
        api.POST('/api/v1/links/{id}/calendars/{calendar}/prove', of({ id, calendar })),
      [],
    ),
  };
}

/** What of ours stands in a link's calendars. */
export const useStanding = (id: number) =>
  useRead(keys.standing(id), () => api.GET('/api/v1/links/{id}/standing', of({ id })), {
    refetchInterval: OFTEN,
  });

/** Who decides where people's own work is copied. */
export const useDecided = () => useRead(keys.decided, () => api.GET('/api/v1/links/decided'));

/** What goes out before long; it is asked for more often while something waits. */
export const useWaiting = (enabled: boolean) =>
  useRead(keys.copiesWaiting, () => api.GET('/api/v1/copies/waiting'), {
    enabled,
    refetchInterval: (query) => (query.state.data?.goesOutIn === undefined ? 4 * OFTEN : 1_000),
  });

/** Says what becomes of a change that was made there. */
export const useDecide = () =>
  useDo(({ id, taken }: { id: number; taken: boolean }) =>
    taken
      ? api.POST('/api/v1/outside-changes/{id}/take', of({ id }))
      : api.POST('/api/v1/outside-changes/{id}/put-back', of({ id })),
  );

export const useSendNow = () => useDo(() => api.POST('/api/v1/copies/send-now'), [keys.copies]);

/** Whether nothing is sent since a restore. */
export const useHeld = () => useRead(keys.copiesHeld, () => api.GET('/api/v1/copies/held'));

export const useGoOn = () => useDo(() => api.POST('/api/v1/copies/go-on'));
