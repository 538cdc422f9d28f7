import { asBefore, useDo, useRead } from '../../shared/api/ask';
import { api, type Schemas } from '../../shared/api/client';
import { usePeople, usePlaces, useTeams } from '../../shared/api/house';
import { keys } from '../../shared/api/keys';
import type { What } from './model';

export const useReadFile = () =>
  useDo(
    ({ file, what }: { file: File; what: What }) =>
      api.POST('/api/v1/files/read', {
        params: { query: { what } },
        body: file as unknown as string,
        bodySerializer: (body) => body,
        headers: { 'Content-Type': 'application/octet-stream' },
      }),
    [],
  );

export type Sent = Schemas['FileRows'];

export const useLook = (sent: Sent | null) =>
  useRead(keys.fileLook(sent), () => api.POST('/api/v1/files/look', { body: sent! }), {
    enabled: sent !== null,
    placeholderData: asBefore,
    gcTime: 0,
    staleTime: Infinity,
  });

export const useTake = () => useDo((body: Sent) => api.POST('/api/v1/files/take', { body }));

/** The names a cell may hold, by the field its column is. */
export function useNames() {
  const people = usePeople();
  const places = usePlaces();
  const teams = useTeams();
  const named = (list: { name: string }[] | undefined) => (list ?? []).map((one) => one.name);
  return (field: string): string[] => {
    if (field === 'place') {
      return named(places.data);
    }
    if (field === 'team' || field === 'teams') {
      return named(teams.data);
    }
    return field.startsWith('role:') ? named(people.data) : [];
  };
}
