import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, ifStill, take, type Schemas, type Seen } from '../../shared/api/client';
import { keys } from '../../shared/api/keys';
import { useReadNow } from '../../shared/api/useReadNow';

export type Region = Schemas['Region'];
export type Holiday = Schemas['Holiday'];
export type RegionChange = Schemas['RegionChange'];
export type WorkedDaysChange = Schemas['WorkedDaysChange'];

export const useRegions = () =>
  useQuery({ queryKey: keys.regions, queryFn: () => take(api.GET('/api/v1/regions')) });

/** What is changed of regions; hours and cover follow. */
export function useRegionDeeds() {
  const queries = useQueryClient();
  const onSuccess = () => queries.invalidateQueries();
  return {
    add: useMutation({
      mutationFn: (name: string) => take(api.POST('/api/v1/regions', { body: { name } })),
      onSuccess,
    }),
    set: useMutation({
      mutationFn: ({ id, tag, ...body }: Seen<RegionChange> & { id: number }) =>
        take(api.PUT('/api/v1/regions/{id}', { params: { path: { id }, ...ifStill(tag) }, body })),
      onSuccess,
    }),
    remove: useMutation({
      mutationFn: (id: number) =>
        take(api.DELETE('/api/v1/regions/{id}', { params: { path: { id } } })),
      onSuccess,
    }),
  };
}

export const useReadHolidays = () =>
  useMutation({
    mutationFn: (file: File) =>
      take(
        api.POST('/api/v1/regions/read', {
          body: file as unknown as string,
          bodySerializer: (body) => body,
          headers: { 'Content-Type': 'text/calendar' },
        }),
      ),
  });

/** Which days are worked at a place; without one: in the house. */
export function useWorkedDays(place?: number) {
  return useReadNow(keys.workedDays(place ?? null), () =>
    place == null
      ? take(api.GET('/api/v1/house/days'))
      : take(api.GET('/api/v1/places/{id}/days', { params: { path: { id: place } } })),
  );
}

export function useSetWorkedDays(place?: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ tag, ...body }: Seen<WorkedDaysChange>) =>
      place == null
        ? take(api.PUT('/api/v1/house/days', { params: ifStill(tag), body }))
        : take(
            api.PUT('/api/v1/places/{id}/days', {
              params: { path: { id: place }, ...ifStill(tag) },
              body,
            }),
          ),
    onSuccess: () => queries.invalidateQueries(),
  });
}
