import { asBefore, useRead } from '../../shared/api/ask';
import { api } from '../../shared/api/client';
import { usePeople, usePlaces, useTeams } from '../../shared/api/house';
import { keys } from '../../shared/api/keys';

export const useBoardData = (from: string, until: string, calendars: number[]) =>
  useRead(
    keys.boardOf(from, until, calendars),
    () => api.GET('/api/v1/board', { params: { query: { from, until, calendars } } }),
    // Thousands of items: comparing them costs more than drawing the few in sight.
    { placeholderData: asBefore, structuralSharing: false },
  );

export function useWorld() {
  return { people: usePeople(), teams: useTeams(), places: usePlaces() };
}
