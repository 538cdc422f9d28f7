import { useInfiniteQuery, useMutation, useQueryClient } from '@tanstack/react-query';
import { api, ifStill, take, type Client, type Schemas, type Seen } from '../../shared/api/client';
import { keys, recordChanged } from '../../shared/api/keys';
import { useReadNow } from '../../shared/api/useReadNow';
import { useLookedAt } from '../../shared/look/useLookedAt';

export type Person = Schemas['Person'];
export type Team = Schemas['Team'];
export type Place = Schemas['Place'];
export type HouseChange = Schemas['HouseChange'];

function useStale() {
  const queries = useQueryClient();
  return () => {
    for (const queryKey of [keys.people, keys.teams, keys.places]) {
      void queries.invalidateQueries({ queryKey });
    }
    recordChanged(queries);
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
    queryKey: keys.settled,
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) =>
      take(api.GET('/api/v1/settled', { params: { query: { before: pageParam } } })),
    getNextPageParam: (last) => (last.more ? last.items.at(-1)?.act : undefined),
  });

export const useAddPerson = () =>
  useCrewChange((body: Schemas['CrewPersonChange']) => take(api.POST('/api/v1/people', { body })));

export const useChangePerson = (id: number) =>
  useSeenChange((to, { tag, ...body }: Seen<Schemas['CrewPersonChange']>) =>
    take(to.PATCH('/api/v1/people/{id}', { params: { path: { id }, ...ifStill(tag) }, body })),
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

export function useChangeHouse() {
  const queries = useQueryClient();
  return useLookedAt(
    (to, { tag, ...body }: Seen<HouseChange>) =>
      take(to.PATCH('/api/v1/house', { params: ifStill(tag), body })),
    () => void queries.invalidateQueries(),
  );
}

/** What somebody can. */
export function useSkills(id: number) {
  return useReadNow(keys.skills(id), () =>
    take(api.GET('/api/v1/people/{id}/skills', { params: { path: { id } } })),
  );
}

export function useSetSkills(id: number) {
  const path = { id };
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ tag, ...body }: Seen<Schemas['SkillsChange']>) =>
      take(api.PUT('/api/v1/people/{id}/skills', { params: { path, ...ifStill(tag) }, body })),
    onSuccess: () => {
      void queries.invalidateQueries({ queryKey: keys.skills(id) });
      void queries.invalidateQueries({ queryKey: keys.cover });
    },
  });
}

export type WorkTimes = Schemas['WorkTimes'];
export type Limit = Schemas['Limit'];
export type LimitsChange = Schemas['LimitsChange'];

export function useTimes(id: number) {
  return useReadNow(keys.times(id), () =>
    take(api.GET('/api/v1/people/{id}/times', { params: { path: { id } } })),
  );
}

/** What is changed of somebody's hours and leave; cover and the board follow. */
export function useTimesDeeds(id: number) {
  const queries = useQueryClient();
  const onSettled = () => void queries.invalidateQueries();
  const path = { id };
  return {
    setHours: useMutation({
      mutationFn: ({ tag, ...body }: Seen<Schemas['HoursChange']>) =>
        take(api.PUT('/api/v1/people/{id}/hours', { params: { path, ...ifStill(tag) }, body })),
      onSettled,
    }),
    setTerms: useMutation({
      mutationFn: ({ tag, ...body }: Seen<Schemas['TermsChange']>) =>
        take(api.PUT('/api/v1/people/{id}/terms', { params: { path, ...ifStill(tag) }, body })),
      onSettled,
    }),
    setDay: useMutation({
      mutationFn: ({ day, tag, ...body }: Seen<Schemas['HoursOfDayChange']> & { day: string }) =>
        take(
          api.PUT('/api/v1/people/{id}/days/{day}', {
            params: { path: { id, day }, ...ifStill(tag) },
            body,
          }),
        ),
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
  return useReadNow(keys.limits, () => take(api.GET('/api/v1/limits')));
}

export function useSetLimits() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ tag, ...body }: Seen<LimitsChange>) =>
      take(api.PUT('/api/v1/limits', { params: ifStill(tag), body })),
    onSettled: () => void queries.invalidateQueries(),
  });
}

export type PlaceTerms = Schemas['PlaceTerms'];

export function usePlaceTerms(id: number) {
  return useReadNow(keys.placeTermsOf(id), () =>
    take(api.GET('/api/v1/places/{id}/terms', { params: { path: { id } } })),
  );
}

export function useSetPlaceTerms(id: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ tag, ...body }: Seen<Schemas['PlaceTermsChange']>) =>
      take(
        api.PUT('/api/v1/places/{id}/terms', { params: { path: { id }, ...ifStill(tag) }, body }),
      ),
    onSettled: () => {
      void queries.invalidateQueries({ queryKey: keys.placeTerms });
      void queries.invalidateQueries({ queryKey: keys.cover });
    },
  });
}
