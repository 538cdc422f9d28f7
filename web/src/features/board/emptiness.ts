import { nowMoment } from '../../shared/time';
import type { Days } from './days';
import type { Board, Empty, Lane } from './lanes';

export function busyOf(board: Board, person: number): Lane['busy'] {
  // Leave of some hours takes these like anything else that somebody has.
  const hours = board.away.flatMap(({ starts, ends, ...one }) =>
    starts && ends ? [{ ...one, starts, ends, tentative: false }] : [],
  );
  return [...board.busy, ...hours]
    .filter((b) => b.person === person)
    .map((b) => ({
      start: Date.parse(b.starts),
      end: Date.parse(b.ends),
      tentative: b.tentative,
    }));
}

export type HoursOf = Map<number, { week: Board['hours']; days: Map<string, boolean> }>;

export function hoursOf(board: Board): HoursOf {
  const found: HoursOf = new Map();
  const of = (person: number) => {
    const known = found.get(person) ?? { week: [], days: new Map<string, boolean>() };
    found.set(person, known);
    return known;
  };
  board.hours.forEach((one) => of(one.person).week.push(one));
  board.days.forEach((one) => of(one.person).days.set(one.day, one.works));
  return found;
}

/** Whether somebody has hours on a day. */
function works({ week, days }: { week: Board['hours']; days: Map<string, boolean> }, date: string) {
  return (
    days.get(date) ??
    week.some(
      (h) => h.weekday === weekday(date) && (h.first ?? date) <= date && date <= (h.last ?? date),
    )
  );
}

/** What the cells of a person are where nothing stands in them. */
export function emptiness(board: Board, person: number, days: Days, hours: HoursOf) {
  const week = hours.get(person);
  const away = board.away.filter((a) => a.person === person && !a.starts);
  const busy = busyOf(board, person);
  const unread = board.busyKnown.some((k) => k.person === person && k.trust === 'UNKNOWN');
  const now = nowMoment();
  return days.dates.map((date): Empty => {
    const gone = away.find((a) => a.first <= date && date <= a.last);
    if (gone) {
      return gone.what ? 'leave' : 'away';
    }
    if (!week) {
      return 'unknown';
    }
    if (!works(week, date)) {
      return 'off';
    }
    const edges = [
      days.edges[days.dates.indexOf(date)]!,
      days.edges[days.dates.indexOf(date) + 1]!,
    ];
    if (busy.some((b) => b.start < edges[1]! && b.end > edges[0]!)) {
      return 'busy';
    }
    // What was read too long ago says nothing of days to come.
    return unread && edges[1]! > now ? 'unread' : 'free';
  });
}

function weekday(date: string): number {
  return ((new Date(date + 'T00:00:00Z').getUTCDay() + 6) % 7) + 1;
}
