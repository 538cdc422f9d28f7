import { useState } from 'react';
import { addDays, daysBetween, localAt } from '../../shared/time';
import { useKeys } from '../../shared/ui/keys';
import type { Days } from './days';
import type { Focus } from './Grid';
import type { Lane, Piece } from './lanes';
import type { HeldVisit } from '../cover';
import { across, dateOf, minutesBetween, toldDrop } from './drops';
import type { rowsOf } from './rows';
import type { useBoardPage } from './useBoardPage';
import type { Spot } from './useDrag';
import type { useMoves } from './useMoves';
import { words } from './words';

type Page = ReturnType<typeof useBoardPage>;
export type Action = [key: string, label: string, act: () => void];

/** What hands do on the board: focus, choose, move, stretch, copy, paste, draw. */
export function useHands(
  page: Page,
  rows: ReturnType<typeof rowsOf>,
  days: Days,
  moves: ReturnType<typeof useMoves>,
  mayMake: boolean,
) {
  const [focus, setFocus] = useState<Focus | null>(null);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [copied, setCopied] = useState<{ pieces: Piece[]; lane: Lane; day: number } | null>(null);
  const [lifted, setLifted] = useState<{ pieces: Piece[]; lane: Lane; from: Focus } | null>(null);
  const [asking, setAsking] = useState(false);

  const [dragged, setDragged] = useState<HeldVisit | null>(null);

  const laneOf = (key: string) => {
    const row = rows.find((r) => r.key === key);
    return row?.type === 'lane' ? row.lane : null;
  };
  const lane = focus ? laneOf(focus.lane) : null;
  const piece =
    lane && focus && focus.piece >= 0 ? lane.cells[focus.day]?.[focus.piece] : undefined;
  const all = () => {
    const found = new Map<string, Piece>();
    rows.forEach((r) => r.type === 'lane' && r.lane.pieces.forEach((p) => found.set(p.key, p)));
    return [...chosen].flatMap((key) => found.get(key) ?? []);
  };
  const everything = () =>
    new Set(rows.flatMap((r) => (r.type === 'lane' ? r.lane.pieces.map((p) => p.key) : [])));
  /** What an action is about: everything chosen, else what has the keyboard. */
  const meant = (): Piece[] => {
    const many = all();
    return many.length > 0 ? many : piece ? [piece] : [];
  };

  const go = (pieces: Piece[], fromLane: Lane, toLane: Lane, dayStep: number, minutes: number) => {
    const onLane = new Set(fromLane.pieces.map((p) => p.key));
    moves.move(pieces, (p) => ({
      days: dayStep,
      minutes,
      ...(onLane.has(p.key) ? across(fromLane, toLane) : {}),
    }));
  };

  const stretch = (pieces: Piece[], minutes: number) =>
    moves.move(pieces, (p) => ({
      days: p.allDay ? Math.sign(minutes) : 0,
      minutes: p.allDay ? 0 : minutes,
      stretch: true,
    }));

  const quarter = (minutes: number) => 15 * Math.round(minutes / 15);
  const hold = (now: { piece: Piece; from: Spot; to: Spot } | null) => {
    const next =
      now &&
      heldVisit(
        now.piece,
        now.from.lane,
        now.to.day - now.from.day,
        quarter(minutesBetween(days, now.from.moment, now.to.moment)),
      );
    setDragged((before) => (JSON.stringify(before) === JSON.stringify(next) ? before : next));
  };
  /** What is in the hand, by the pointer or by the keyboard. */
  const held =
    dragged ??
    (lifted && focus
      ? heldVisit(lifted.pieces[0], lifted.lane, focus.day - lifted.from.day, 0)
      : null);

  const drop = (held: Piece, from: Spot, to: Spot, edge: boolean) => {
    const pieces = chosen.has(held.key) ? all() : [held];
    if (edge) {
      const end = held.allDay ? addDays(days.dates[to.day]!, 1) : '';
      const minutes = Math.round((to.moment - held.end) / 60_000);
      moves.move([held], () => ({
        days: held.allDay ? daysBetween(localAt(held.end, days.zone).slice(0, 10), end) : 0,
        minutes: held.allDay ? 0 : minutes,
        stretch: true,
      }));
      return;
    }
    go(pieces, from.lane, to.lane, to.day - from.day, minutesBetween(days, from.moment, to.moment));
  };

  const draftAt = (to: Lane, start: string, end: string | null) =>
    page.make(
      JSON.stringify({
        ...(to.person !== null && { lead: to.person }),
        ...(to.place !== null && { place: to.place }),
        ...(end ? { span: [start, end] } : { day: start }),
      }),
    );

  const draw = (from: Spot, to: Spot) => {
    const [a, b] = [Math.min(from.moment, to.moment), Math.max(from.moment, to.moment)];
    if (b > a) {
      draftAt(from.lane, localAt(a, days.zone), localAt(b, days.zone));
    }
  };

  const makeAt = ({ lane: key, day }: { lane: string; day: number }) => {
    const at = laneOf(key);
    if (at) {
      draftAt(at, days.dates[day]!, null);
    }
  };

  const tell = (held: Piece | null, from: Spot, to: Spot, edge: boolean) =>
    toldDrop(days, held, from, to, edge);

  const choose = (one: Piece) =>
    setChosen((now) => {
      const next = new Set(now);
      if (!next.delete(one.key)) {
        next.add(one.key);
      }
      return next;
    });

  const copy = () => {
    const pieces = meant();
    if (pieces.length > 0 && lane && focus) {
      setCopied({ pieces, lane, day: focus.day });
    }
  };
  const paste = () => {
    if (!copied || !focus || !lane) {
      return;
    }
    const first = Math.min(...copied.pieces.map((p) => p.day));
    const onLane = new Set(copied.lane.pieces.map((p) => p.key));
    const step = daysBetween(dateOf(days, copied.pieces, first), days.dates[focus.day]!);
    moves.paste(copied.pieces, (p) => ({
      days: step,
      minutes: 0,
      ...(onLane.has(p.key) ? across(copied.lane, lane) : {}),
    }));
  };
  const lift = () => {
    const pieces = meant().filter((p) => p.item.moves ?? p.item.hands);
    if (pieces.length > 0 && lane && focus) {
      setLifted({ pieces, lane, from: focus });
    }
  };
  const putDown = () => {
    if (lifted && focus && lane) {
      const steps = focus.day - lifted.from.day;
      go(lifted.pieces, lifted.lane, lane, steps, 0);
      setLifted(null);
    }
  };
  const marks = (change: object, said: string) =>
    piece && moves.change(piece.item.record, change, said);

  const enter = () => {
    if (lifted) {
      putDown();
    } else if (piece) {
      page.open(piece.item.record);
    } else if (focus && lane && (lane.cells[focus.day]?.length ?? 0) > 0) {
      setFocus({ ...focus, piece: 0 });
    } else if (focus && mayMake) {
      makeAt(focus);
    }
  };
  const escape = () => {
    if (lifted) {
      setFocus(lifted.from);
      setLifted(null);
    } else if (chosen.size > 0) {
      setChosen(new Set());
    } else {
      page.close();
    }
  };
  const actions: Action[] = [
    ...(piece ? ([['Enter', words.actions.open, enter]] as Action[]) : []),
    ...(focus && mayMake ? ([['', words.actions.make, () => makeAt(focus)]] as Action[]) : []),
    ...(meant().length > 0
      ? ([
          ['m', words.actions.lift, lift],
          ['>', words.actions.longer, () => stretch(meant(), 15)],
          ['<', words.actions.shorter, () => stretch(meant(), -15)],
          ['c', words.actions.copy, copy],
        ] as Action[])
      : []),
    ...(copied ? ([['v', words.actions.paste, paste]] as Action[]) : []),
    ...(piece
      ? ([
          ['x', words.actions.choose, () => choose(piece)],
          ['o', words.actions.confirm, () => marks({ state: 'CONFIRMED' }, 'confirmed')],
          ['s', words.actions.start, () => marks({ started: true }, 'started')],
          ['f', words.actions.finish, () => marks({ state: 'DONE' }, 'finished')],
        ] as Action[])
      : []),
    ...(lane
      ? ([
          ['a', words.actions.all, () => setChosen(new Set(lane.pieces.map((p) => p.key)))],
        ] as Action[])
      : []),
    ['A', words.actions.everything, () => setChosen(everything())],
  ];
  const byKey = (key: string) => actions.find(([k]) => k === key)?.[2];
  // The open record has its own keys for confirm, start and finish.
  const marksHere = page.chosen === null && !page.making;
  useKeys({
    Escape: escape,
    '.': () => setAsking(true),
    ...Object.fromEntries(
      ['m', '>', '<', 'c', 'v', 'x', 'a', 'A', ...(marksHere ? ['o', 's', 'f'] : [])].flatMap(
        (key) => {
          const act = byKey(key);
          return act ? [[key, act]] : [];
        },
      ),
    ),
    ...Object.fromEntries(
      rows
        .filter((r) => r.type === 'group' && r.key !== 'calendars')
        .slice(0, 9)
        .map((r, i) => [
          String(i + 1),
          () => {
            const next = rows[rows.indexOf(r) + 1];
            if (next) {
              setFocus({ lane: next.key, day: focus?.day ?? 0, piece: -1, top: true });
            }
          },
        ]),
    ),
  });

  const hint = lifted
    ? words.lifted
    : chosen.size > 0
      ? words.chosen(chosen.size)
      : copied
        ? words.copied(copied.pieces.length)
        : null;
  return {
    focus,
    setFocus,
    chosen,
    choose,
    dropChosen: () => setChosen(new Set()),
    copyOn: () => moves.paste(all(), () => ({ days: page.zoom === 'weeks' ? 21 : 7, minutes: 0 })),
    hint,
    asking,
    stopAsking: () => setAsking(false),
    actions,
    hold,
    held: mayMake ? held : null,
    drop,
    draw,
    makeAt,
    enter,
    tell,
  };
}

/** A visit with times, as it is held over other days; the rest is in nobody's way. */
function heldVisit(
  piece: Piece | undefined,
  lane: Lane,
  days: number,
  minutes: number,
): HeldVisit | null {
  const { record, visit, when } = piece?.item ?? {};
  return record && visit && when ? { record, visit, from: lane.person, days, minutes } : null;
}
