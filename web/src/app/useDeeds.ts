import { useEffect, useEffectEvent, useRef, useState } from 'react';
import { useUndo } from '../features/records';
import { onSettled } from '../shared/api/acts';
import { ProblemError } from '../shared/api/client';
import type { Told } from '../shared/ui/tray';
import { settledSaid } from '../shared/words';
import { useWhenIdle } from './useWhenIdle';
import { frameWords as words } from './words';

/** What was done here, and what of it was taken back; each the acts it took. */
interface Deeds {
  done: number[][];
  undone: number[][];
}

/** What was said last, and the way back from what was done here, and forth again. */
export function useDeeds() {
  const [told, setTold] = useState<Told | null>(null);
  const [acts, setActs] = useState<Deeds>({ done: [], undone: [] });
  // Known at once, for a second key that comes before the page is drawn.
  const latest = useRef(acts);
  const keep = (next: Deeds) => {
    latest.current = next;
    setActs(next);
  };
  const undo = useUndo();
  const line = useRef<Promise<void>>(Promise.resolve());
  const whenIdle = useWhenIdle();

  const tell = (what: Told) => {
    setTold(what);
    const deed = what.acts ?? (what.act != null ? [what.act] : []);
    if (deed.length > 0) {
      keep({ done: [...latest.current.done, deed], undone: [] });
    }
  };
  const tellOfSettled = useEffectEvent(tell);
  useEffect(
    () => onSettled(({ act, kind }) => tellOfSettled({ text: settledSaid(kind), act })),
    [],
  );
  /** What was taken back is an act too: taking that back does it again. */
  const takeBack = async (again: boolean) => {
    const [from, to] = again ? (['undone', 'done'] as const) : (['done', 'undone'] as const);
    const deed = latest.current[from].at(-1);
    if (!deed) {
      return;
    }
    const left = new Set<string>();
    const taken: number[] = [];
    try {
      for (const act of [...deed].reverse()) {
        const answer = await undo.mutateAsync(act);
        (answer.leaves ?? []).forEach((one) => left.add(one));
        taken.push(answer.act);
      }
      const said = again ? words.doneAgain : words.takenBack;
      setTold({ text: left.size > 0 ? words.left + [...left].join(', ') : said });
    } catch (error) {
      setTold({ text: error instanceof ProblemError ? error.message : words.failed });
    }
    if (taken.length > 0) {
      // What could not be taken back, of several, can be tried again.
      const rest = deed.slice(0, deed.length - taken.length);
      const others = latest.current[from].filter((one) => one !== deed);
      keep({
        ...latest.current,
        [from]: rest.length > 0 ? [...others, rest] : others,
        [to]: [...latest.current[to], taken],
      });
    }
  };
  const inTurn = (again: boolean) => {
    line.current = line.current
      .then(() => new Promise<void>((ready) => whenIdle(ready)))
      .then(() => takeBack(again));
  };
  return {
    told,
    acts,
    pending: undo.isPending,
    tell,
    close: () => setTold(null),
    undo: () => inTurn(false),
    redo: () => inTurn(true),
  };
}
