import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, newKey, take, type Schemas } from '../../shared/api/client';
import { usePeople, usePlaces, useTeams } from '../../shared/api/house';
import { keys } from '../../shared/api/keys';
import type { What } from './model';

export function useRead() {
  return useMutation({
    mutationFn: ({ file, what }: { file: File; what: What }) =>
      take(
        api.POST('/api/v1/files/read', {
          params: { query: { what } },
          body: file as unknown as string,
          bodySerializer: (body) => body,
          headers: { 'Content-Type': 'application/octet-stream' },
        }),
      ),
  });
}

export type Sent = Schemas['FileRows'];

export function useLook(sent: Sent | null) {
  return useQuery({
    queryKey: keys.fileLook(sent),
    enabled: sent !== null,
    queryFn: () => take(api.POST('/api/v1/files/look', { body: sent! })),
    placeholderData: (previous) => previous,
    gcTime: 0,
    staleTime: Infinity,
  });
}

export function useTake() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (sent: Sent) =>
      take(
        api.POST('/api/v1/files/take', {
          body: sent,
          params: { header: { 'Idempotency-Key': newKey() } },
        }),
      ),
    onSettled: () => queries.invalidateQueries(),
  });
}

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
