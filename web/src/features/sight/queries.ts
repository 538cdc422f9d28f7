import { useQuery } from '@tanstack/react-query';
import { api, take } from '../../shared/api/client';
import { fetchRecord } from '../records';

export function useSight(record: number | null) {
  return useQuery({
    queryKey: ['sight', record],
    enabled: record !== null,
    queryFn: () =>
      take(api.GET('/api/v1/records/{id}/sight', { params: { path: { id: record ?? 0 } } })),
  });
}

/** The chosen record, for its name. */
export function useChosen(record: number | null) {
  return useQuery({
    queryKey: ['record', record],
    enabled: record !== null,
    queryFn: () => fetchRecord(record ?? 0),
  });
}

/** Records by some words, to choose one. */
export function useFound(find: string) {
  return useQuery({
    queryKey: ['sight-found', find],
    queryFn: () => take(api.GET('/api/v1/records', { params: { query: { find, limit: 20 } } })),
    placeholderData: (previous) => previous,
  });
}
