import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, take, type Schemas } from '../../shared/api/client';
import { keys } from '../../shared/api/keys';

const OFTEN = 3_000;

/** What is open changes by itself, so it is asked for again while it is looked at. */
export function useCopies() {
  return useQuery({
    queryKey: keys.copies,
    queryFn: () => take(api.GET('/api/v1/copies')),
    refetchInterval: OFTEN,
  });
}

export function useOutsideChanges() {
  return useQuery({
    queryKey: keys.outsideChanges,
    queryFn: () => take(api.GET('/api/v1/outside-changes')),
    refetchInterval: 2 * OFTEN,
  });
}

export function useLinks() {
  return useQuery({
    queryKey: keys.links,
    queryFn: () => take(api.GET('/api/v1/links')),
    refetchInterval: OFTEN,
  });
}

/** What can be done with a link. */
export function useLinkDeeds() {
  const queries = useQueryClient();
  const done = () => {
    void queries.invalidateQueries({ queryKey: keys.links });
    void queries.invalidateQueries({ queryKey: keys.copies });
    void queries.invalidateQueries({ queryKey: keys.outsideChanges });
  };
  return {
    tryIt: useMutation({
      mutationFn: (body: Schemas['OutsideAccount']) =>
        take(api.POST('/api/v1/links/try', { body })),
    }),
    look: useMutation({
      mutationFn: (body: Schemas['LinkWish']) => take(api.POST('/api/v1/links/look', { body })),
    }),
    stop: useMutation({
      mutationFn: (id: number) =>
        take(api.POST('/api/v1/links/{id}/stop', { params: { path: { id } } })),
      onSuccess: done,
    }),
    goOn: useMutation({
      mutationFn: (id: number) =>
        take(api.POST('/api/v1/links/{id}/go-on', { params: { path: { id } } })),
      onSuccess: done,
    }),
    add: useMutation({
      mutationFn: (body: Schemas['LinkWish']) => take(api.POST('/api/v1/links', { body })),
      onSuccess: done,
    }),
    end: useMutation({
      mutationFn: (id: number) =>
        take(api.DELETE('/api/v1/links/{id}', { params: { path: { id } } })),
      onSuccess: done,
    }),
    leave: useMutation({
      mutationFn: (id: number) =>
        take(api.POST('/api/v1/links/{id}/leave', { params: { path: { id } } })),
      onSuccess: done,
    }),
    again: useMutation({
      mutationFn: (id: number) =>
        take(api.POST('/api/v1/links/{id}/again', { params: { path: { id } } })),
      onSuccess: done,
    }),
    prove: useMutation({
      mutationFn: ({ id, calendar }: { id: number; calendar: number }) =>
        take(
          api.POST('/api/v1/links/{id}/calendars/{calendar}/prove', {
            params: { path: { id, calendar } },
          }),
        ),
    }),
  };
}

/** What of ours stands in a link's calendars. */
export function useStanding(id: number) {
  return useQuery({
    queryKey: keys.standing(id),
    queryFn: () => take(api.GET('/api/v1/links/{id}/standing', { params: { path: { id } } })),
    refetchInterval: OFTEN,
  });
}

/** Who decides where people's own work is copied. */
export function useDecided() {
  return useQuery({
    queryKey: keys.decided,
    queryFn: () => take(api.GET('/api/v1/links/decided')),
  });
}

/** What goes out before long; it is asked for more often while something waits. */
export function useWaiting(enabled: boolean) {
  return useQuery({
    queryKey: keys.copiesWaiting,
    queryFn: () => take(api.GET('/api/v1/copies/waiting')),
    enabled,
    refetchInterval: (query) => (query.state.data?.goesOutIn === undefined ? 4 * OFTEN : 1_000),
  });
}

/** Says what becomes of a change that was made there. */
export function useDecide() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ id, taken }: { id: number; taken: boolean }) =>
      take(
        taken
          ? api.POST('/api/v1/outside-changes/{id}/take', { params: { path: { id } } })
          : api.POST('/api/v1/outside-changes/{id}/put-back', { params: { path: { id } } }),
      ),
    onSettled: () => void queries.invalidateQueries(),
  });
}

export function useSendNow() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: () => take(api.POST('/api/v1/copies/send-now')),
    onSuccess: () => void queries.invalidateQueries({ queryKey: keys.copies }),
  });
}

/** Whether nothing is sent since a restore. */
export function useHeld() {
  return useQuery({
    queryKey: keys.copiesHeld,
    queryFn: () => take(api.GET('/api/v1/copies/held')),
  });
}

export function useGoOn() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: () => take(api.POST('/api/v1/copies/go-on')),
    onSuccess: () => void queries.invalidateQueries(),
  });
}
