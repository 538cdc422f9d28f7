import { holderOf, isTeam, named, type Holder } from './holders';
import { NUMBERS, numbersOf, numbersTyped, sent, type NumberField } from './numbers';
import type { Schemas } from '../../shared/api/client';
import {
  dueInput,
  readDue,
  readSpan,
  spanInput,
  type Due,
  type TypedSpan,
} from '../../shared/time';

export type RecordView = Schemas['RecordView'];
export type Change = Schemas['RecordChange'];
export type Kind = 'TICKET' | 'JOB' | 'SHIFT' | 'DEADLINE';
type PersonChange = Schemas['PersonChange'];
type VisitChange = Schemas['VisitChange'];

export const LEAD = 0;
export const SUPPORT = 1;
export const SUPERVISOR = 2;
export const INFORMED = 3;

/** How long work of a kind lasts where only its start is said, in minutes. */
const USUAL_MINUTES: Record<Kind, number> = { TICKET: 60, JOB: 240, SHIFT: 480, DEADLINE: 0 };

/** One visit while somebody types: its number, if it has one yet, its span and margins as text. */
export interface VisitDraft {
  no: number | null;
  span: string;
  before: string;
  after: string;
  /** Of this visit alone, where each has its own people. */
  lead: Holder | null;
  support: Holder[];
}

export interface DateDraft {
  name: string;
  when: string;
}

export interface ExceptionDraft {
  sort: 'NOT_SENT' | 'NEVER_HERE' | 'ALSO_HERE';
  calendar: number | null;
  visit: number | null;
  reason: string;
}

/** What the form holds while somebody types. */
export interface Draft {
  kind: Kind;
  state: string;
  title: string;
  place: number | null;
  /** Further places or things, by number. */
  uses: number[];
  team: number | null;
  lead: Holder | null;
  support: Holder[];
  /** Of the other roles, by their numbers. */
  others: Record<number, Holder[]>;
  ownPeople: boolean;
  visits: VisitDraft[];
  due: string;
  /** Typed details by their keys, as far as they were filled. */
  details: Record<string, string>;
  tags: string;
  /** As they are typed. */
  numbers: Record<NumberField, string>;
  /** How many people each visit wants. */
  wants: string;
  /** With commas between, named once for each who has to have it. */
  wantSkills: string;
  dates: DateDraft[];
  exceptions: ExceptionDraft[];
  repeatUnit: string;
  repeatTimes: string;
  isPrivate: boolean;
  /** It takes nobody's time. */
  free: boolean;
  reason: string;
}

export const emptyVisit: VisitDraft = {
  no: null,
  span: '',
  before: '',
  after: '',
  lead: null,
  support: [],
};

export const emptyDraft: Draft = {
  kind: 'TICKET',
  state: '',
  title: '',
  place: null,
  uses: [],
  team: null,
  lead: null,
  support: [],
  others: {},
  ownPeople: false,
  visits: [emptyVisit],
  due: '',
  details: {},
  tags: '',
  numbers: numbersTyped(),
  wants: '',
  wantSkills: '',
  dates: [],
  exceptions: [],
  repeatUnit: '',
  repeatTimes: '',
  isPrivate: false,
  free: false,
  reason: '',
};

export const usualMinutes = (kind: Kind) => USUAL_MINUTES[kind];

/** A draft that begins where somebody pointed on the board, or as a list is narrowed. */
export function draftFrom(pointed: string | null): Draft {
  if (!pointed) {
    return emptyDraft;
  }
  let spot: {
    kind?: Kind;
    lead?: number;
    place?: number;
    span?: [string, string];
    day?: string;
  };
  try {
    spot = JSON.parse(pointed) as typeof spot;
  } catch {
    return emptyDraft;
  }
  const span = spot.span && spanInput({ start: spot.span[0], end: spot.span[1] });
  return {
    ...emptyDraft,
    kind: spot.kind ?? (span ? 'JOB' : 'TICKET'),
    lead: spot.lead ?? null,
    place: spot.place ?? null,
    visits: [{ ...emptyVisit, span: span ?? '' }],
    due: !span && spot.day ? dueInput({ date: spot.day }) : '',
  };
}

export function draftOf(record: RecordView): Draft {
  const visits = record.visits ?? [];
  const people = record.people ?? [];
  const inRole = (role: number, visit?: number) => [
    ...new Set(
      people
        .filter((p) => p.role === role)
        .filter((p) => visit === undefined || p.visit == null || p.visit === visit)
        .flatMap((p) => holderOf(p) ?? []),
    ),
  ];
  const minutes = (n: number | undefined) => (n === undefined ? '' : String(n));
  return {
    kind: record.kind as Kind,
    state: record.state ?? '',
    title: record.title ?? '',
    place: record.place?.id ?? null,
    uses: (record.uses ?? []).map((one) => one.id),
    team: record.team?.id ?? null,
    lead: inRole(LEAD)[0] ?? null,
    support: inRole(SUPPORT),
    others: Object.fromEntries(
      people
        .filter((p) => p.role !== LEAD && p.role !== SUPPORT)
        .map((p) => [p.role, inRole(p.role)]),
    ),
    ownPeople: differs(record),
    visits:
      visits.length === 0
        ? [emptyVisit]
        : visits.map((v) => ({
            no: v.no,
            span: spanInput(v),
            before: minutes(v.before),
            after: minutes(v.after),
            lead: inRole(LEAD, v.no)[0] ?? null,
            support: inRole(SUPPORT, v.no),
          })),
    due: dueInput(record.due),
    details: Object.fromEntries(record.details.map((d) => [d.key, d.value ?? ''])),
    tags: (record.tags ?? []).join(', '),
    numbers: numbersTyped(record),
    wants: record.wants ? String(record.wants.people) : '',
    wantSkills: (record.wants?.skills ?? []).join(', '),
    dates: (record.dates ?? []).map((d) => ({ name: d.name, when: dueInput(d.when as Due) })),
    exceptions: (record.exceptions ?? []).map((e) => ({
      sort: e.sort as ExceptionDraft['sort'],
      calendar: e.calendar ?? null,
      visit: e.visit ?? null,
      reason: e.reason,
    })),
    repeatUnit: '',
    repeatTimes: '',
    isPrivate: record.isPrivate,
    free: record.free ?? false,
    reason: '',
  };
}

/** Whether the visits of a record have different people on them. */
function differs(record: RecordView): boolean {
  const on = (no: number) =>
    (record.people ?? [])
      .filter((p) => p.visit === no)
      .map((p) => `${p.role}:${p.person ?? 't'}${p.team ?? ''}`)
      .sort()
      .join();
  const visits = record.visits ?? [];
  return visits.length > 1 && visits.some((v) => on(v.no) !== on(visits[0]!.no));
}

/** The number each visit has or will get. */
function numbers(draft: Draft): number[] {
  let next = 1 + Math.max(0, ...draft.visits.map((v) => v.no ?? 0));
  return draft.visits.map((v) => v.no ?? next++);
}

/** Of the visit at a place in the form, from 0. */
export const visitNo = (draft: Draft, at: number) => numbers(draft)[at];

function people(draft: Draft, kept: PersonChange[]): PersonChange[] {
  const list: PersonChange[] = [];
  const add = (role: number, holder: Holder | null, visit?: number) =>
    holder !== null && list.push({ role, ...named(holder), ...(visit !== undefined && { visit }) });
  if (draft.ownPeople && draft.visits.length > 1) {
    const no = numbers(draft);
    draft.visits.forEach((v, i) => {
      add(LEAD, v.lead, no[i]);
      v.support.forEach((holder) => add(SUPPORT, holder, no[i]));
    });
  } else {
    add(LEAD, draft.lead);
    draft.support.forEach((holder) => add(SUPPORT, holder));
  }
  Object.entries(draft.others).forEach(([role, holders]) =>
    holders.forEach((holder) => add(Number(role), holder)),
  );
  return [...list, ...kept];
}

/** Whose time a visit takes; a team's is taken once somebody is named. */
export function peopleOf(draft: Draft, visit: VisitDraft): number[] {
  const own = draft.ownPeople && draft.visits.length > 1;
  const { lead, support } = own ? visit : draft;
  return [...new Set([...(lead === null ? [] : [lead]), ...support])].filter(
    (holder) => !isTeam(holder),
  );
}

export function typedSpan(draft: Draft, visit: VisitDraft): TypedSpan | null {
  return readSpan(visit.span, USUAL_MINUTES[draft.kind]);
}

function visits(draft: Draft): VisitChange[] {
  return draft.visits.map((v) => ({
    ...(v.no !== null && { no: v.no }),
    ...(typedSpan(draft, v) ?? {}),
    ...(v.before !== '' && { before: Number(v.before) }),
    ...(v.after !== '' && { after: Number(v.after) }),
  }));
}

/** Whoever has to have a skill is one of those wanted. */
const wants = (draft: Draft) => {
  const skills = draft.wantSkills
    .split(',')
    .map((one) => one.trim())
    .filter(Boolean)
    .sort();
  const people = Math.max(Number(draft.wants), skills.length);
  return people > 0 ? { people, skills } : null;
};

const tags = (draft: Draft) =>
  [...new Set(draft.tags.split(',').map((t) => t.trim()))].filter(Boolean);

const dates = (draft: Draft) =>
  draft.dates
    .filter((d) => d.name.trim() || d.when.trim())
    .map((d) => ({ name: d.name, ...readDue(d.when) }));

export const exceptionsOf = (draft: Pick<Draft, 'exceptions'>) =>
  draft.exceptions.map((e) => ({
    sort: e.sort,
    ...(e.sort !== 'NOT_SENT' && e.calendar !== null && { calendar: e.calendar }),
    ...(e.visit !== null && { visit: e.visit }),
    reason: e.reason,
  }));

/** Everything in the form, as a new record. */
export function newRecord(draft: Draft): Change {
  const due = readDue(draft.due);
  const spans = draft.kind !== 'DEADLINE' && draft.visits.some((v) => v.span.trim());
  return {
    kind: draft.kind,
    title: draft.title,
    ...(draft.state && { state: draft.state }),
    ...(draft.place !== null && { place: draft.place }),
    ...(draft.uses.length > 0 && { uses: draft.uses }),
    ...(draft.team !== null && { team: draft.team }),
    ...(due && draft.kind !== 'SHIFT' && { due }),
    ...(spans && { visits: visits(draft) }),
    people: people(draft, []),
    details: Object.fromEntries(Object.entries(draft.details).filter(([, value]) => value)),
    ...(draft.isPrivate && { private: true }),
    ...(draft.free && { free: true }),
    ...(tags(draft).length > 0 && { tags: tags(draft) }),
    ...Object.fromEntries(
      numbersOf(draft.kind)
        .filter((field) => draft.numbers[field])
        .map((field) => [field, sent(field, draft.numbers[field])]),
    ),
    ...(wants(draft) && { wants: wants(draft) }),
    ...(dates(draft).length > 0 && { dates: dates(draft) }),
    ...(draft.exceptions.length > 0 && { exceptions: exceptionsOf(draft) }),
    ...(draft.repeatUnit && {
      repeat: { every: 1, unit: draft.repeatUnit, times: Number(draft.repeatTimes || 2) },
    }),
  } as Change;
}

/**
 * Only what differs from what was there, so that a detail somebody else changed meanwhile, or that
 * one may not see, stays as it is.
 */
export function changesOf(record: RecordView, draft: Draft): Record<string, unknown> {
  const before = draftOf(record);
  const change: Record<string, unknown> = {};
  const differ = (one: unknown, other: unknown) => JSON.stringify(one) !== JSON.stringify(other);
  for (const field of ['title', 'place', 'team', 'state'] as const) {
    if (draft[field] !== before[field]) {
      change[field] = draft[field];
    }
  }
  if (differ(draft.uses, before.uses)) {
    change.uses = draft.uses;
  }
  if (draft.due !== before.due) {
    change.due = readDue(draft.due);
  }
  if (draft.isPrivate !== before.isPrivate) {
    change.private = draft.isPrivate;
  }
  if (draft.free !== before.free) {
    change.free = draft.free;
  }
  const spans = (d: Draft) => d.visits.map((v) => [v.no, v.span, v.before, v.after]);
  if (differ(spans(draft), spans(before))) {
    change.visits = keptZones(record, draft, before);
  }
  const seats = (d: Draft) => [
    d.lead,
    d.support,
    d.others,
    d.ownPeople,
    ...(d.ownPeople ? d.visits.map((v) => [v.lead, v.support]) : []),
  ];
  if (differ(seats(draft), seats(before))) {
    change.people = people(draft, untouched(record));
  }
  if (draft.tags !== before.tags) {
    change.tags = tags(draft);
  }
  for (const field of NUMBERS) {
    if (draft.numbers[field] !== before.numbers[field]) {
      change[field] = sent(field, draft.numbers[field]);
    }
  }
  if (JSON.stringify(wants(draft)) !== JSON.stringify(wants(before))) {
    change.wants = wants(draft);
  }
  if (differ(draft.dates, before.dates)) {
    change.dates = dates(draft);
  }
  if (differ(draft.exceptions, before.exceptions)) {
    change.exceptions = exceptionsOf(draft);
  }
  const details = Object.entries(draft.details).filter(
    ([key, value]) => value !== (before.details[key] ?? ''),
  );
  if (details.length > 0) {
    change.details = Object.fromEntries(details);
  }
  if (draft.reason && Object.keys(change).length > 0) {
    change.reason = draft.reason;
  }
  return change;
}

/** Visits keep the zone they are in, and margins that were not touched are not named. */
function keptZones(record: RecordView, draft: Draft, before: Draft): VisitChange[] {
  return visits(draft).map((v) => {
    const known = record.visits?.find((one) => one.no === v.no);
    const was = before.visits.find((one) => one.no === v.no);
    const now = draft.visits.find((one) => one.no === v.no && v.no !== undefined);
    const margins = !was || was.before !== now?.before || was.after !== now?.after;
    const { before: b, after: a, ...rest } = v;
    return {
      ...rest,
      ...(v.start && known?.zone && { zone: known.zone }),
      ...(margins && { before: b ?? null, after: a ?? null }),
    };
  });
}

/** Further Leads, for whom the form has no field, stay as they are. */
function untouched(record: RecordView): PersonChange[] {
  const seen = new Set<string>();
  return (record.people ?? [])
    .filter((p) => {
      const seat = String(p.visit ?? 0);
      const shown = p.role !== LEAD || !seen.has(seat);
      seen.add(p.role === LEAD ? seat : '');
      return !shown;
    })
    .map(seatOf);
}

export const seatOf = (p: NonNullable<RecordView['people']>[number]): PersonChange => ({
  role: p.role,
  ...named(holderOf(p)!),
  ...(p.visit != null && { visit: p.visit }),
});

export function dueFault(draft: Draft): boolean {
  return draft.kind !== 'SHIFT' && draft.due.trim() !== '' && readDue(draft.due) === null;
}

export function spanFault(draft: Draft, visit: VisitDraft): boolean {
  return visit.span.trim() !== '' && typedSpan(draft, visit) === null;
}

/** Whether anything typed could not be read. */
export function faulty(draft: Draft): boolean {
  return (
    dueFault(draft) ||
    (draft.kind !== 'DEADLINE' && draft.visits.some((v) => spanFault(draft, v))) ||
    draft.dates.some((d) => d.when.trim() !== '' && readDue(d.when) === null)
  );
}

/** What to send so that somebody leads a record, all others on it staying as they are. */
export function givenTo(record: RecordView, person: number): Change {
  const kept = (record.people ?? [])
    .filter((p) => !(p.role === LEAD && p.person != null))
    .map(seatOf);
  return { people: [{ role: LEAD, person }, ...kept] };
}
