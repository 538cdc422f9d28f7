import type { Schemas } from '../../shared/api/client';
import { addDays, laterOnClock } from '../../shared/time';

type Visit = Schemas['VisitView'];

/** How far something goes on the clock. */
export interface Shift {
  days: number;
  minutes: number;
  /** Only the end goes: longer or shorter. */
  stretch?: boolean;
}

/** A visit so much later; one without a span stays. A stretch never turns a span over. */
export function visitLater(visit: Visit, shift: Shift): Visit {
  if (visit.start && visit.end) {
    const end = laterOnClock(visit.end, shift.days, shift.minutes);
    const start = shift.stretch
      ? visit.start
      : laterOnClock(visit.start, shift.days, shift.minutes);
    return end < start ? visit : { ...visit, start, end };
  }
  if (visit.first && visit.last) {
    const last = addDays(visit.last, shift.days);
    const first = shift.stretch ? visit.first : addDays(visit.first, shift.days);
    return last < first ? visit : { ...visit, first, last };
  }
  return visit;
}

export function dueLater(due: Schemas['DueChange'], shift: Shift): Schemas['DueChange'] {
  return due.date
    ? { date: addDays(due.date, shift.days) }
    : { at: laterOnClock(due.at ?? '', shift.days, shift.minutes), zone: due.zone };
}

/** Visits as a change of them is sent. */
export function sentVisits(visits: Visit[]): Schemas['VisitChange'][] {
  return visits.map(({ no, start, end, zone, first, last }) => ({
    no,
    ...(start && { start, end, zone }),
    ...(first && { first, last }),
  }));
}
