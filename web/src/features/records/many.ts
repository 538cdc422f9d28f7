import { dueText, spanText } from '../../shared/time';
import { dayOf, handedOver, later, tagged } from './later';
import { givenTo, type Change, type RecordView } from './model';
import { words } from './words';

/** What is done to many records at once. */
export type Deed =
  | { do: 'assign'; person: number }
  | { do: 'handOver'; from: number; person: number }
  | { do: 'move'; days: number }
  | { do: 'state'; state: 'CONFIRMED' | 'DONE' | 'CANCELLED' }
  | { do: 'tag'; tag: string };

/** What it is for one of them: what it says now and then would. */
export interface Planned {
  record: RecordView;
  tag: string;
  change: Change;
  before: string;
  after: string;
}

/** Why it is not for one of them. */
export interface Left {
  record: RecordView;
  why: string;
}

const names = (record: RecordView) =>
  [...new Set((record.people ?? []).map((p) => p.name))].join(', ') || words.nobody;

function whenText(record: RecordView): string {
  const span = (record.visits ?? []).find((visit) => visit.start ?? visit.first);
  return span ? spanText(span) : dueText(record.due);
}

const FIELDS: Record<Deed['do'], string> = {
  assign: 'people',
  handOver: 'people',
  move: 'visits',
  state: 'state',
  tag: 'tags',
};

/** What a deed makes of a record, old and new in words. */
export function planned(
  deed: Deed,
  record: RecordView,
  tag: string,
  nameOf: (person: number) => string,
): Planned | Left {
  const may = (field: string) => record.mayChange.includes(field);
  if (!may(FIELDS[deed.do]) && !(deed.do === 'move' && may('due'))) {
    return { record, why: words.mayNot };
  }
  const of = (change: Change, before: string, after: string): Planned | Left =>
    before === after ? { record, why: words.alreadySo } : { record, tag, change, before, after };
  switch (deed.do) {
    case 'assign': {
      const others = (record.people ?? []).filter((p) => p.role !== 0).map((p) => p.name);
      const after = [...new Set([nameOf(deed.person), ...others])].join(', ');
      return of(givenTo(record, deed.person), names(record), after);
    }
    case 'handOver': {
      const after = (record.people ?? []).map((p) =>
        p.person === deed.from ? nameOf(deed.person) : p.name,
      );
      return of(
        handedOver(record, deed.from, deed.person),
        names(record),
        [...new Set(after)].join(', ') || words.nobody,
      );
    }
    case 'move': {
      const change = later(record, deed.days);
      if (dayOf(record) === undefined) {
        return { record, why: words.noDay };
      }
      const moved = { ...record, ...change } as RecordView;
      return of(change, whenText(record), whenText(moved));
    }
    case 'state': {
      const over = record.state === 'DONE' || record.state === 'CANCELLED';
      return over && deed.state !== 'CONFIRMED'
        ? { record, why: words.isOver }
        : of(
            { state: deed.state },
            record.state ? words.states[record.state] : '',
            words.states[deed.state],
          );
    }
    case 'tag': {
      const change = tagged(record, deed.tag);
      return of(
        change,
        (record.tags ?? []).join(', ') || words.noTags,
        (change.tags as string[]).join(', '),
      );
    }
  }
}
