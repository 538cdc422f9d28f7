import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useState } from 'react';
import { of, useDo, useRead } from '../../shared/api/ask';
import { api, newKey, ProblemError, take, type Schemas } from '../../shared/api/client';
import { keys } from '../../shared/api/keys';
import { nowMoment } from '../../shared/time';
import {
  keepDay,
  keepWaiting,
  keptDay,
  waitingOf,
  withMarks,
  type Mark,
  type Waiting,
} from './kept';

const offline = (error: unknown) => error instanceof ProblemError && error.problem.status === 0;

/** My day, also without network: what was last fetched, with the marks that wait to be sent. */
export function useMyDay(person: number) {
  const queries = useQueryClient();
  const [waiting, setWaiting] = useState<Waiting[]>(() => waitingOf(person));
  const query = useQuery({
    queryKey: keys.myDay,
    queryFn: async () => {
      const day = await take(api.GET('/api/v1/my-day'));
      keepDay(person, day);
      return day;
    },
    retry: false,
    networkMode: 'always',
    // That the network is back is noticed soon, though nothing says so.
    refetchInterval: ({ state }) => (state.error === null ? 30_000 : 5_000),
  });

  const put = useCallback(
    (change: (now: Waiting[]) => Waiting[]) => {
      // Another window may have sent some meanwhile.
      const next = change(waitingOf(person));
      keepWaiting(person, next);
      setWaiting(next);
    },
    [person],
  );

  const send = useCallback(async () => {
    for (const one of waitingOf(person).filter((w) => !w.refused)) {
      try {
        await take(
          api.PATCH('/api/v1/records/{id}', {
            body: one.change,
            params: {
              path: { id: one.record },
              header: { 'If-Match': '*', 'Idempotency-Key': one.key },
            },
          }),
        );
        put((now) => now.filter((w) => w.key !== one.key));
      } catch (error) {
        if (offline(error) || (error instanceof ProblemError && error.problem.status >= 500)) {
          return;
        }
        const why = error instanceof Error ? error.message : String(error);
        put((now) => now.map((w) => (w.key === one.key ? { ...w, refused: why } : w)));
      }
    }
    await queries.invalidateQueries({ queryKey: keys.myDay });
  }, [queries, person, put]);

  useEffect(() => {
    const back = () => void send();
    window.addEventListener('online', back);
    back();
    return () => window.removeEventListener('online', back);
  }, [send]);
  // The network may come back without saying so: then the day is fetched, and what waits is sent.
  const fetched = query.dataUpdatedAt;
  useEffect(() => {
    if (fetched > 0 && waitingOf(person).some((w) => !w.refused)) {
      void send();
    }
  }, [fetched, person, send]);

  const kept = keptDay(person);
  const without = query.error !== null && offline(query.error);
  const day = query.data && !without ? query.data : kept?.day;
  return {
    day: day && withMarks(day, waiting),
    at: without ? (kept?.at ?? null) : nowMoment(),
    without,
    error: query.error && !without ? query.error : null,
    pending: query.isPending && !kept,
    again: () => void query.refetch(),
    waiting,
    mark: (record: number, change: Mark) => {
      put((now) => [...now, { key: newKey(), record, change }]);
      void send();
    },
    forget: (key: string) => put((now) => now.filter((w) => w.key !== key)),
    seen: async (...records: number[]) => {
      await Promise.all(
        records.map((id) => take(api.POST('/api/v1/records/{id}/seen', of({ id })))),
      );
      await queries.invalidateQueries({ queryKey: keys.myDay });
    },
    lostSeen: async (record: number) => {
      await take(api.POST('/api/v1/my-day/lost/{record}/seen', of({ record })));
      await queries.invalidateQueries({ queryKey: keys.myDay });
    },
  };
}

export const useMyTimes = (id: number) =>
  useRead(keys.ownTimes, () => api.GET('/api/v1/people/{id}/times', of({ id })));

/** Leave that is asked for, until the office agrees. */
export function useMyLeave(id: number) {
  return {
    ask: useDo(
      (body: Schemas['LeaveWish']) =>
        api.POST('/api/v1/people/{id}/leave', { ...of({ id }), body }),
      [keys.ownTimes],
    ),
    back: useDo(
      (leave: number) => api.DELETE('/api/v1/people/{id}/leave/{leave}', of({ id, leave })),
      [keys.ownTimes],
    ),
  };
}
