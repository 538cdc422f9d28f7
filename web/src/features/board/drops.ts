import { addDays, clockOf, localAt, shortDayText } from '../../shared/time';
import type { Days } from './days';
import type { Lane, Piece } from './lanes';
import type { Move } from './moves';
import { words } from './words';

interface Spot {
  lane: Lane;
  day: number;
  moment: number;
}

/** A lane of somebody, or of nobody yet: from and to these, work is handed over. */
const hands = (lane: Lane) => lane.person !== null || lane.key === 'nobody';

/** From one lane to another: to another person, to nobody, or to another place. */
export function across(from: Lane, to: Lane): Partial<Move> {
  if (from.key === to.key) {
    return {};
  }
  if (to.place !== null) {
    return { place: to.place };
  }
  // From a place's or a calendar's lane nobody in particular would hand it over.
  return hands(from) && hands(to) ? { from: from.person, to: to.person } : {};
}

/** By how much the clock moves: only where one day fills the board; else whole days go. */
export function minutesBetween(days: Days, from: number, to: number): number {
  return days.zoom === 'day' ? Math.round((to - from) / 60_000) : 0;
}

/** The date of the piece that stands on this day of the board it was copied from. */
export function dateOf(days: Days, pieces: Piece[], day: number): string {
  const p = pieces.find((one) => one.day === day)!;
  // A due date ends with its day: the moment after it is the next one.
  const at = p.shape === 'ticket' ? p.end - (p.allDay ? 1 : 0) : p.start;
  return localAt(at, days.zone).slice(0, 10);
}

/** What letting go here would do, in words. */
export function toldDrop(
  days: Days,
  held: Piece | null,
  from: Spot,
  to: Spot,
  edge: boolean,
): string {
  const clock = (moment: number) => clockOf(localAt(moment, days.zone));
  const at = days.dates[to.day]!;
  if (!held) {
    const [a, b] = [Math.min(from.moment, to.moment), Math.max(from.moment, to.moment)];
    return `${from.lane.name} · ${clock(a)} – ${clock(b)}`;
  }
  if (edge) {
    return `${words.until} ${shortDayText(at)}${held.allDay ? '' : ' ' + clock(to.moment)}`;
  }
  const moved = minutesBetween(days, from.moment, to.moment) * 60_000;
  const stands = held.shape === 'ticket' ? held.end : held.start;
  const day = held.day >= 0 ? addDays(days.dates[0]!, held.day + to.day - from.day) : at;
  return [
    held.item.title ?? words.work,
    shortDayText(day) + (held.allDay ? '' : ' ' + clock(stands + moved)),
    to.lane.key === from.lane.key ? '' : to.lane.name,
  ]
    .filter(Boolean)
    .join(' · ');
}
