import { useInfiniteQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { asBefore, of, ofStill, useDo, useRead } from '../../shared/api/ask';
import { api, newKey, take, type Schemas, type Seen } from '../../shared/api/client';
import { keys } from '../../shared/api/keys';

export type DeadlineSet = Schemas['DeadlineSet'];
export type Step = Schemas['DeadlineSetStep'];
export type Looks = Schemas['DeadlineSetsLook'];
export type Look = Schemas['DeadlineSetLook'];
export type Line = Schemas['DeadlineSetLookLine'];
export type Making = Schemas['DeadlineSetMaking'];
type Date = Schemas['DueChange'] | null;
/** What is wished of a step; no date: it goes by the chain again. */
export type StepChange = Omit<Schemas['DeadlineSetStepChange'], 'date'> & { date?: Date };
/** What is wished of a set; no key date: it is not known any more. */
export type Move = Omit<Schemas['DeadlineSetMove'], 'keyDate' | 'steps'> & {
  keyDate?: Date;
  steps?: StepChange[];
};
export type Chain = Schemas['Chain'];
export type ChainStep = Schemas['ChainStep'];
export type Trial = Schemas['ChainTrial'];
export type ChainFault = Schemas['ChainFault'];

/** As many as one page of the answer has. */
const MOST = 50;

/** All sets, page after page; what is there already is shown meanwhile. */
export function useSets() {
  const { data, error, isPending, isFetching, hasNextPage, fetchNextPage, refetch } =
    useInfiniteQuery({
      queryKey: keys.deadlineSets,
      queryFn: ({ pageParam }) =>
        take(
          api.GET('/api/v1/deadline-sets', {
            params: {
              query: { limit: MOST, ...(pageParam !== undefined && { cursor: pageParam }) },
            },
          }),
        ),
      initialPageParam: undefined as number | undefined,
      getNextPageParam: ({ next }) => (next === undefined ? undefined : Number(next)),
    });
  useEffect(() => {
    if (hasNextPage && !isFetching && !error) {
      void fetchNextPage();
    }
  }, [hasNextPage, isFetching, error, fetchNextPage]);
  return { data: data?.pages.flatMap((page) => page.sets), error, isPending, refetch };
}

export const useSet = (id: number | null) =>
  useRead(keys.deadlineSet(id), () => api.GET('/api/v1/deadline-sets/{id}', of({ id: id ?? 0 })), {
    enabled: id !== null,
  });

/** The sets that a record is in, or whose key date belongs to it. */
export const useSetsAround = (record: number) =>
  useRead(keys.setsAround(record), () =>
    api.GET('/api/v1/records/{id}/deadline-sets', of({ id: record })),
  );

/** What would come of it, as one types. */
export const useMakingLook = (sets: Making[]) =>
  useRead(
    keys.deadlineLook(sets),
    () => api.POST('/api/v1/deadline-sets/look', { body: { sets } }),
    { enabled: sets.length > 0, placeholderData: asBefore<Looks>, gcTime: 0 },
  );

export const useMoveLook = (sets: Move[]) =>
  useRead(
    keys.deadlineLook(sets),
    () => api.POST('/api/v1/deadline-sets/move/look', { body: sent(sets) }),
    { enabled: sets.length > 0, placeholderData: asBefore<Looks>, gcTime: 0 },
  );

export const useOffLook = (set: DeadlineSet) =>
  useRead(
    keys.deadlineLook(['off', set.id, set.tag]),
    () =>
      api.POST('/api/v1/deadline-sets/off/look', {
        body: { sets: [{ set: set.id, ifMatch: set.tag }] },
      }),
    { gcTime: 0 },
  );

/** As it is sent: the document of the API does not tell that a date may be null. */
const sent = (sets: Move[]) => ({ sets: sets as Schemas['DeadlineSetMove'][] });

const once = () => ({ header: { 'Idempotency-Key': newKey() } });

/** What is done to sets; records and calendars follow. */
export function useSetDeeds() {
  return {
    make: useDo((sets: Making[]) =>
      api.POST('/api/v1/deadline-sets', { body: { sets }, params: once() }),
    ),
    move: useDo((sets: Move[]) =>
      api.POST('/api/v1/deadline-sets/move', { body: sent(sets), params: once() }),
    ),
    takeOff: useDo((set: DeadlineSet) =>
      api.POST('/api/v1/deadline-sets/off', {
        body: { sets: [{ set: set.id, ifMatch: set.tag }] },
        params: once(),
      }),
    ),
  };
}

/** Open records of these words, for the work that a key date belongs to. */
export const useWork = (find: string) =>
  useRead(
    keys.recordsFound(find, 'deadline-work'),
    () => api.GET('/api/v1/records', { params: { query: { find, limit: 20 } } }),
    { placeholderData: asBefore<Schemas['Page']> },
  );

// ---- Chains --------------------------------------------------------------------------------------

export const useChains = () => useRead(keys.chains, () => api.GET('/api/v1/chains'));

export const useMethods = () => useRead(keys.methods, () => api.GET('/api/v1/notice-methods'));

/** What a text comes to, as one types. */
export const useTrial = (tried: Schemas['ChainTried']) =>
  useRead(keys.chainTrial(tried), () => api.POST('/api/v1/chains/read', { body: tried }), {
    placeholderData: asBefore<Trial>,
    gcTime: 0,
  });

export function useChainDeeds() {
  return {
    add: useDo((text: string) => api.POST('/api/v1/chains', { body: { text }, params: once() })),
    revise: useDo(({ id, tag, text }: Seen<{ id: number; text: string }>) =>
      api.PUT('/api/v1/chains/{id}', { ...ofStill({ id }, tag), body: { text } }),
    ),
    remove: useDo((id: number) => api.DELETE('/api/v1/chains/{id}', of({ id }))),
    setMethods: useDo(({ tag, methods }: Seen<Schemas['NoticeMethodsChange']>) =>
      api.PUT('/api/v1/notice-methods', {
        params: { header: { 'If-Match': tag } },
        body: { methods },
      }),
    ),
  };
}

/** A step as its line. */
export const useStepLine = () =>
  useDo((step: ChainStep) => api.POST('/api/v1/chains/line', { body: step }), []);
