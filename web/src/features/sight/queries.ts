import { of, useRead } from '../../shared/api/ask';
import { api } from '../../shared/api/client';
import { keys } from '../../shared/api/keys';

export const useSight = (record: number | null) =>
  useRead(
    keys.sight(record),
    () => api.GET('/api/v1/records/{id}/sight', of({ id: record ?? 0 })),
    { enabled: record !== null },
  );

export function useAudit(by: 'detail' | 'person', value: string | null) {
  const query = by === 'detail' ? { detail: value ?? '' } : { person: Number(value) };
  return useRead(keys.audit(by, value), () => api.GET('/api/v1/audit', { params: { query } }), {
    enabled: value !== null,
  });
}

export const useHouseMap = () => useRead(keys.houseMap, () => api.GET('/api/v1/audit/map'));
