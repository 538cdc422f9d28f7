import type { NumberField } from './numbers';
import type { Schemas } from '../../shared/api/client';
import type { Order } from './queries';
import type { Understood } from './shortLine';
import text from './words.json';

/** Of acts that changed a record; all others changed it too. */
const ACTS: Record<string, string> = {
  'record.create': 'created this',
  'record.change': 'changed',
  'record.undo': 'undid',
  'deadlines.make': 'made a set of deadlines',
  'deadlines.move': 'moved a set of deadlines',
  'deadlines.off': 'took off a set of deadlines',
  'deadlines.undo': 'undid',
};

/** Everything this feature says. */
export const words = {
  ...text,
  columns: ['Ref', 'What', 'Place', 'People', 'When', 'State'],
  stateOfList: { open: text.open, done: text.done } as Record<string, string>,
  readSoFar: (n: number) => `the list, ${n} so far`,
  count: (n: number, more: boolean) =>
    more ? `the first ${n} of more` : n === 1 ? '1 record' : `${n} records`,
  pieces: text.pieces as Record<string, string>,
  number: (n: number) => n.toLocaleString('en-GB'),
  overTotal: (n: number) => `over ${n.toLocaleString('en-GB')} records`,
  orders: [
    { value: 'SOONEST', label: 'Soonest first' },
    { value: 'LATEST', label: 'Latest first' },
    { value: 'DUE', label: 'Due first' },
    { value: 'DUE_LAST', label: 'Due last' },
    { value: 'BEGIN', label: 'Beginning first' },
    { value: 'BEGIN_LAST', label: 'Beginning last' },
    { value: 'CHANGED', label: 'Changed last' },
    { value: 'CHANGED_FIRST', label: 'Changed first' },
    { value: 'NEWEST', label: 'Newest' },
    { value: 'OLDEST', label: 'Oldest' },
    { value: 'PLACE', label: 'Place A–Z' },
    { value: 'PLACE_LAST', label: 'Place Z–A' },
  ] satisfies { value: Order; label: string }[],
  byDetail: (label: string, up: boolean) => `${label} ${up ? 'rising' : 'falling'}`,
  orNear: (name: string) => `or ${name}`,
  notAlso: (name: string) => `not ${name}`,
  takeOut: (said: string) => `Take out ${said}`,
  mayMean: (text: string) => `“${text}” may mean`,
  forWhom: (set: string) => `for ${set}`,
  standsInside: (detail: string, inside: string, readers: string) =>
    `${detail} also appears in ${inside}, visible to ${readers}`,
  lands: (n: number) => (n === 1 ? 'Lands on 1 calendar' : `Lands on ${n} calendars`),
  willLand: (n: number) => (n === 1 ? 'Will land on 1 calendar' : `Will land on ${n} calendars`),
  copyStates: {
    WAITS: 'will be sent',
    SENDING: 'being sent',
    SENT: 'sent',
    REFUSED: 'refused',
    OFF: 'not there',
    ASKED_OFF: 'removal not confirmed',
    TAKEN_OFF_THERE: 'removed there',
    CHANGED_THERE: 'changed there',
  } as const,
  inSeconds: (n: number) => (n < 60 ? `in ${n} s` : `in ${Math.round(n / 60)} min`),
  copyIn: (there: string) => (there ? `copy in ${there}` : 'copy in another calendar'),
  waits: {
    FIRST: 'awaiting approval',
    CHANGE: 'last approved version; a change awaits approval',
  } satisfies Record<NonNullable<Schemas['Lands']['waits']>, string>,
  seesOf: (n: number, m: number) => `${n} of ${m} details`,
  saved: (ref: string) => `${ref} saved`,
  outcome: (entries: number, calendars: number) =>
    `${entries} ${entries === 1 ? 'entry' : 'entries'} on ${calendars} ${calendars === 1 ? 'calendar' : 'calendars'}`,
  left: (fields: string) => `Not undone because it was changed later: ${fields}`,
  heard: {
    kind: 'kind',
    place: 'place',
    title: 'what',
    person: 'who',
    due: '',
    span: 'when',
    contact: 'caller',
    state: 'stands as',
  } satisfies Record<Exclude<Understood['as'], 'fault'>, string>,
  chosen: (n: number) => `${n} selected`,
  choose: (ref: string) => `Select ${ref}`,
  gaveAll: (name: string) => `Assign to ${name}`,
  handedFrom: (from: string, to: string) => `Hand over from ${from} to ${to}`,
  taggedAll: (tag: string) => `Tag as ${tag.trim()}`,
  manyStates: { CONFIRMED: 'Confirm', DONE: 'Finish', CANCELLED: 'Cancel the work' },
  changed: (n: number) => (n === 1 ? '1 record changed' : `${n} records changed`),
  applyTo: (n: number) => (n === 1 ? 'Apply 1 change' : `Apply ${n} changes`),
  goOn: (n: number) => (n === 1 ? 'Go on with 1' : `Go on with ${n}`),
  doneOf: (n: number, all: number) => `${n} of ${all}`,
  moved: (days: number) =>
    days > 0
      ? `Move ${days} ${days === 1 ? 'day' : 'days'} later`
      : `Move ${-days} ${days === -1 ? 'day' : 'days'} earlier`,
  viewSaved: (name: string) => `View “${name}” saved`,
  letGo: (name: string) => `Delete view ${name}`,
  using: (names: string[]) => `uses ${names.join(', ')}`,
  kindChoices: [
    { value: 'TICKET', label: 'Ticket' },
    { value: 'JOB', label: 'Job' },
    { value: 'SHIFT', label: 'Shift' },
    { value: 'DEADLINE', label: 'Deadline' },
  ],
  savedMany: (n: number) => `${n} saved`,
  changing: (ref: string) => `Edit ${ref}`,
  titleOf: { TICKET: 'What', JOB: 'What', SHIFT: 'Duty', DEADLINE: 'What' },
  titleHints: {
    TICKET: 'Stuck paddle',
    JOB: 'Rehang lower gate',
    SHIFT: 'Flight keeper',
    DEADLINE: 'Weir inspection',
  },
  leadOfKind: { TICKET: 'Lead', JOB: 'Lead', SHIFT: 'On duty', DEADLINE: 'Lead' },
  visit: (no: number) => `Visit ${no}`,
  leadOf: (no: number) => `Lead of visit ${no}`,
  supportOf: (no: number) => `Support of visit ${no}`,
  minutesBefore: (n: number) => `${n} min before`,
  minutesAfter: (n: number) => `${n} min after`,
  standingsOfNew: [
    { value: 'DRAFT', label: 'Draft' },
    { value: 'CONFIRMED', label: 'Confirmed' },
  ],
  standings: [
    { value: 'DRAFT', label: 'draft (on no calendar)' },
    { value: 'TENTATIVE', label: 'tentative' },
    { value: 'CONFIRMED', label: 'confirmed' },
    { value: 'DONE', label: 'done' },
    { value: 'CANCELLED', label: 'cancelled' },
  ],
  /** What is asked before something is done from the sheet. */
  asks: {
    handOver: (ref: string) => `Hand over ${ref}`,
    copy: (ref: string) => `Copy ${ref} to another day`,
    again: (ref: string) => `One more visit of ${ref}`,
    oneMore: (ref: string) => `Put ${ref} on one more calendar`,
  },
  asksDone: {
    handOver: 'Hand over',
    copy: 'Copy',
    again: 'Add the visit',
    oneMore: 'Put it there',
  },
  neverOn: (ref: string, calendar: string) => `Keep ${ref} off ${calendar}`,
  handedOver: (ref: string) => `${ref} handed over`,
  copied: (ref: string) => `${ref} copied`,
  comesAgain: (ref: string) => `${ref} has one more visit`,
  putThere: (ref: string) => `${ref} put on one more calendar`,
  tookOff: (ref: string) => `${ref} kept off the calendar`,
  calledOff: (ref: string) => `${ref} cancelled`,
  more: (n: number) => (n > 0 ? `More (${n} set)` : 'More'),
  /** The numbers of a record, in the order of the form; what is said of one that stands there. */
  numbers: {
    estimateMinutes: {
      label: 'Estimate, hours',
      hint: 'per person',
      said: (minutes) => `Estimate ${Math.round(minutes / 6) / 10} h per person`,
    },
    leastHeadCount: {
      label: 'Minimum headcount',
      hint: 'tentative with fewer',
      said: (people) => `At least ${people} people`,
    },
  } satisfies Record<
    NumberField,
    { label: string; hint?: string; said: (number: number) => string }
  >,
  wanted: (people: number, skills: string[]) =>
    [
      people === 1 ? '1 person needed' : `${people} people needed`,
      ...skills.map((skill) => `one with ${skill}`),
    ].join(', '),
  repeats: [
    { value: '', label: 'never' },
    { value: 'DAYS', label: 'every day' },
    { value: 'WEEKS', label: 'every week' },
    { value: 'MONTHS', label: 'every month' },
    { value: 'YEARS', label: 'every year' },
  ],
  dateName: (n: number) => `Name of date ${n}`,
  dateWhen: (n: number) => `Day of date ${n}`,
  exceptionSort: (n: number) => `Exception ${n}`,
  exceptionSorts: [
    { value: 'NOT_SENT', label: 'not sent' },
    { value: 'NEVER_HERE', label: 'never on' },
    { value: 'ALSO_HERE', label: 'also on' },
  ],
  exceptionSaid: {
    NOT_SENT: 'Not sent',
    NEVER_HERE: 'Never on',
    ALSO_HERE: 'Also on',
  } satisfies Record<Schemas['ExceptionView']['sort'], string>,
  exceptionReason: (n: number) => `Reason for exception ${n}`,
  exceptionVisit: (n: number) => `Visit of exception ${n}`,
  saveLacks: (what: string) => `Save: ${what}`,
  lacks: {
    title: 'enter what is to be done',
    misheard: (text: string) => `say what “${text}” is`,
    span: 'enter the time of the shift',
    due: 'enter when it is due',
    faulty: 'correct the marked field',
  },
  putInto: { title: 'Add to the title', contact: 'Use as contact', notes: 'Add to the notes' },
  kinds: { JOB: 'Job', TICKET: 'Ticket', SHIFT: 'Shift', DEADLINE: 'Deadline' } satisfies Record<
    Schemas['RecordView']['kind'],
    string
  >,
  states: {
    DRAFT: 'draft',
    TENTATIVE: 'tentative',
    CONFIRMED: 'confirmed',
    DONE: 'done',
    CANCELLED: 'cancelled',
  } satisfies Record<NonNullable<Schemas['RecordView']['state']>, string>,
  families: { GIVEN_DUE: 'given → due', DUE: 'due mark', WORK: 'span' } satisfies Record<
    Schemas['Lands']['family'],
    string
  >,
  acts: ACTS,
  reasons: {
    DRAFT: 'it is a draft',
    CANCELLED: 'it was cancelled',
    NOT_SENT: 'not sent',
    NEVER_HERE: 'never on this calendar',
    PRIVATE: 'private records stay off it',
    PERSONAL: 'it is personal',
    LEFT_THE_HOUSE: 'the person has left',
    RULE_KIND: 'the rule is for another kind',
    RULE_STATE: 'the rule is for another state',
    RULE_TAG: 'the tag that the rule needs is missing',
    RULE_TEAM: 'the rule is for another team',
    RULE_PLACE: 'the rule is for another place',
    RULE_ROLE: 'nobody has the role that the rule needs',
    RULE_DETAIL: 'a detail that the rule needs is missing',
    RULE_PRIVACY: 'the rule is for private work',
    RULE_AUTHOR: 'the rule is for work that somebody else made',
    RULE_START_HOURS: 'it starts at other hours',
    RULE_ALL_DAY: 'it is not all day',
    RULE_NOT_MET: 'a condition of the rule is not met',
    RULE_DONE: 'its rule removes it when done',
    RULE_NO_TIME: 'it has no due time or span that the rule needs',
    NO_RULE: 'no rule puts it on this calendar',
    RULE: 'rule',
    ALSO_HERE: 'added by hand',
  } satisfies Record<Schemas['Why']['code'], string>,
};

export function reason(why: Schemas['Why']): string {
  const said = words.reasons[why.code];
  return why.subject
    ? `${said} ${why.code === 'RULE' ? why.subject : '(rule ' + why.subject + ')'}`
    : said;
}
