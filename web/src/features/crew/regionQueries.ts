import { of, ofStill, useDo, useRead, useReadNow } from '../../shared/api/ask';
import { api, ifStill, type Schemas, type Seen } from '../../shared/api/client';
import { keys } from '../../shared/api/keys';

export type Region = Schemas['Region'];
export type Holiday = Schemas['Holiday'];
export type RegionChange = Schemas['RegionChange'];
export type WorkedDaysChange = Schemas['WorkedDaysChange'];

export const useRegions = () => useRead(keys.regions, () => api.GET('/api/v1/regions'));

/** What is changed of regions; hours and cover follow. */
export function useRegionDeeds() {
  return {
    add: useDo((name: string) => api.POST('/api/v1/regions', { body: { name } })),
    set: useDo(({ id, tag, ...body }: Seen<RegionChange> & { id: number }) =>
      api.PUT('/api/v1/regions/{id}', { ...ofStill({ id }, tag), body }),
    ),
    remove: useDo((id: number) => api.DELETE('/api/v1/regions/{id}', of({ id }))),
  };
}

export const useReadHolidays = () =>
  useDo(
    (file: File) =>
      api.POST('/api/v1/regions/read', {
        body: file as unknown as string,
        bodySerializer: (body) => body,
        headers: { 'Content-Type': 'text/calendar' },
      }),
    [],
  );

/** Which days are worked at a place; without one: in the house. */
export const useWorkedDays = (place?: number) =>
  useReadNow(keys.workedDays(place ?? null), () =>
    place == null
      ? api.GET('/api/v1/house/days')
      : api.GET('/api/v1/places/{id}/days', of({ id: place })),
  );

export const useSetWorkedDays = (place?: number) =>
  useDo(({ tag, ...body }: Seen<WorkedDaysChange>) =>
    place == null
      ? api.PUT('/api/v1/house/days', { params: ifStill(tag), body })
      : api.PUT('/api/v1/places/{id}/days', { ...ofStill({ id: place }, tag), body }),
  );
