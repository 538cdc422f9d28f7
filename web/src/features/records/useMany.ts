import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { lookAt, ProblemError, take } from '../../shared/api/client';
import { keys } from '../../shared/api/keys';
import { usePeople } from '../../shared/api/house';
import { useTray } from '../../shared/ui/tray';
import { planned, type Deed, type Left, type Planned } from './many';
import { fetchRecord, useSeveral, type Several } from './queries';
import { words } from './words';

/** The most that one act takes. */
const PART = 200;

export interface Plan {
  said: string;
  rows: Planned[];
  left: Left[];
}

const sent = (rows: Planned[]) =>
  rows.map(({ record, tag, change }) => ({ record: record.id, ifMatch: tag, change })) as Several;

/**
 * Something done to many records: planned, looked at, any part of it taken, in acts of at most 200
 * records each that can be stopped and gone on with; one undo takes all of them back.
 */
export function useMany(ids: number[], onDone: () => void) {
  const people = usePeople();
  const several = useSeveral();
  const tray = useTray();
  const [plan, setPlan] = useState<Plan | null>(null);
  const [without, setWithout] = useState<ReadonlySet<number>>(new Set());
  const [done, setDone] = useState<ReadonlySet<number>>(new Set());
  const [running, setRunning] = useState(false);
  const [error, setError] = useState<Error | null>(null);
  const acts = useRef<number[]>([]);
  const stopped = useRef(false);
  const nameOf = (id: number) => people.data?.find((p) => p.id === id)?.name ?? '';
  const wanted = (plan?.rows ?? []).filter((row) => !without.has(row.record.id));
  const open = wanted.filter((row) => !done.has(row.record.id));

  const look = async (deed: Deed, said: string) => {
    setError(null);
    try {
      const fresh = await Promise.all(ids.map(fetchRecord));
      const all = fresh.map(({ data, tag }) => planned(deed, data, tag, nameOf));
      setWithout(new Set());
      setDone(new Set());
      acts.current = [];
      setPlan({
        said,
        rows: all.filter((one): one is Planned => 'change' in one),
        left: all.filter((one): one is Left => 'why' in one),
      });
    } catch (failed) {
      tray.tell({ text: failed instanceof ProblemError ? failed.message : words.failed });
    }
  };
  const finish = (count: number) => {
    setPlan(null);
    if (acts.current.length > 0) {
      tray.tell({ text: `${plan?.said ?? ''}: ${words.changed(count)}`, acts: acts.current });
      onDone();
    }
  };
  /** Also goes on with what a stop or a refusal left. */
  const run = async () => {
    stopped.current = false;
    setError(null);
    setRunning(true);
    const now = new Set(done);
    try {
      for (let at = 0; at < open.length && !stopped.current; at += PART) {
        const part = open.slice(at, at + PART);
        const answer = await several.mutateAsync(sent(part));
        acts.current.push(answer.act);
        part.forEach((row) => now.add(row.record.id));
        setDone(new Set(now));
      }
      if (!stopped.current) {
        finish(now.size);
      }
    } catch (failed) {
      setError(failed as Error);
    } finally {
      setRunning(false);
    }
  };
  const effect = useQuery({
    queryKey: keys.manyLook(open.map(({ record, tag, change }) => [record.id, tag, change])),
    enabled: plan !== null && open.length > 0 && !running,
    gcTime: 0,
    // What stands there stays until it is known anew, so that no button moves under a hand.
    placeholderData: keepPreviousData,
    queryFn: () =>
      lookAt((client) =>
        take(
          client.POST('/api/v1/records/several', { body: { items: sent(open.slice(0, PART)) } }),
        ),
      ),
  });
  return {
    plan,
    /** What the first part of it does to calendars. */
    effect,
    inPart: open.length > PART,
    look,
    run,
    running,
    error,
    without,
    count: wanted.length,
    done: done.size,
    turn: (id: number) =>
      setWithout((now) => {
        const next = new Set(now);
        if (!next.delete(id)) {
          next.add(id);
        }
        return next;
      }),
    stop: () => {
      stopped.current = true;
    },
    close: () => finish(done.size),
    isDone: (id: number) => done.has(id),
  };
}
