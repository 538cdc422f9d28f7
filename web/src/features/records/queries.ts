import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { asBefore, of, useDo, useRead, useStale } from '../../shared/api/ask';
import { api, take, takeTagged, type Schemas } from '../../shared/api/client';
import { tellTimesMoved } from '../../shared/api/moved';
import { keys, recordChanged } from '../../shared/api/keys';
import { useLookedAt } from '../../shared/look/useLookedAt';
import type { Change, RecordView } from './model';

/** By due time or beginning, as they were made, by place, or by the value of a detail. */
export type Order =
  | 'SOONEST'
  | 'LATEST'
  | 'DUE'
  | 'DUE_LAST'
  | 'BEGIN'
  | 'BEGIN_LAST'
  | 'CHANGED'
  | 'CHANGED_FIRST'
  | 'NEWEST'
  | 'OLDEST'
  | 'PLACE'
  | 'PLACE_LAST'
  | `DETAIL:${string}`
  | `DETAIL_LAST:${string}`;

export interface ListWish {
  find: string;
  state: string;
  kind: string;
  person: number;
  place: number;
  sort: Order;
}

/** What is wished for, as the address of the list and of its files says it. */
export function wishQuery(wish: ListWish) {
  return {
    find: wish.find,
    state: STATES[wish.state] ?? '',
    ...(wish.kind && { kind: wish.kind }),
    ...(wish.person && { person: wish.person }),
    ...(wish.place && { place: wish.place }),
    ...(wish.sort !== 'SOONEST' && { sort: wish.sort }),
  };
}

const STATES: Record<string, string> = {
  open: 'DRAFT,TENTATIVE,CONFIRMED',
  done: 'DONE',
  all: '',
};

export function useRecords(wish: ListWish) {
  return useInfiniteQuery({
    queryKey: keys.recordList(wish),
    initialPageParam: undefined as string | undefined,
    queryFn: ({ pageParam }) =>
      take(
        api.GET('/api/v1/records', {
          params: {
            query: {
              ...wishQuery(wish),
              cursor: pageParam,
              limit: 100,
            },
          },
        }),
      ),
    getNextPageParam: (last) => last.next,
    placeholderData: asBefore,
  });
}

/** How many of the list there are of each sort. */
export function useFacets(wish: ListWish) {
  const query = wishQuery({ ...wish, sort: 'SOONEST' });
  return useRead(
    keys.facets(query),
    () => api.GET('/api/v1/records/facets', { params: { query } }),
    { placeholderData: asBefore },
  );
}

/** What a line that finds is understood as. */
export const useReading = (line: string) =>
  useRead(keys.reading(line), () => api.GET('/api/v1/find', { params: { query: { line } } }), {
    enabled: line.trim() !== '',
    placeholderData: asBefore,
  });

export function useRecord(id: number | null) {
  return useQuery({
    queryKey: keys.record(id),
    enabled: id !== null,
    queryFn: () => fetchRecord(id ?? 0),
  });
}

export const useLandings = (id: number) =>
  useRead(keys.landings(id), () => api.GET('/api/v1/records/{id}/landings', of({ id })));

/** The record that an entry of a calendar is of. */
export const useEntryHome = (entry: string) =>
  useRead(keys.entryHome(entry), () =>
    api.GET('/api/v1/open/{entry}', { params: { path: { entry } } }),
  );

export const useHistory = (id: number) =>
  useRead(keys.history(id), () => api.GET('/api/v1/records/{id}/history', of({ id })));

/** Where what is being typed would land. */
export const usePreview = (change: Change, enabled: boolean) =>
  useRead(keys.preview(change), () => api.POST('/api/v1/landings', { body: change }), {
    enabled,
    placeholderData: asBefore,
    retry: false,
  });

function useRefresh() {
  const queries = useQueryClient();
  return (id?: number) => recordChanged(queries, id);
}

/** What a save answers is shown at once, and keys act on it, before it is read again. */
function useShown() {
  const queries = useQueryClient();
  return ({ data, tag }: { data: Schemas['ActAnswer']; tag: string }) => {
    if (data.record) {
      queries.setQueryData(keys.record(data.record.id), { data: data.record, tag });
    }
    return data;
  };
}

export function useCreate() {
  const refresh = useRefresh();
  const shown = useShown();
  return useMutation({
    mutationFn: ({ body, key }: { body: Change; key: string }) =>
      takeTagged(
        api.POST('/api/v1/records', { body, params: { header: { 'Idempotency-Key': key } } }),
      ).then(shown),
    onSuccess: () => refresh(),
  });
}

export function useChange(id: number) {
  const refresh = useRefresh();
  const shown = useShown();
  return useMutation({
    mutationFn: ({ body, tag, key }: { body: Change; tag: string; key?: string }) =>
      takeTagged(
        api.PATCH('/api/v1/records/{id}', {
          body,
          params: {
            path: { id },
            header: { 'If-Match': tag, 'Idempotency-Key': key },
          },
        }),
      ).then(shown),
    onSuccess: (_, { body }) => {
      refresh(id);
      tellTimesMoved([{ record: id, change: body }]);
    },
    onError: () => refresh(id),
  });
}

/** Whatever was done may be shown anywhere. */
export const useUndo = () =>
  useDo((act: number) => api.POST('/api/v1/acts/{id}/undo', of({ id: act })));

/** Changes a record as it is this moment: looks first, so that nobody's words are written over. */
export function useChangeNow() {
  const queries = useQueryClient();
  const shown = useShown();
  return useMutation({
    // One after the other, so that two quick keys do not meet.
    scope: { id: 'change-now' },
    mutationFn: async ({ id, change }: { id: number; change: (now: RecordView) => Change }) => {
      const { data, tag } = await fetchRecord(id);
      const body = change(data);
      const done = await takeTagged(
        api.PATCH('/api/v1/records/{id}', {
          body,
          params: { path: { id }, header: { 'If-Match': tag } },
        }),
      ).then(shown);
      tellTimesMoved([{ record: id, change: body }]);
      return done;
    },
    onSettled: () => {
      void queries.invalidateQueries();
    },
  });
}

export type Several = Schemas['SeveralItem'][];

/** Makes and changes several records as one act. */
export function useSeveral() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (items: Several) => take(api.POST('/api/v1/records/several', { body: { items } })),
    onSuccess: (_, items) => tellTimesMoved(items),
    onSettled: () => {
      void queries.invalidateQueries({ predicate: (query) => query.queryKey[0] !== 'board' });
      // On the board, done is when it shows it.
      return queries.invalidateQueries({ queryKey: keys.board });
    },
  });
}

/** A record with its tag, fresh from the server. */
export function fetchRecord(id: number) {
  return takeTagged(api.GET('/api/v1/records/{id}', of({ id })));
}

/** A few records by some words, to choose one. */
export const useFound = (find: string, state = '') =>
  useRead(
    keys.recordsFound(find, state),
    () => api.GET('/api/v1/records', { params: { query: { find, state, limit: 20 } } }),
    { placeholderData: asBefore },
  );

export const useViews = () => useRead(keys.views, () => api.GET('/api/v1/views'));

export const useSaveView = () =>
  useDo((body: Schemas['SavedViewWish']) => api.POST('/api/v1/views', { body }), [keys.views]);

export const useLetViewGo = () =>
  useDo((id: number) => api.DELETE('/api/v1/views/{id}', of({ id })), [keys.views]);

/** What waits for a coordinator's yes. */
export const useReleases = (enabled: boolean) =>
  useRead(keys.releases, () => api.GET('/api/v1/releases'), { enabled });

/** Says yes to what was looked at. */
export const useYes = () =>
  useDo((items: Schemas['Yes'][]) => api.POST('/api/v1/releases', { body: { items } }));

/** The same, looked at first. */
export const useSeveralLookedAt = () =>
  useLookedAt(
    (to, items: Several) => take(to.POST('/api/v1/records/several', { body: { items } })),
    useStale(),
  );
