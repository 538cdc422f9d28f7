import { useState } from 'react';
import { daysBetween } from '../../shared/time';
import type { HeldVisit } from '../cover';
import type { Days } from './days';
import { across, dateOf, minutesBetween } from './drops';
import type { Focus } from './Grid';
import type { Lane, Piece } from './lanes';
import type { Picked } from './picked';
import type { Spot } from './useDrag';
import type { useMoves } from './useMoves';

const quarter = (minutes: number) => 15 * Math.round(minutes / 15);

export type Go = (
  pieces: Piece[],
  fromLane: Lane,
  toLane: Lane,
  dayStep: number,
  minutes: number,
) => void;

/** What is lifted by the keyboard or dragged by the pointer, until it is put down. */
export function useInHand(
  days: Days,
  focus: Focus | null,
  setFocus: (focus: Focus) => void,
  { lane, meant }: Picked,
  go: Go,
) {
  const [lifted, setLifted] = useState<{ pieces: Piece[]; lane: Lane; from: Focus } | null>(null);
  const [dragged, setDragged] = useState<HeldVisit | null>(null);
  return {
    isLifted: lifted !== null,
    held:
      dragged ??
      (lifted && focus
        ? heldVisit(lifted.pieces[0], lifted.lane, focus.day - lifted.from.day, 0)
        : null),
    hold: (now: { piece: Piece; from: Spot; to: Spot } | null) => {
      const next =
        now &&
        heldVisit(
          now.piece,
          now.from.lane,
          now.to.day - now.from.day,
          quarter(minutesBetween(days, now.from.moment, now.to.moment)),
        );
      setDragged((before) => (JSON.stringify(before) === JSON.stringify(next) ? before : next));
    },
    lift: () => {
      const pieces = meant().filter((p) => p.item.moves ?? p.item.hands);
      if (pieces.length > 0 && lane && focus) {
        setLifted({ pieces, lane, from: focus });
      }
    },
    putDown: () => {
      if (lifted && focus && lane) {
        go(lifted.pieces, lifted.lane, lane, focus.day - lifted.from.day, 0);
        setLifted(null);
      }
    },
    putBack: () => {
      if (lifted) {
        setFocus(lifted.from);
        setLifted(null);
      }
    },
  };
}

/** What was copied, to be put down on another day or lane. */
export function useClipboard(
  days: Days,
  focus: Focus | null,
  { lane, meant }: Picked,
  moves: ReturnType<typeof useMoves>,
) {
  const [copied, setCopied] = useState<{ pieces: Piece[]; lane: Lane } | null>(null);
  return {
    count: copied?.pieces.length ?? 0,
    copy: () => {
      const pieces = meant();
      if (pieces.length > 0 && lane) {
        setCopied({ pieces, lane });
      }
    },
    paste: () => {
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
    },
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
