import { useQuery } from '@tanstack/react-query';
import { api, take } from '../../shared/api/client';

export function useSight(record: number | null) {
  return useQuery({
    queryKey: ['sight', record],
    enabled: record !== null,
    queryFn: () =>
      take(api.GET('/api/v1/records/{id}/sight', { params: { path: { id: record ?? 0 } } })),
  });
}
