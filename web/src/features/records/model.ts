import type { Schemas } from '../../shared/api/client';
import { dueInput, readDue, type Due } from '../../shared/time';

export type RecordView = Schemas['RecordView'];
export type Change = Schemas['RecordChange'];

export const LEAD = 0;
export const SUPPORT = 1;
export const SUPERVISOR = 2;

/** What the form holds while somebody types. */
export interface Draft {
  title: string;
  place: number | null;
  lead: number | null;
  support: number[];
  supervisor: number | null;
  due: string;
  contact: string;
  phone: string;
  gateCode: string;
  notes: string;
  quote: string;
  isPrivate: boolean;
  reason: string;
}

export const emptyDraft: Draft = {
  title: '',
  place: null,
  lead: null,
  support: [],
  supervisor: null,
  due: '',
  contact: '',
  phone: '',
  gateCode: '',
  notes: '',
  quote: '',
  isPrivate: false,
  reason: '',
};

const DETAILS = {
  contact: 'contact',
  phone: 'phone',
  gateCode: 'gate code',
  notes: 'notes',
  quote: 'quote',
} as const;

type DetailField = keyof typeof DETAILS;

export function draftOf(record: RecordView): Draft {
  const inRole = (role: number) =>
    (record.people ?? []).filter((p) => p.role === role && p.person != null).map((p) => p.person!);
  const detail = (key: string) => record.details.find((d) => d.key === key)?.value ?? '';
  return {
    title: record.title ?? '',
    place: record.place?.id ?? null,
    lead: inRole(LEAD)[0] ?? null,
    support: inRole(SUPPORT),
    supervisor: inRole(SUPERVISOR)[0] ?? null,
    due: dueInput(record.due as Due | undefined),
    contact: detail('contact'),
    phone: detail('phone'),
    gateCode: detail('gate code'),
    notes: detail('notes'),
    quote: detail('quote'),
    isPrivate: record.isPrivate,
    reason: '',
  };
}

function people(draft: Draft, kept: Schemas['PersonChange'][]): Schemas['PersonChange'][] {
  const list: Schemas['PersonChange'][] = [];
  if (draft.lead !== null) {
    list.push({ role: LEAD, person: draft.lead });
  }
  draft.support.forEach((person) => list.push({ role: SUPPORT, person }));
  if (draft.supervisor !== null) {
    list.push({ role: SUPERVISOR, person: draft.supervisor });
  }
  return [...list, ...kept];
}

/** Everything in the form, as a new ticket. */
export function newTicket(draft: Draft): Change {
  const due = readDue(draft.due);
  const details: Record<string, string> = {};
  for (const [field, key] of Object.entries(DETAILS)) {
    const value = draft[field as DetailField];
    if (value) {
      details[key] = value;
    }
  }
  return {
    kind: 'TICKET',
    title: draft.title,
    ...(draft.place !== null && { place: draft.place }),
    ...(due && { due }),
    people: people(draft, []),
    details,
    ...(draft.isPrivate && { private: true }),
  } as Change;
}

/**
 * Only what differs from what was there, so that a detail somebody else changed meanwhile, or that
 * one may not see, stays as it is.
 */
export function changesOf(record: RecordView, draft: Draft): Record<string, unknown> {
  const before = draftOf(record);
  const change: Record<string, unknown> = {};
  if (draft.title !== before.title) {
    change.title = draft.title;
  }
  if (draft.place !== before.place) {
    change.place = draft.place;
  }
  if (draft.due !== before.due) {
    change.due = readDue(draft.due);
  }
  if (draft.isPrivate !== before.isPrivate) {
    change.private = draft.isPrivate;
  }
  const same =
    draft.lead === before.lead &&
    draft.supervisor === before.supervisor &&
    draft.support.join() === before.support.join();
  if (!same) {
    change.people = people(draft, untouched(record));
  }
  const details: Record<string, string> = {};
  for (const [field, key] of Object.entries(DETAILS)) {
    const name = field as DetailField;
    if (draft[name] !== before[name]) {
      details[key] = draft[name];
    }
  }
  if (Object.keys(details).length > 0) {
    change.details = details;
  }
  if (draft.reason && Object.keys(change).length > 0) {
    change.reason = draft.reason;
  }
  return change;
}

/** Teams, further Leads and roles the form has no field for stay as they are. */
function untouched(record: RecordView): Schemas['PersonChange'][] {
  const seen = new Set<number>();
  return (record.people ?? [])
    .filter((p) => {
      const single = p.role === LEAD || p.role === SUPERVISOR;
      const shown = p.person != null && (p.role === SUPPORT || (single && !seen.has(p.role)));
      seen.add(p.role);
      return !shown;
    })
    .map((p) => ({
      role: p.role,
      ...(p.person != null ? { person: p.person } : { team: p.team }),
    }));
}

export function dueFault(draft: Draft): boolean {
  return draft.due.trim() !== '' && readDue(draft.due) === null;
}
