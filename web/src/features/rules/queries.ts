import { asBefore, of, useDo, useRead } from '../../shared/api/ask';
import { api, type Schemas } from '../../shared/api/client';
import {
  useCalendars,
  useDetails,
  usePeople,
  usePlaces,
  useRoles,
  useTeams,
} from '../../shared/api/house';
import { keys } from '../../shared/api/keys';
import { detailChoice, type Names } from './model';

export type Wish = Schemas['RuleSetWish'];
type Preview = Schemas['SetPreview'];

/** A draft rests on it; it is read anew when something was applied. */
export const useRuleSet = () =>
  useRead(keys.rules, () => api.GET('/api/v1/rules'), { staleTime: Infinity });

export const useLook = () => useDo((body: Wish) => api.POST('/api/v1/rules/look', { body }), []);

/** The set that a file says. */
export const useReadFile = () =>
  useDo(
    (body: string) =>
      api.POST('/api/v1/rules/file', {
        body,
        bodySerializer: (text) => text,
        headers: { 'Content-Type': 'application/yaml' },
      }),
    [],
  );

/** What a look found until now, asked again until all records were looked at. */
export const useLooked = (begun: Preview | undefined) =>
  useRead(
    keys.rulesLook(begun?.looked),
    () => api.GET('/api/v1/rules/looks/{looked}', of({ looked: begun!.looked })),
    {
      enabled: begun !== undefined && !begun.finished,
      refetchInterval: (query) => (query.state.data?.finished || query.state.error ? false : 300),
      retry: false,
      gcTime: 0,
    },
  );

/** The change that goes through the records, if one does. */
export const useWork = () =>
  useRead(keys.rulesWork, () => api.GET('/api/v1/rules/work'), {
    refetchInterval: (query) => (query.state.data?.[0]?.state === 'RUNNING' ? 500 : false),
  });

/** Stops the work or goes on with it. */
export const useTurnWork = () =>
  useDo(
    ({ act, on }: { act: number; on: boolean }) =>
      on
        ? api.POST('/api/v1/rules/work/{act}/go-on', of({ act }))
        : api.POST('/api/v1/rules/work/{act}/stop', of({ act })),
    [keys.rulesWork],
  );

export const useTry = (set: Wish | null) =>
  useRead(keys.rulesTry(set), () => api.POST('/api/v1/rules/try', { body: set! }), {
    enabled: set !== null,
    placeholderData: asBefore,
    gcTime: 0,
    retry: false,
  });

export const useTakeSet = () => useDo((body: Wish) => api.POST('/api/v1/rules/take', { body }));

/** Everything that rules name by number. */
export function useNames() {
  const people = usePeople();
  const teams = useTeams();
  const places = usePlaces();
  const calendars = useCalendars();
  const roles = useRoles();
  const details = useDetails();
  const named = (list: { id: number; name: string }[] | undefined) => (id: number) =>
    list?.find((one) => one.id === id)?.name ?? '…';
  const names: Names = {
    role: (id) => roles.data?.find((r) => r.number === id)?.name ?? '…',
    team: named(teams.data),
    place: named(places.data),
    person: named(people.data),
    calendar: named(calendars.data),
    detail: (key) => details.data?.find((d) => d.key === key)?.label ?? key,
  };
  const choices = (list: { id: number; name: string }[] | undefined) =>
    (list ?? []).map((one) => ({ value: one.id, label: one.name }));
  return {
    names,
    roles: (roles.data ?? []).map((r) => ({ value: r.number, label: r.name })),
    teams: choices(teams.data),
    places: choices(places.data),
    people: choices(people.data),
    lists: choices(calendars.data?.filter((c) => c.sort === 'DATE_LIST' || c.sort === 'NAMED')),
    details: (details.data ?? []).map(detailChoice),
  };
}

export type World = ReturnType<typeof useNames>;
