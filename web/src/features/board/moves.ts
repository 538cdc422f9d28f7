import type { Schemas } from '../../shared/api/client';
import { dueText, spanText } from '../../shared/time';
import { dueLater, INFORMED, LEAD, sentVisits, visitLater, type Shift } from '../records';
import type { Item } from './lanes';
import { words } from './words';

type RecordView = Schemas['RecordView'];
type Change = Schemas['RecordChange'];
type Visit = Schemas['VisitView'];
type PersonChange = Schemas['PersonChange'];

/** How far something goes on the clock, and from whom to whom. */
export interface Move extends Shift {
  /** Leaves out hand-over where both are undefined; null is nobody. */
  from?: number | null;
  to?: number | null;
  place?: number;
}

/** A record while it is moved: what will be sent as its change. */
interface Draft {
  visits: Visit[];
  due?: Schemas['DueChange'];
  people: (PersonChange & { visit?: number })[];
  place?: number;
}

function draftOf(record: RecordView): Draft {
  return {
    visits: record.visits ?? [],
    due: record.due,
    people: (record.people ?? []).map((p) => ({
      role: p.role,
      ...(p.person != null ? { person: p.person } : { team: p.team }),
      ...(p.visit != null && { visit: p.visit }),
    })),
  };
}

function handed(draft: Draft, no: number, move: Move): Draft['people'] {
  const { from, to } = move;
  const several = draft.visits.length > 1;
  const mine = draft.people.filter((p) => !several || p.visit === no);
  const others = draft.people.filter((p) => several && p.visit !== no);
  const kept: Draft['people'] = [];
  for (const p of mine) {
    const moves = from !== null && p.person === from && p.role !== INFORMED;
    const one = moves ? { ...p, person: to ?? undefined } : p;
    const gone = moves && to === null;
    const twice = kept.some(
      (k) => k.role === one.role && k.person === one.person && k.team === one.team,
    );
    if (!gone && !twice) {
      kept.push(one);
    }
  }
  if (from === null && to != null) {
    kept.push({ role: LEAD, person: to, ...(several && { visit: no }) });
  }
  return [...others, ...kept];
}

/** What to send so that these visits of a record move; what they do not touch is not named. */
export function changeFor(record: RecordView, visits: number[], move: Move): Change {
  let draft = draftOf(record);
  for (const no of visits) {
    const bare = !draft.visits.find((v) => v.no === no && (v.start ?? v.first));
    draft = {
      ...draft,
      visits: draft.visits.map((v) => (v.no === no ? visitLater(v, move) : v)),
      due: bare && draft.due ? dueLater(draft.due, move) : draft.due,
    };
    if (move.to !== undefined && move.from !== move.to) {
      draft = { ...draft, people: handed(draft, no, move) };
    }
  }
  const before = draftOf(record);
  return {
    ...(JSON.stringify(draft.visits) !== JSON.stringify(before.visits) && {
      visits: sentVisits(draft.visits),
    }),
    ...(JSON.stringify(draft.due) !== JSON.stringify(before.due) && { due: draft.due }),
    ...(JSON.stringify(draft.people) !== JSON.stringify(before.people) && { people: draft.people }),
    ...(move.place !== undefined && move.place !== record.place?.id && { place: move.place }),
  } as Change;
}

/** What to make like a record so that one visit of it stands elsewhere too. */
export function copyOf(record: RecordView, no: number, move: Move): Change {
  const change = changeFor(record, [no], move);
  const visits = change.visits ?? sentVisits(record.visits ?? []);
  const people = change.people as (PersonChange & { visit?: number })[] | undefined;
  return {
    ...change,
    visits: visits.filter((v) => v.no === no),
    ...(people && { people: people.filter((p) => p.visit === undefined || p.visit === no) }),
  } as Change;
}

/** Whether a record is no longer as the board showed it when somebody took hold of it. */
export function changedSince(item: Item, record: RecordView): boolean {
  const visit = record.visits?.find((v) => v.no === item.visit);
  const times = (v: Visit | undefined) => [v?.start, v?.end, v?.zone, v?.first, v?.last].join('|');
  const due = (d: Schemas['DueChange'] | undefined) => [d?.at, d?.zone, d?.date].join('|');
  const people = (record.people ?? [])
    .filter((p) => p.visit == null || p.visit === item.visit)
    .map((p) => `${p.role}:${p.person ?? ''}:${p.team ?? ''}`)
    .sort();
  const shown = (item.people ?? [])
    .map((p) => `${p.role}:${p.person ?? ''}:${p.team ?? ''}`)
    .sort();
  return (
    !visit ||
    times(visit) !== times(item.when) ||
    due(record.due) !== due(item.due) ||
    people.join() !== shown.join()
  );
}

/** What a move makes of an item, in words: when it would be, and who would have it. */
export function movedText(item: Item, move: Move, nameOf: (person: number) => string): string {
  const { when, due } = item;
  const visit = when?.start || when?.first ? visitLater(when, move) : undefined;
  const moved = !visit && due ? dueLater(due, move) : undefined;
  const span = visit ? spanText(visit) : moved ? dueText(moved) : '';
  const to = move.to === undefined || move.to === move.from ? '' : move.to;
  const hands = to === '' ? '' : words.to(to === null ? words.nobody : nameOf(to));
  return [span, hands].filter(Boolean).join(' · ');
}
