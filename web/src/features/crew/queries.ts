import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, take, type Client, type Schemas } from '../../shared/api/client';
import { useReadNow } from '../../shared/api/useReadNow';
import { useLookedAt } from '../../shared/look/useLookedAt';

export type Person = Schemas['Person'];
export type Team = Schemas['Team'];
export type Place = Schemas['Place'];
export type HouseChange = Schemas['HouseChange'];

export const usePeople = () =>
  useQuery({ queryKey: ['people'], queryFn: () => take(api.GET('/api/v1/people')) });
export const useTeams = () =>
  useQuery({ queryKey: ['teams'], queryFn: () => take(api.GET('/api/v1/teams')) });
export const usePlaces = () =>
  useQuery({ queryKey: ['places'], queryFn: () => take(api.GET('/api/v1/places')) });

function useStale() {
  const client = useQueryClient();
  return () => {
    for (const key of ['people', 'teams', 'places', 'records', 'record']) {
      void client.invalidateQueries({ queryKey: [key] });
    }
  };
}

function useCrewChange<V, R>(call: (value: V) => Promise<R>) {
  const stale = useStale();
  return useMutation({ mutationFn: call, onSuccess: stale });
}

/** One that may show somebody more, or take entries from them. */
function useSeenChange<V, R>(call: (to: Client, value: V) => Promise<R>) {
  return useLookedAt(call, useStale());
}

export type SettledAct = Schemas['SettledAct'];

/** What was settled, newest first; earlier ones when asked for. */
export const useSettled = () =>
  useInfiniteQuery({
    queryKey: ['settled'],
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) =>
      take(api.GET('/api/v1/settled', { params: { query: { before: pageParam } } })),
    getNextPageParam: (last) => (last.more ? last.items.at(-1)?.act : undefined),
  });

export const useAddPerson = () =>
  useCrewChange((body: Schemas['CrewPersonChange']) => take(api.POST('/api/v1/people', { body })));

export const useChangePerson = (id: number) =>
  useSeenChange((to, body: Schemas['CrewPersonChange']) =>
    take(to.PATCH('/api/v1/people/{id}', { params: { path: { id } }, body })),
  );

export const useInvite = (id: number) =>
  useCrewChange((body: Schemas['InvitationWish']) =>
    take(api.POST('/api/v1/people/{id}/invitation', { params: { path: { id } }, body })),
  );

export const useAddTeam = () =>
  useCrewChange((body: Schemas['TeamChange']) => take(api.POST('/api/v1/teams', { body })));

export const useJoin = () =>
  useSeenChange((to, { team, person }: { team: number; person: number }) =>
    take(
      to.POST('/api/v1/teams/{id}/members', { params: { path: { id: team } }, body: { person } }),
    ),
  );

export const useLeave = () =>
  useSeenChange((to, { team, member }: { team: number; member: number }) =>
    take(
      to.DELETE('/api/v1/teams/{id}/members/{member}', { params: { path: { id: team, member } } }),
    ),
  );

export const useAddPlace = () =>
  useCrewChange((body: Schemas['PlaceChange']) => take(api.POST('/api/v1/places', { body })));

export const useHouse = () =>
  useQuery({ queryKey: ['house'], queryFn: () => take(api.GET('/api/v1/house')) });

export function useChangeHouse() {
  const client = useQueryClient();
  return useLookedAt(
    (to, body: HouseChange) => take(to.PATCH('/api/v1/house', { body })),
    () => void client.invalidateQueries(),
  );
}

/** What somebody can. */
export function useSkills(id: number) {
  return useReadNow(['skills', id], () =>
    take(api.GET('/api/v1/people/{id}/skills', { params: { path: { id } } })),
  );
}

export function useSetSkills(id: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas['SkillsChange']) =>
      take(api.PUT('/api/v1/people/{id}/skills', { params: { path: { id } }, body })),
    onSuccess: () => {
      void client.invalidateQueries({ queryKey: ['skills', id] });
      void client.invalidateQueries({ queryKey: ['cover'] });
    },
  });
}

export type WorkTimes = Schemas['WorkTimes'];
export type Limit = Schemas['Limit'];
export type LimitsChange = Schemas['LimitsChange'];

export function useTimes(id: number) {
  return useReadNow(['times', id], () =>
    take(api.GET('/api/v1/people/{id}/times', { params: { path: { id } } })),
  );
}

/** What is changed of somebody's hours and leave; cover and the board follow. */
export function useTimesDeeds(id: number) {
  const client = useQueryClient();
  const onSettled = () => void client.invalidateQueries();
  const path = { id };
  return {
    setHours: useMutation({
      mutationFn: (body: Schemas['HoursChange']) =>
        take(api.PUT('/api/v1/people/{id}/hours', { params: { path }, body })),
      onSettled,
    }),
    setTerms: useMutation({
      mutationFn: (body: Schemas['TermsChange']) =>
        take(api.PUT('/api/v1/people/{id}/terms', { params: { path }, body })),
      onSettled,
    }),
    setDay: useMutation({
      mutationFn: ({ day, ...body }: Schemas['HoursOfDayChange'] & { day: string }) =>
        take(api.PUT('/api/v1/people/{id}/days/{day}', { params: { path: { id, day } }, body })),
      onSettled,
    }),
    removeDay: useMutation({
      mutationFn: ({ day, place }: { day: string; place?: number }) =>
        take(
          api.DELETE('/api/v1/people/{id}/days/{day}', {
            params: { path: { id, day }, query: place ? { place } : {} },
          }),
        ),
      onSettled,
    }),
    addLeave: useMutation({
      mutationFn: (body: Schemas['LeaveWish']) =>
        take(api.POST('/api/v1/people/{id}/leave', { params: { path }, body })),
      onSettled,
    }),
    agree: useMutation({
      mutationFn: (leave: number) =>
        take(
          api.POST('/api/v1/people/{id}/leave/{leave}/agree', { params: { path: { id, leave } } }),
        ),
      onSettled,
    }),
    removeLeave: useMutation({
      mutationFn: (leave: number) =>
        take(api.DELETE('/api/v1/people/{id}/leave/{leave}', { params: { path: { id, leave } } })),
      onSettled,
    }),
  };
}

export function useLimits() {
  return useReadNow(['limits'], () => take(api.GET('/api/v1/limits')));
}

export function useSetLimits() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: LimitsChange) => take(api.PUT('/api/v1/limits', { body })),
    onSettled: () => void client.invalidateQueries(),
  });
}

export type PlaceTerms = Schemas['PlaceTerms'];

export function usePlaceTerms(id: number) {
  return useReadNow(['place-terms', id], () =>
    take(api.GET('/api/v1/places/{id}/terms', { params: { path: { id } } })),
  );
}

export function useSetPlaceTerms(id: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas['PlaceTermsChange']) =>
      take(api.PUT('/api/v1/places/{id}/terms', { params: { path: { id } }, body })),
    onSettled: () => {
      void client.invalidateQueries({ queryKey: ['place-terms'] });
      void client.invalidateQueries({ queryKey: ['cover'] });
    },
  });
}
