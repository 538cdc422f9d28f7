import { useQuery } from '@tanstack/react-query';
import { api, take } from '../../shared/api/client';
import { keys } from '../../shared/api/keys';

export function useSight(record: number | null) {
  return useQuery({
    queryKey: keys.sight(record),
    enabled: record !== null,
    queryFn: () =>
      take(api.GET('/api/v1/records/{id}/sight', { params: { path: { id: record ?? 0 } } })),
  });
}

export function useAudit(by: 'detail' | 'person', value: string | null) {
  return useQuery({
    queryKey: keys.audit(by, value),
    enabled: value !== null,
    queryFn: () =>
      take(
        api.GET('/api/v1/audit', {
          params: {
            query: by === 'detail' ? { detail: value ?? '' } : { person: Number(value) },
          },
        }),
      ),
  });
}
