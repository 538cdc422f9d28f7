import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, newKey, take, takeTagged, type Schemas } from '../../shared/api/client';
import { usePeople, usePlaces, useTeams } from '../records';

export function useBoardData(from: string, until: string, calendars: number[]) {
  return useQuery({
    queryKey: ['board', from, until, calendars],
    queryFn: () =>
      take(api.GET('/api/v1/board', { params: { query: { from, until, calendars } } })),
    // What was there stays while the next days come.
    placeholderData: (previous) => previous,
    // Thousands of items: comparing them costs more than drawing the few in sight.
    structuralSharing: false,
  });
}

export function useWorld() {
  return { people: usePeople(), teams: useTeams(), places: usePlaces() };
}

/** A record with its tag, fresh from the server. */
export function fetchRecord(id: number) {
  return takeTagged(api.GET('/api/v1/records/{id}', { params: { path: { id } } }));
}

/** Makes and changes several records as one act. */
export function useSeveral() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (items: Schemas['SeveralItem'][]) =>
      take(
        api.POST('/api/v1/records/several', {
          body: { items },
          params: { header: { 'Idempotency-Key': newKey() } },
        }),
      ),
    // Done is when the board shows it.
    onSettled: () => {
      void client.invalidateQueries({ queryKey: ['records'] });
      void client.invalidateQueries({ queryKey: ['record'] });
      return client.invalidateQueries({ queryKey: ['board'] });
    },
  });
}
