import type { Schemas } from '../../shared/api/client';
import text from './words.json';

/** Everything the board says. */
export const words = {
  ...text,
  takersFailed: (why: string) => `Could not check who is able to take this: ${why}`,
  zooms: [
    { value: 'day', label: 'Day' },
    { value: 'week', label: 'Week' },
    { value: 'weeks', label: '3 weeks' },
    { value: 'season', label: 'Season' },
  ],
  groupings: [
    { value: 'team', label: 'By team' },
    { value: 'place', label: 'By place' },
    { value: 'one', label: 'Single lane' },
  ],
  partsOf: { team: 'team', person: 'person', place: 'place', calendar: 'calendar' },
  paperSpans: [
    { value: 1, label: 'Day' },
    { value: 7, label: 'Week' },
    { value: 14, label: '2 weeks' },
    { value: 28, label: '4 weeks' },
  ],
  paperColumns: (ofPerson: boolean) => [
    'Day',
    'When',
    'Work',
    'Place',
    ofPerson ? 'With' : 'People',
  ],
  withOthers: (names: string) => `with ${names}`,
  corners: { team: 'Crew', place: 'Places', one: 'All work' },
  also: (teams: string) => `also ${teams}`,
  people: (n: number) => (n === 1 ? '1 person' : `${n} people`),
  open: (n: number) => `${n} open`,
  hours: (h: number) => `${Math.round(h * 10) / 10} h`,
  empty: {
    off: 'off',
    leave: 'leave',
    away: 'not available',
    busy: 'busy',
    unread: 'busy time unknown',
    free: 'free',
    unknown: 'no hours entered',
    '': '',
  },
  more: (n: number) => `${n} more`,
  twice: (from: string, to: string) =>
    `double-booked ${from.replace(/:00$/, '')}–${to.replace(/:00$/, '')}`,
  to: (name: string) => `to ${name}`,
  kinds: { JOB: 'Job', TICKET: 'Ticket', SHIFT: 'Shift', DEADLINE: 'Deadline' } satisfies Record<
    Schemas['RecordView']['kind'],
    string
  >,
  chosen: (n: number) => (n === 1 ? '1 selected' : `${n} selected`),
  copied: (n: number) =>
    n === 1 ? '1 copied; press v to paste it' : `${n} copied; press v to paste them`,
  moved: (n: number) => (n === 1 ? 'moved' : `${n} moved`),
  pasted: (n: number) => (n === 1 ? '1 pasted' : `${n} pasted`),
  actions: {
    open: 'Open',
    make: 'New record here',
    lift: 'Move',
    longer: 'Longer',
    shorter: 'Shorter',
    copy: 'Copy',
    paste: 'Paste here',
    choose: 'Select or deselect',
    all: 'Select all in this lane',
    sick: 'Report sick…',
    everything: 'Select everything in view',
    confirm: 'Confirm',
    start: 'Start',
    finish: 'Finish',
  },
  busyOutside: (from: string, to: string) => `busy elsewhere ${from} – ${to}`,
};
