import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, ifStill, newKey, take, type Schemas, type Seen } from '../../shared/api/client';
import { keys } from '../../shared/api/keys';
import { useReadNow } from '../../shared/api/useReadNow';
import { addDays } from '../../shared/time';
import { takerText } from './words';

export type Cover = Schemas['Cover'];
export type Gap = Schemas['CoverGap'];
/** A duty, or one visit of a record that wants people. */
export type Ask = Schemas['CoverAsk'];
export type Stretch = Schemas['CoverStretch'];
export type Answer = Schemas['WhoCould'];
export type Reason = Schemas['WhoCouldReason'];
/** Whether somebody could take something, in words. */
export interface Taker {
  verdict: Answer['verdict'];
  text: string;
}
export type Starts = Schemas['WhenCouldStarts'];
export type DayOff = Schemas['DayOff'];
export type Load = Schemas['CoverLoad'];
export type Swap = Schemas['WorkSwap'];
export type Left = Schemas['WorkLeft'];
export type Clash = Schemas['Clash'];
export type ClashItem = Schemas['ClashItem'];
export type Give = Schemas['CoverGive'];
export type DutyWish = Schemas['DutyWish'];

export function useCover(from: string, until: string) {
  return useQuery({
    queryKey: keys.coverOf(from, until),
    queryFn: () => take(api.GET('/api/v1/cover', { params: { query: { from, until } } })),
    placeholderData: (before) => before,
  });
}

export function useWhoCould(gap: Gap) {
  return useQuery({
    queryKey: keys.coverPart('who', gap.ask, gap.start, gap.end),
    queryFn: () =>
      take(
        api.GET('/api/v1/cover/who-could', {
          params: { query: { ask: gap.ask, start: gap.start, end: gap.end } },
        }),
      ),
  });
}

/** A visit of somebody's that another may take over. */
export interface Held {
  record: number;
  visit: number;
  from: number;
}

export function useWhoCouldTake(held: Held) {
  return useQuery({
    queryKey: keys.coverPart('take', held),
    queryFn: () =>
      take(api.GET('/api/v1/cover/who-could-take', { params: { query: { ...held } } })),
  });
}

export function useSwaps({ record, visit, from }: Held) {
  return useQuery({
    queryKey: keys.coverPart('swaps', record, visit, from),
    queryFn: () =>
      take(api.GET('/api/v1/cover/swaps', { params: { query: { record, visit, person: from } } })),
  });
}

/** A visit while it is moved: from whom, and how far on the clock. */
export interface HeldVisit {
  record: number;
  visit: number;
  from: number | null;
  days: number;
  minutes: number;
}

/** Of everybody, whether they could take what is held, where it is held. */
export function useTakers(held: HeldVisit | null) {
  return useQuery({
    queryKey: keys.coverPart('takers', held),
    enabled: held !== null,
    staleTime: 30_000,
    queryFn: async () => {
      const { from, ...rest } = held!;
      const query = from === null ? rest : { ...rest, from };
      const all = await take(api.GET('/api/v1/cover/who-could-take', { params: { query } }));
      return new Map<number, Taker>(
        all.map((one) => [one.person, { verdict: one.verdict, text: takerText(one) }]),
      );
    },
  });
}

/** Whom something is for, how long it takes and where, over so many days. */
export interface WhenAsked {
  people: number[];
  minutes: number;
  before: number;
  after: number;
  place: number | null;
  record: number | null;
  visit: number;
  from: string;
  days: number;
}

export function useWhenCould(asked: WhenAsked) {
  const { people, place, record, from, days, ...rest } = asked;
  const query = {
    ...rest,
    person: people,
    from,
    until: addDays(from, days),
    ...(place !== null && { place }),
    ...(record !== null && { record }),
  };
  return useQuery({
    queryKey: keys.coverPart('when', query),
    queryFn: () => take(api.GET('/api/v1/cover/when-could', { params: { query } })),
  });
}

export function useLoads(from: string, until: string) {
  return useQuery({
    queryKey: keys.coverPart('loads', from, until),
    queryFn: () => take(api.GET('/api/v1/cover/loads', { params: { query: { from, until } } })),
  });
}

export function useLeft(person: number, from: string, until: string) {
  return useQuery({
    queryKey: keys.coverPart('left', person, from, until),
    queryFn: () =>
      take(api.GET('/api/v1/cover/left', { params: { query: { person, from, until } } })),
  });
}

export function useFill(from: string, until: string, asked: boolean) {
  return useQuery({
    queryKey: keys.coverPart('fill', from, until),
    queryFn: () => take(api.GET('/api/v1/cover/fill', { params: { query: { from, until } } })),
    enabled: asked,
  });
}

/** What is done from here; whatever comes of it, all that rests on it is looked at anew. */
export function useCoverDeeds() {
  const queries = useQueryClient();
  const onSettled = () => void queries.invalidateQueries();
  const key = () => ({ header: { 'Idempotency-Key': newKey() } });
  return {
    give: useMutation({
      mutationFn: (body: Give) => take(api.POST('/api/v1/cover/give', { body, params: key() })),
      onSettled,
    }),
    handOver: useMutation({
      mutationFn: (body: Schemas['HandOver']) =>
        take(api.POST('/api/v1/cover/hand-over', { body, params: key() })),
      onSettled,
    }),
    swap: useMutation({
      mutationFn: (body: Schemas['Swap']) =>
        take(api.POST('/api/v1/cover/swap', { body, params: key() })),
      onSettled,
    }),
    letStand: useMutation({
      mutationFn: (body: Schemas['LetStand']) =>
        take(api.POST('/api/v1/cover/let-stand', { body })),
      onSettled,
    }),
    openAgain: useMutation({
      mutationFn: (clash: string) =>
        take(api.DELETE('/api/v1/cover/let-stand/{clash}', { params: { path: { clash } } })),
      onSettled,
    }),
  };
}

/** Holidays and closures that touch some days. */
export function useDaysOff(from: string, until: string) {
  return useQuery({
    queryKey: keys.daysOff(from, until),
    queryFn: () => take(api.GET('/api/v1/days-off', { params: { query: { from, until } } })),
    placeholderData: (previous) => previous,
  });
}

export function useDuties() {
  return useReadNow(keys.duties, () => take(api.GET('/api/v1/duties')));
}

export function useDutyDeeds() {
  const queries = useQueryClient();
  const onSettled = () => {
    void queries.invalidateQueries({ queryKey: keys.duties });
    void queries.invalidateQueries({ queryKey: keys.cover });
  };
  return {
    add: useMutation({
      mutationFn: (body: DutyWish) =>
        take(
          api.POST('/api/v1/duties', { body, params: { header: { 'Idempotency-Key': newKey() } } }),
        ),
      onSettled,
    }),
    change: useMutation({
      mutationFn: ({ id, tag, ...body }: Seen<DutyWish> & { id: number }) =>
        take(api.PUT('/api/v1/duties/{id}', { params: { path: { id }, ...ifStill(tag) }, body })),
      onSettled,
    }),
    remove: useMutation({
      mutationFn: (id: number) =>
        take(api.DELETE('/api/v1/duties/{id}', { params: { path: { id } } })),
      onSettled,
    }),
  };
}
