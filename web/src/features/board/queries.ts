import { useQuery } from '@tanstack/react-query';
import { api, take } from '../../shared/api/client';
import { usePeople, usePlaces, useTeams } from '../../shared/api/house';
import { keys } from '../../shared/api/keys';

export function useBoardData(from: string, until: string, calendars: number[]) {
  return useQuery({
    queryKey: keys.boardOf(from, until, calendars),
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
