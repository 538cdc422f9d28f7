import { useInfiniteQuery, useQueryClient } from '@tanstack/react-query';
import { of, ofStill, useDo, useReadNow, useStale } from '../../shared/api/ask';
import { api, ifStill, take, type Client, type Schemas, type Seen } from '../../shared/api/client';
import { keys, recordChanged } from '../../shared/api/keys';
import { useLookedAt } from '../../shared/look/useLookedAt';

export type Person = Schemas['Person'];
export type Team = Schemas['Team'];
export type Place = Schemas['Place'];
export type HouseChange = Schemas['HouseChange'];

const CREW = [keys.people, keys.teams, keys.places, keys.margins];

/** One that may show somebody more, or take entries from them. */
function useSeenChange<V, R>(call: (to: Client, value: V) => Promise<R>) {
  const queries = useQueryClient();
  const stale = useStale(CREW);
  return useLookedAt(call, () => {
    stale();
    recordChanged(queries);
  });
}

export type LoggedChange = Schemas['SettledAct'];

/** What was settled, newest first; earlier ones when asked for. */
export const useChangeLog = () =>
  useInfiniteQuery({
    queryKey: keys.settled,
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) =>
      take(api.GET('/api/v1/settled', { params: { query: { before: pageParam } } })),
    getNextPageParam: (last) => (last.more ? last.items.at(-1)?.act : undefined),
  });

export const useAddPerson = () =>
  useDo((body: Schemas['CrewPersonChange']) => api.POST('/api/v1/people', { body }));

export const useChangePerson = (id: number) =>
  useSeenChange((to, { tag, ...body }: Seen<Schemas['CrewPersonChange']>) =>
    take(to.PATCH('/api/v1/people/{id}', { ...ofStill({ id }, tag), body })),
  );

export const useInvite = (id: number) =>
  useDo((body: Schemas['InvitationWish']) =>
    api.POST('/api/v1/people/{id}/invitation', { ...of({ id }), body }),
  );

export const useAddTeam = () =>
  useDo((body: Schemas['TeamChange']) => api.POST('/api/v1/teams', { body }));

export const useJoin = () =>
  useSeenChange((to, { team: id, person }: { team: number; person: number }) =>
    take(to.POST('/api/v1/teams/{id}/members', { ...of({ id }), body: { person } })),
  );

export const useLeave = () =>
  useSeenChange((to, { team: id, member }: { team: number; member: number }) =>
    take(to.DELETE('/api/v1/teams/{id}/members/{member}', of({ id, member }))),
  );

export const useAddPlace = () =>
  useDo((body: Schemas['PlaceChange']) => api.POST('/api/v1/places', { body }));

export const useRenameTeam = (id: number) =>
  useSeenChange((to, { tag, ...body }: Seen<{ name: string }>) =>
    take(to.PATCH('/api/v1/teams/{id}', { ...ofStill({ id }, tag), body })),
  );

export const useChangePlace = (id: number) =>
  useSeenChange((to, { tag, ...body }: Seen<Schemas['PlaceChange']>) =>
    take(to.PATCH('/api/v1/places/{id}', { ...ofStill({ id }, tag), body })),
  );

export const useChangeHouse = () =>
  useLookedAt(
    (to, { tag, ...body }: Seen<HouseChange>) =>
      take(to.PATCH('/api/v1/house', { params: ifStill(tag), body })),
    useStale(),
  );

/** What somebody can. */
export const useSkills = (id: number) =>
  useReadNow(keys.skills(id), () => api.GET('/api/v1/people/{id}/skills', of({ id })));

export const useSetSkills = (id: number) =>
  useDo(
    ({ tag, ...body }: Seen<Schemas['SkillsChange']>) =>
      api.PUT('/api/v1/people/{id}/skills', { ...ofStill({ id }, tag), body }),
    [keys.skills(id), keys.cover],
  );

export type WorkTimes = Schemas['WorkTimes'];
export type Limit = Schemas['Limit'];
export type LimitsChange = Schemas['LimitsChange'];

export const useTimes = (id: number) =>
  useReadNow(keys.times(id), () => api.GET('/api/v1/people/{id}/times', of({ id })));

/** What is changed of somebody's hours and leave; cover and the board follow. */
export const useAddLeave = () =>
  useDo(({ person, ...body }: Schemas['LeaveWish'] & { person: number }) =>
    api.POST('/api/v1/people/{id}/leave', { ...of({ id: person }), body }),
  );

export function useTimesDeeds(id: number) {
  return {
    setHours: useDo(({ tag, ...body }: Seen<Schemas['HoursChange']>) =>
      api.PUT('/api/v1/people/{id}/hours', { ...ofStill({ id }, tag), body }),
    ),
    setTerms: useDo(({ tag, ...body }: Seen<Schemas['TermsChange']>) =>
      api.PUT('/api/v1/people/{id}/terms', { ...ofStill({ id }, tag), body }),
    ),
    setDay: useDo(({ day, tag, ...body }: Seen<Schemas['HoursOfDayChange']> & { day: string }) =>
      api.PUT('/api/v1/people/{id}/days/{day}', { ...ofStill({ id, day }, tag), body }),
    ),
    removeDay: useDo(({ day, place }: { day: string; place?: number }) =>
      api.DELETE('/api/v1/people/{id}/days/{day}', {
        params: { path: { id, day }, query: place ? { place } : {} },
      }),
    ),
    agree: useDo((leave: number) =>
      api.POST('/api/v1/people/{id}/leave/{leave}/agree', of({ id, leave })),
    ),
    removeLeave: useDo((leave: number) =>
      api.DELETE('/api/v1/people/{id}/leave/{leave}', of({ id, leave })),
    ),
  };
}

export const useLimits = () => useReadNow(keys.limits, () => api.GET('/api/v1/limits'));

export const useSetLimits = () =>
  useDo(({ tag, ...body }: Seen<LimitsChange>) =>
    api.PUT('/api/v1/limits', { params: ifStill(tag), body }),
  );

export type Margin = Schemas['Margin'];

export const useMargins = () => useReadNow(keys.margins, () => api.GET('/api/v1/margins'));

export const useSetMargins = () =>
  useSeenChange((to, { tag, ...body }: Seen<Schemas['MarginsChange']>) =>
    take(to.PUT('/api/v1/margins', { params: ifStill(tag), body })),
  );

export type PlaceTerms = Schemas['PlaceTerms'];

export const usePlaceTerms = (id: number) =>
  useReadNow(keys.placeTermsOf(id), () => api.GET('/api/v1/places/{id}/terms', of({ id })));

export const useSetPlaceTerms = (id: number) =>
  useDo(
    ({ tag, ...body }: Seen<Schemas['PlaceTermsChange']>) =>
      api.PUT('/api/v1/places/{id}/terms', { ...ofStill({ id }, tag), body }),
    [keys.placeTerms, keys.cover],
  );
