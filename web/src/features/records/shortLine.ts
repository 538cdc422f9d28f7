import { distance } from 'fastest-levenshtein';
import { dueInput, readDue, readSpan, spanInput } from '../../shared/time';
import type { Holder } from './holders';
import { usualMinutes, type Draft, type Kind } from './model';

/** People and places by name, as the line may name them. */
export interface Known {
  people: { value: number; label: string }[];
  places: { value: number; label: string; code: string }[];
  /** By their numbers as holders. */
  teams: { value: Holder; label: string }[];
  /** Whether the house keeps who called, and their number. */
  callers: boolean;
}

/** A word of the line and what it was taken for; a fault where it could not be taken. */
export interface Understood {
  text: string;
  as: 'kind' | 'place' | 'title' | 'person' | 'due' | 'span' | 'contact' | 'state' | 'fault';
  /** What it stands for, or what is wrong with it. */
  means: string;
  /** Names that it may have been meant for. */
  near?: string[];
}

export interface ShortLine {
  parts: Understood[];
  draft: Partial<Draft>;
}

const KINDS: Record<string, Kind> = {
  ticket: 'TICKET',
  job: 'JOB',
  shift: 'SHIFT',
  deadline: 'DEADLINE',
};

const KIND_WORDS: Record<Kind, string> = {
  TICKET: 'Ticket',
  JOB: 'Job',
  SHIFT: 'Shift',
  DEADLINE: 'Deadline',
};

/** How a job may begin. */
const STATES: Record<string, string> = { draft: 'DRAFT', confirmed: 'CONFIRMED' };

const plain = (text: string) => text.trim().toLowerCase();

/**
 * Reads a record said in one line: "ticket Lock 7 paddle stuck, Ines, by Fri 13:00". The first
 * piece holds kind, place and what is to be done; each further one is a person, a due time after
 * "by", who called with their number, or a span. Nothing is guessed: what fits nothing, or more than
 * one, is a fault at its word.
 */
export function readShortLine(line: string, known: Known): ShortLine | null {
  const pieces = line.split(',');
  const head = (pieces[0] ?? '').trim();
  if (!head) {
    return null;
  }
  const parts: Understood[] = [];
  const draft: Partial<Draft> = {};
  const words = head.split(/\s+/);
  const kind = KINDS[plain(words[0] ?? '')];
  let rest = words;
  if (kind) {
    draft.kind = kind;
    parts.push({ text: words[0]!, as: 'kind', means: KIND_WORDS[kind] });
    rest = words.slice(1);
  }
  const { place, before, after } = findPlace(rest, known);
  if (place) {
    draft.place = place.value;
    parts.push({ text: place.said, as: 'place', means: place.label });
  }
  const title = [...before, ...after].join(' ');
  if (title) {
    draft.title = title.charAt(0).toUpperCase() + title.slice(1);
    parts.push({ text: title, as: 'title', means: draft.title });
  } else {
    parts.push({ text: head, as: 'fault', means: 'says nothing that is to be done' });
  }
  const support: number[] = [];
  for (const piece of pieces
    .slice(1)
    .map((p) => p.trim())
    .filter(Boolean)) {
    parts.push(readPiece(piece, draft, support, known));
  }
  if (support.length > 0) {
    draft.support = support;
  }
  return { parts, draft };
}

/** The longest run of words that is the code of a place or the beginning of its name. */
function findPlace(words: string[], known: Known) {
  for (let length = Math.min(5, words.length); length > 0; length--) {
    for (let from = 0; from + length <= words.length; from++) {
      const said = words.slice(from, from + length).join(' ');
      const exact = known.places.filter(
        (p) => plain(p.code) === plain(said) || plain(p.label) === plain(said),
      );
      const begins = known.places.filter(
        (p) => said.length > 3 && /^[^a-z0-9]|^$/.test(tail(plain(p.label), plain(said))),
      );
      const found = exact.length === 1 ? exact : begins;
      if (found.length === 1) {
        return {
          place: { ...found[0]!, said },
          before: words.slice(0, from),
          after: words.slice(from + length),
        };
      }
    }
  }
  return { place: null, before: words, after: [] };
}

/** What follows in a text after its beginning; "x" where it begins otherwise. */
function tail(text: string, beginning: string): string {
  return text.startsWith(beginning) ? text.slice(beginning.length) : 'x';
}

function readPiece(
  piece: string,
  draft: Partial<Draft>,
  support: number[],
  known: Known,
): Understood {
  const state = STATES[plain(piece)];
  if (state && draft.kind === 'JOB') {
    draft.state = state;
    return { text: piece, as: 'state', means: plain(piece) };
  }
  const by = /^by\s+(.+)$/i.exec(piece);
  if (by) {
    const due = readDue(by[1]!);
    if (!due) {
      return { text: piece, as: 'fault', means: 'no due time; for instance by Fri 13:00' };
    }
    draft.due = dueInput(due);
    return { text: piece, as: 'due', means: 'due ' + draft.due };
  }
  const named = people(piece, known);
  if (named.length === 1) {
    const person = named[0]!;
    if (draft.lead === undefined || draft.lead === null) {
      draft.lead = person.value;
      return { text: piece, as: 'person', means: person.label + ', Lead' };
    }
    support.push(person.value);
    return { text: piece, as: 'person', means: person.label + ', Support' };
  }
  if (named.length > 1) {
    const names = named.slice(0, 3).map((p) => p.label);
    return { text: piece, as: 'fault', means: 'could be ' + names.join(' or ') };
  }
  const at = draft.place == null ? findPlace(piece.split(/\s+/), known) : null;
  if (at?.place && at.before.length + at.after.length === 0) {
    draft.place = at.place.value;
    return { text: piece, as: 'place', means: at.place.label };
  }
  const caller = known.callers ? readCaller(piece) : null;
  if (caller) {
    draft.details = { ...draft.details, ...caller };
    return { text: piece, as: 'contact', means: Object.values(caller).join(', ') };
  }
  const span = readSpan(piece, usualMinutes(draft.kind ?? 'TICKET'));
  if (span && draft.kind === 'DEADLINE') {
    draft.due = dueInput(span.first ? { date: span.first } : { at: span.start });
    return { text: piece, as: 'due', means: 'due ' + draft.due };
  }
  if (span) {
    draft.visits = [
      ...(draft.visits ?? []),
      { no: null, span: spanInput(span), before: '', after: '', lead: null, support: [] },
    ];
    return { text: piece, as: 'span', means: spanInput(span) };
  }
  return {
    text: piece,
    as: 'fault',
    means: 'nobody of that name, and no time',
    near: nearNames(piece, [...known.people, ...known.teams, ...known.places]),
  };
}

const NUMBER = /(?:^|[\s:])(\+?\d[\d ()/-]{4,}\d)$/;
const CALLER = /^(?:from|caller|called by|contact|call|tel|phone)\b[:\s]*/i;

/** Who called, after "from", and the number at the end, where there is one of either. */
function readCaller(piece: string): Record<string, string> | null {
  const number = NUMBER.exec(piece)?.[1] ?? '';
  const digits = number.replace(/\D/g, '').length;
  // A day written as 2026-11-27 is no number to call.
  const phone = digits >= 6 && !/^\d{4}-\d\d-\d\d$/.test(number) ? number.trim() : '';
  const marked = CALLER.test(piece);
  const contact = (phone ? piece.slice(0, piece.lastIndexOf(number)) : piece)
    .replace(CALLER, '')
    .replace(/[\s:]+$/, '');
  if (!phone && !marked) {
    return null;
  }
  const found = { ...(contact && { contact }), ...(phone && { phone }) };
  return Object.keys(found).length > 0 ? found : null;
}

/** Names of which some word is one letter in three off at most, as in files; the nearest first. */
function nearNames(said: string, all: { label: string }[]): string[] {
  const wanted = plain(said);
  const most = Math.max(1, Math.floor(wanted.length / 3));
  return all
    .map((one) => ({
      label: one.label,
      off: Math.min(
        ...[plain(one.label), ...plain(one.label).split(' ')].map((name) => distance(wanted, name)),
      ),
    }))
    .filter((one) => one.off > 0 && one.off <= most)
    .sort((one, other) => one.off - other.off)
    .slice(0, 3)
    .map((one) => one.label);
}

/** People by a name of theirs, teams by their whole name. */
function people(said: string, known: Known) {
  const wanted = plain(said);
  const exact = [...known.people, ...known.teams].filter((p) => plain(p.label) === wanted);
  if (exact.length > 0) {
    return exact;
  }
  return known.people.filter((p) =>
    plain(p.label)
      .split(' ')
      .some((name) => name === wanted),
  );
}
