import type { Schemas } from '../../shared/api/client';
import text from './words.json';

/** Everything the rules page says. */
export const words = {
  ...text,
  tabs: [
    { value: 'rules', label: 'Rules' },
    { value: 'wordings', label: 'Wordings' },
    { value: 'details', label: 'Details' },
  ],
  fileFaults: (n: number) => `The file was not imported: ${n === 1 ? '1 error' : `${n} errors`}`,
  done: { STAYS_WITH_TICK: 'stays with a tick', COMES_OFF: 'comes off' } satisfies Record<
    Schemas['Rule']['whenDone'],
    string
  >,
  shapes: {
    SPAN: 'the span',
    SPAN_WITH_MARGINS: 'the span with margins',
    WHOLE_DAY: 'the whole day',
    AS_IT_COMES: 'it comes',
    GIVEN_DUE: 'given → due',
    DUE_MARK: 'a due mark',
  } satisfies Record<Schemas['Rule']['as'], string>,
  kinds: { JOB: 'job', TICKET: 'ticket', SHIFT: 'shift', DEADLINE: 'deadline' } satisfies Record<
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
  busies: { '': 'busy or free by shape', true: 'busy', false: 'free' },
  invites: {
    '': 'nobody',
    EVERYBODY: 'everybody on the job',
    ONLY_ONESELF: 'each person alone',
  } satisfies Record<'' | Exclude<Schemas['Rule']['attendees'], undefined | 'NOBODY'>, string>,
  units: {
    MINUTES: ['minute', 'minutes'],
    HOURS: ['hour', 'hours'],
    WORKING_DAYS: ['working day', 'working days'],
  } satisfies Record<Schemas['Reminder']['unit'], [string, string]>,
  before: (reminders: string) => `${reminders} before`,
  releases: { '': 'automatically', true: 'after approval' },
  ownOf: (roles: string) => `the own calendars of ${roles}`,
  teamsOf: (roles: string) => `the calendars of the teams of ${roles}`,
  tag: (tag: string) => `has the tag “${tag}”`,
  team: (name: string) => `belongs to ${name}`,
  place: (name: string) => `is at ${name}`,
  role: (name: string) => `has a ${name}`,
  detail: (name: string) => `has ${name}`,
  madeBy: (name: string) => `was made by ${name}`,
  startsBetween: (from: string, until: string) => `starts between ${from} and ${until}`,
  groups: { all: 'all of', any: 'either', none: 'neither' },
  sorts: [
    ['kind', 'kind'],
    ['state', 'state'],
    ['tag', 'tag'],
    ['team', 'team'],
    ['place', 'place'],
    ['role', 'somebody in a role'],
    ['detail', 'a detail'],
    ['over', 'a value over …'],
    ['under', 'a value under …'],
    ['is', 'a value is …'],
    ['private', 'private'],
    ['madeBy', 'who made it'],
    ['startsBetween', 'start hours'],
    ['allDay', 'all day'],
    ['any', 'any of …'],
    ['none', 'none of …'],
  ] as [string, string][],
  entries: (n: number) => n.toLocaleString('en-GB'),
  onCalendars: (n: number) => (n === 1 ? 'on 1 calendar' : `on ${n} calendars`),
  rule: (n: number) => `Rule ${n}`,
  notReadable: (why: string) => `Cannot be read: ${why}`,
  seen: (asked: number, of: number) => `${asked} of ${of} details`,
  edited: (n: number) => `${n === 1 ? '1 change' : `${n} changes`} not applied yet`,
  taken: (entries: number, calendars: number) =>
    `Applied: ${entries.toLocaleString('en-GB')} ${entries === 1 ? 'entry' : 'entries'} on ${calendars} ${calendars === 1 ? 'calendar' : 'calendars'}`,
  lookedAt: (records: number, total: number) =>
    `${records.toLocaleString('en-GB')} of ${total.toLocaleString('en-GB')} records checked`,
  workDone: (done: number, total: number) =>
    `${done.toLocaleString('en-GB')} of ${total.toLocaleString('en-GB')} records`,
  workEntries: (entries: number) =>
    `${entries.toLocaleString('en-GB')} ${entries === 1 ? 'entry' : 'entries'} changed`,
  inUse: (n: number) => `used by ${n === 1 ? '1 rule' : `${n} rules`}`,
  usualOf: {
    JOB: 'Jobs',
    TICKET: 'Tickets',
    SHIFT: 'Shifts',
    DEADLINE: 'Deadlines',
  } satisfies Record<Schemas['RecordView']['kind'], string>,
  usualNone: (name: string) => `${name} (default)`,
  sortsOfDetail: {
    TEXT: 'text',
    NOTES: 'lines of text',
    NUMBER: 'a number',
    MONEY: 'an amount',
    DATE: 'a date',
    PHONE: 'a phone number',
    MAIL: 'a mail address',
    ADDRESS: 'an address',
    CHOICE: 'one of a list',
    YES_NO: 'yes or no',
    LINK: 'a link',
  } satisfies Record<Schemas['DetailDefinition']['sort'], string>,
  valued: {
    over: (detail: string, than: string) => `${detail.toLowerCase()} over ${than}`,
    under: (detail: string, than: string) => `${detail.toLowerCase()} under ${than}`,
    is: (detail: string, than: string) => `${detail.toLowerCase()} is ${than}`,
  },
  inStates: (states: string) => `while ${states}`,
  detailNumber: (label: string) => `Detail ${label}`,
};
