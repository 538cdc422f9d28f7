import { useEffect, useRef, useState } from 'react';
import { ProblemError, type Schemas } from '../../shared/api/client';
import { useTray } from '../../shared/ui/tray';
import { fetchRecord, useSeveral } from '../records';
import type { Item, Piece } from './lanes';
import { changedSince, changeFor, copyOf, movedText, type Move } from './moves';
import { words } from './words';

type RecordView = Schemas['RecordView'];

/** A move that somebody else was quicker than: theirs and mine, until one is chosen. */
export interface Conflict {
  theirs: RecordView;
  item: Item;
  /** What mine would make of it, in words. */
  mine: string;
  again: () => void;
}

/**
 * Moves, hands over, stretches and copies: looks at each record afresh, then one act for all. One
 * follows the other, so that a second key press moves what the first one left.
 *
 * @param shown the pieces on the board by their keys
 * @param nameOf what a person is called
 */
export function useMoves(shown: Map<string, Piece>, nameOf: (person: number) => string) {
  const several = useSeveral();
  const tray = useTray();
  const [conflict, setConflict] = useState<Conflict | null>(null);
  const latest = useRef(shown);
  useEffect(() => {
    latest.current = shown;
  });
  const line = useRef<Promise<void>>(Promise.resolve());

  const failed = (error: unknown) =>
    tray.tell({ text: error instanceof ProblemError ? error.message : words.failed });

  const send = async (items: Schemas['SeveralItem'][], said: string) => {
    const real = items.filter((i) => i.make ?? Object.keys(i.change ?? {}).length > 0);
    if (real.length === 0) {
      return;
    }
    const done = await several.mutateAsync(real);
    const ref = real.length === 1 ? (done.record?.ref ?? '') + ' ' : '';
    const counts =
      done.entries != null && done.calendars != null
        ? `: ${done.entries} entries on ${done.calendars} calendars`
        : '';
    tray.tell({ text: ref + said + counts, act: done.act });
  };

  const run = (work: () => Promise<void>) => {
    line.current = line.current.then(work).catch(failed).then(drawn);
  };
  const asShown = (pieces: Piece[]) => pieces.map((p) => latest.current.get(p.key) ?? p);

  const move = (pieces: Piece[], how: (piece: Piece) => Move, over = false): void => {
    run(async () => {
      const byRecord = new Map<number, Piece[]>();
      asShown(pieces).forEach((p) =>
        byRecord.set(p.item.record, [...(byRecord.get(p.item.record) ?? []), p]),
      );
      const items: Schemas['SeveralItem'][] = [];
      for (const [id, mine] of byRecord) {
        const { data, tag } = await fetchRecord(id);
        const stale = mine.find((p) => changedSince(p.item, data));
        if (stale && !over) {
          setConflict({
            theirs: data,
            item: stale.item,
            mine: movedText(stale.item, how(stale), nameOf),
            again: () => move(pieces, how, true),
          });
          return;
        }
        const change = changeFor(
          data,
          mine.map((p) => p.item.visit),
          how(mine[0]!),
        );
        items.push({ record: id, ifMatch: tag, change });
      }
      await send(items, words.moved(items.length));
    });
  };

  const paste = (pieces: Piece[], how: (piece: Piece) => Move): void => {
    run(async () => {
      const items: Schemas['SeveralItem'][] = [];
      for (const p of asShown(pieces)) {
        const { data } = await fetchRecord(p.item.record);
        items.push({ like: p.item.record, make: copyOf(data, p.item.visit, how(p)) });
      }
      await send(items, words.pasted(items.length));
    });
  };

  return {
    move,
    paste,
    change: (id: number, change: Schemas['RecordChange'], said: string) =>
      run(async () => {
        const { tag } = await fetchRecord(id);
        await send([{ record: id, ifMatch: tag, change }], said);
      }),
    conflict,
    settle: (mine: boolean) => {
      const again = conflict?.again;
      setConflict(null);
      if (mine) {
        again?.();
      }
    },
  };
}

/** Until what was fetched is on the page. */
const drawn = () => new Promise<void>((done) => window.setTimeout(done));
