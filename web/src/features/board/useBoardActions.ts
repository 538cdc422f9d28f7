import { useState } from 'react';
import { addDays, daysBetween, localAt } from '../../shared/time';
import type { Days } from './days';
import type { Focus } from './Grid';
import type { Lane, Piece } from './lanes';
import { across, minutesBetween, toldDrop } from './drops';
import { pickedOf, type Picked } from './picked';
import type { rowsOf } from './rows';
import { useActionKeys, type Action } from './useActionKeys';
import type { useBoardPage } from './useBoardPage';
import type { Spot } from './useDrag';
import { useClipboard, useInHand, type Go } from './useInHand';
import type { useMoves } from './useMoves';
import { words } from './words';

type Page = ReturnType<typeof useBoardPage>;
type Moves = ReturnType<typeof useMoves>;

/** What is done on the board by pointer and keyboard: focus, choose, move, stretch, copy, draw. */
export function useBoardActions(
  page: Page,
  rows: ReturnType<typeof rowsOf>,
  days: Days,
  moves: Moves,
  mayMake: boolean,
) {
  const [focus, setFocus] = useState<Focus | null>(null);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [asking, setAsking] = useState(false);
  const picked = pickedOf(rows, focus, chosen);
  const { lane, piece, all } = picked;
  const pointer = pointerDeeds(page, days, moves, picked, chosen);
  const hand = useInHand(days, focus, setFocus, picked, pointer.go);
  const clipboard = useClipboard(days, focus, picked, moves);

  const choose = (one: Piece) =>
    setChosen((now) => {
      const next = new Set(now);
      if (!next.delete(one.key)) {
        next.add(one.key);
      }
      return next;
    });
  const enter = () => {
    if (hand.isLifted) {
      hand.putDown();
    } else if (piece) {
      page.open(piece.item.record);
    } else if (focus && lane && (lane.cells[focus.day]?.length ?? 0) > 0) {
      setFocus({ ...focus, piece: 0 });
    } else if (focus && mayMake) {
      pointer.makeAt(focus);
    }
  };
  const escape = () => {
    if (hand.isLifted) {
      hand.putBack();
    } else if (chosen.size > 0) {
      setChosen(new Set());
    } else {
      page.close();
    }
  };
  const marks = (change: object, said: string) =>
    piece && moves.change(piece.item.record, change, said);
  const stretch = (minutes: number) => stretched(moves, picked.meant(), minutes);
  const actions: Action[] = [
    ...some(piece, () => [['Enter', words.actions.open, enter]]),
    ...some(mayMake && focus, (at) => [['', words.actions.make, () => pointer.makeAt(at)]]),
    ...some(picked.meant().length > 0, () => [
      ['m', words.actions.lift, hand.lift],
      ['>', words.actions.longer, () => stretch(15)],
      ['<', words.actions.shorter, () => stretch(-15)],
      ['c', words.actions.copy, clipboard.copy],
    ]),
    ...some(clipboard.count > 0, () => [['v', words.actions.paste, clipboard.paste]]),
    ...some(piece, (one) => [
      ['x', words.actions.choose, () => choose(one)],
      ['o', words.actions.confirm, () => marks({ state: 'CONFIRMED' }, 'confirmed')],
      ['s', words.actions.start, () => marks({ started: true }, 'started')],
      ['f', words.actions.finish, () => marks({ state: 'DONE' }, 'finished')],
    ]),
    ...some(lane, (here) => [
      ['a', words.actions.all, () => setChosen(new Set(here.pieces.map((p) => p.key)))],
    ]),
    ...some(mayMake && lane?.person, (person) => [
      ['', words.actions.sick, () => page.reportSick(person)],
    ]),
    ['A', words.actions.everything, () => setChosen(picked.everything())],
  ];
  useActionKeys(actions, rows, {
    escape,
    ask: () => setAsking(true),
    // The open record has its own keys for confirm, start and finish.
    marks: page.chosen === null && !page.making,
    focusOn: (key) => setFocus({ lane: key, day: focus?.day ?? 0, piece: -1, top: true }),
  });

  return {
    ...pointer,
    focus,
    setFocus,
    chosen,
    choose,
    dropChosen: () => setChosen(new Set()),
    copyOn: () => moves.paste(all(), () => ({ days: page.zoom === 'weeks' ? 21 : 7, minutes: 0 })),
    hint: hintOf(hand.isLifted, chosen.size, clipboard.count),
    asking,
    stopAsking: () => setAsking(false),
    actions,
    hold: hand.hold,
    held: mayMake ? hand.held : null,
    enter,
  };
}

/** Actions that there are only where something is so. */
function some<T>(is: T | null | undefined | false, actions: (is: T) => Action[]): Action[] {
  return is ? actions(is) : [];
}

function hintOf(isLifted: boolean, chosen: number, copied: number) {
  if (isLifted) {
    return words.lifted;
  }
  return chosen > 0 ? words.chosen(chosen) : copied > 0 ? words.copied(copied) : null;
}

const stretched = (moves: Moves, pieces: Piece[], minutes: number) =>
  moves.move(pieces, (p) => ({
    days: p.allDay ? Math.sign(minutes) : 0,
    minutes: p.allDay ? 0 : minutes,
    stretch: true,
  }));

/** What is done where the pointer lets go or draws. */
function pointerDeeds(
  page: Page,
  days: Days,
  moves: Moves,
  { laneOf, all }: Picked,
  chosen: ReadonlySet<string>,
) {
  const go: Go = (pieces, fromLane, toLane, dayStep, minutes) => {
    const onLane = new Set(fromLane.pieces.map((p) => p.key));
    moves.move(pieces, (p) => ({
      days: dayStep,
      minutes,
      ...(onLane.has(p.key) ? across(fromLane, toLane) : {}),
    }));
  };
  const draftAt = (to: Lane, start: string, end: string | null) =>
    page.make(
      JSON.stringify({
        ...(to.person !== null && { lead: to.person }),
        ...(to.place !== null && { place: to.place }),
        ...(end ? { span: [start, end] } : { day: start }),
      }),
    );
  return {
    go,
    drop: (held: Piece, from: Spot, to: Spot, edge: boolean) => {
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
      const minutes = minutesBetween(days, from.moment, to.moment);
      go(pieces, from.lane, to.lane, to.day - from.day, minutes);
    },
    draw: (from: Spot, to: Spot) => {
      const [a, b] = [Math.min(from.moment, to.moment), Math.max(from.moment, to.moment)];
      if (b > a) {
        draftAt(from.lane, localAt(a, days.zone), localAt(b, days.zone));
      }
    },
    makeAt: ({ lane: key, day }: { lane: string; day: number }) => {
      const at = laneOf(key);
      if (at) {
        draftAt(at, days.dates[day]!, null);
      }
    },
    tell: (held: Piece | null, from: Spot, to: Spot, edge: boolean) =>
      toldDrop(days, held, from, to, edge),
  };
}
