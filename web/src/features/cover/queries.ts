import { useQuery } from '@tanstack/react-query';
import { asBefore, of, ofStill, useDo, useRead, useReadNow } from '../../shared/api/ask';
import { api, take, type Schemas, type Seen } from '../../shared/api/client';
import { keys } from '../../shared/api/keys';
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

export const useCover = (from: string, until: string) =>
  useRead(
    keys.coverOf(from, until),
    () => api.GET('/api/v1/cover', { params: { query: { from, until } } }),
    { placeholderData: asBefore },
  );

export type Span = Schemas['CoverSpan'];

/** Who could stand a span of what asks. */
export const useWhoCould = (ask: string, { start, end }: Span) =>
  useRead(keys.coverPart('who', ask, start, end), () =>
    api.GET('/api/v1/cover/who-could', { params: { query: { ask, start, end } } }),
  );

/** A visit of somebody's that another may take over. */
export interface Held {
  record: number;
  visit: number;
  from: number;
}

export const useWhoCouldTake = (held: Held) =>
  useRead(keys.coverPart('take', held), () =>
    api.GET('/api/v1/cover/who-could-take', { params: { query: { ...held } } }),
  );

export const useSwaps = ({ record, visit, from: person }: Held) =>
  useRead(keys.coverPart('swaps', record, visit, person), () =>
    api.GET('/api/v1/cover/swaps', { params: { query: { record, visit, person } } }),
  );

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
  return useRead(keys.coverPart('when', query), () =>
    api.GET('/api/v1/cover/when-could', { params: { query } }),
  );
}

export const useLoads = (from: string, until: string) =>
  useRead(keys.coverPart('loads', from, until), () =>
    api.GET('/api/v1/cover/loads', { params: { query: { from, until } } }),
  );

/** Skills that end before long. */
export const useSkillsEnding = () =>
  useRead(keys.coverPart('skills-ending'), () => api.GET('/api/v1/cover/skills-ending'));

/** Of some hours of the first day where they are named, as 09:00-12:00. */
export function useLeft(person: number, from: string, until: string, hours: string | null) {
  const [hoursFrom, hoursUntil] = hours?.split('-') ?? [];
  return useRead(keys.coverPart('left', person, from, until, hours), () =>
    api.GET('/api/v1/cover/left', {
      params: { query: { person, from, until, hoursFrom, hoursUntil } },
    }),
  );
}

export const useFill = (from: string, until: string, enabled: boolean) =>
  useRead(
    keys.coverPart('fill', from, until),
    () => api.GET('/api/v1/cover/fill', { params: { query: { from, until } } }),
    { enabled },
  );

/** What is done from here; whatever comes of it, all that rests on it is looked at anew. */
export function useCoverDeeds() {
  return {
    give: useDo((body: Give) => api.POST('/api/v1/cover/give', { body })),
    handOver: useDo((body: Schemas['HandOver']) => api.POST('/api/v1/cover/hand-over', { body })),
    swap: useDo((body: Schemas['Swap']) => api.POST('/api/v1/cover/swap', { body })),
    letStand: useDo((body: Schemas['LetStand']) => api.POST('/api/v1/cover/let-stand', { body })),
    openAgain: useDo((clash: string) =>
      api.DELETE('/api/v1/cover/let-stand/{clash}', of({ clash })),
    ),
  };
}

/** Holidays and closures that touch some days. */
export const useDaysOff = (from: string, until: string) =>
  useRead(
    keys.daysOff(from, until),
    () => api.GET('/api/v1/days-off', { params: { query: { from, until } } }),
    { placeholderData: asBefore },
  );

export const useDuties = () => useReadNow(keys.duties, () => api.GET('/api/v1/duties'));

const DUTIES = [keys.duties, keys.cover];

export function useDutyDeeds() {
  return {
    add: useDo((body: DutyWish) => api.POST('/api/v1/duties', { body }), DUTIES),
    change: useDo(
      ({ id, tag, ...body }: Seen<DutyWish> & { id: number }) =>
        api.PUT('/api/v1/duties/{id}', { ...ofStill({ id }, tag), body }),
      DUTIES,
    ),
    remove: useDo((id: number) => api.DELETE('/api/v1/duties/{id}', of({ id })), DUTIES),
  };
}
