import { daysBetween } from '../../shared/time';
import { draftOf, exceptionsOf, seatOf, type Change, type RecordView } from './model';
import { dueLater, sentVisits, visitLater } from './times';

type Person = NonNullable<RecordView['people']>[number];

/** The record with all its times so many days later on the clock. */
export function later(record: RecordView, days: number): Change {
  const visits = record.visits ?? [];
  const shift = { days, minutes: 0 };
  return {
    ...(visits.some((v) => v.start ?? v.first) && {
      visits: sentVisits(visits.map((v) => visitLater(v, shift))),
    }),
    ...(record.due && { due: dueLater(record.due, shift) }),
  };
}

/** The day on which a record begins or is due. */
export function dayOf(record: RecordView): string | undefined {
  const days = (record.visits ?? []).flatMap((visit) => visit.start ?? visit.first ?? []);
  return (days.sort()[0] ?? record.due?.at ?? record.due?.date)?.slice(0, 10);
}

/** What a record that begins on another day is made of, like this one. */
export function onDay(record: RecordView, day: string): Change {
  return later(record, daysBetween(dayOf(record) ?? day, day));
}

/** Its last visit once more on another day, with those who are on all of it. */
export function againOn(record: RecordView, day: string): Change {
  const visits = (record.visits ?? []).filter((visit) => visit.start ?? visit.first);
  const last = visits.at(-1)!;
  const days = daysBetween((last.start ?? last.first)!.slice(0, 10), day);
  const again = visitLater(last, { days, minutes: 0 });
  return {
    visits: [
      ...sentVisits(visits),
      // Without a number it is a new one.
      {
        ...sentVisits([again])[0],
        no: undefined,
        ...(again.before !== undefined && { before: again.before }),
        ...(again.after !== undefined && { after: again.after }),
      },
    ],
  };
}

/** Everything that one person has on it, in another's hands. */
export function handedOver(record: RecordView, from: number, to: number): Change {
  const seats = (record.people ?? []).map((p: Person) =>
    seatOf(p.person === from ? { ...p, person: to } : p),
  );
  const kept = new Map(seats.map((seat) => [JSON.stringify(seat), seat]));
  return { people: [...kept.values()] };
}

/** With one more exception. */
export function withException(
  record: RecordView,
  one: { sort: 'ALSO_HERE' | 'NEVER_HERE'; calendar: number; reason: string },
): Change {
  const draft = draftOf(record);
  return {
    exceptions: exceptionsOf({
      ...draft,
      exceptions: [...draft.exceptions, { ...one, visit: null }],
    }),
  };
}

/** With a tag more. */
export function tagged(record: RecordView, tag: string): Change {
  return { tags: [...new Set([...(record.tags ?? []), tag.trim()])] };
}
