import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, newKey, take, type Schemas } from '../../shared/api/client';
import {
  useCalendars,
  useDetails,
  usePeople,
  usePlaces,
  useRoles,
  useTeams,
} from '../../shared/api/house';
import { keys } from '../../shared/api/keys';
import type { Names } from './model';

export type Wish = Schemas['RuleSetWish'];
type Preview = Schemas['SetPreview'];

export function useRuleSet() {
  return useQuery({
    queryKey: keys.rules,
    queryFn: () => take(api.GET('/api/v1/rules')),
    // A draft rests on it; it is fetched anew when something was put in force.
    staleTime: Infinity,
  });
}

export function useLook() {
  return useMutation({
    mutationFn: (set: Wish) => take(api.POST('/api/v1/rules/look', { body: set })),
  });
}

/** The set that a file says. */
export function useReadFile() {
  return useMutation({
    mutationFn: (text: string) =>
      take(
        api.POST('/api/v1/rules/file', {
          body: text,
          bodySerializer: (body) => body,
          headers: { 'Content-Type': 'application/yaml' },
        }),
      ),
  });
}

/** What a look found until now, asked again until all records were looked at. */
export function useLooked(begun: Preview | undefined) {
  return useQuery({
    queryKey: keys.rulesLook(begun?.looked),
    enabled: begun !== undefined && !begun.finished,
    queryFn: () =>
      take(
        api.GET('/api/v1/rules/looks/{looked}', { params: { path: { looked: begun!.looked } } }),
      ),
    refetchInterval: (query) => (query.state.data?.finished || query.state.error ? false : 300),
    retry: false,
    gcTime: 0,
  });
}

/** The change that goes through the records, if one does. */
export function useWork() {
  return useQuery({
    queryKey: keys.rulesWork,
    queryFn: () => take(api.GET('/api/v1/rules/work')),
    refetchInterval: (query) => (query.state.data?.[0]?.state === 'RUNNING' ? 500 : false),
  });
}

/** Stops the work or goes on with it. */
export function useTurnWork() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ act, on }: { act: number; on: boolean }) => {
      const path = { params: { path: { act } } };
      return take(
        on
          ? api.POST('/api/v1/rules/work/{act}/go-on', path)
          : api.POST('/api/v1/rules/work/{act}/stop', path),
      );
    },
    onSettled: () => queries.invalidateQueries({ queryKey: keys.rulesWork }),
  });
}

export function useTry(set: Wish | null) {
  return useQuery({
    queryKey: keys.rulesTry(set),
    enabled: set !== null,
    queryFn: () => take(api.POST('/api/v1/rules/try', { body: set! })),
    placeholderData: (previous) => previous,
    gcTime: 0,
    retry: false,
  });
}

export function useTakeSet() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (set: Wish) =>
      take(
        api.POST('/api/v1/rules/take', {
          body: set,
          params: { header: { 'Idempotency-Key': newKey() } },
        }),
      ),
    onSuccess: () => queries.invalidateQueries(),
  });
}

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
    details: (details.data ?? []).map((d) => ({ value: d.key, label: d.label })),
  };
}

export type World = ReturnType<typeof useNames>;
