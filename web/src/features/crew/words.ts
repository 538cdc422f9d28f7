import type { Schemas } from '../../shared/api/client';

import { shortDayText } from '../../shared/time';
import text from './words.json';

/** Of those that are neither hours nor a level alone. */
const LIMIT_UNITS: Partial<Record<Schemas['Limit']['kind'], string>> = {
  DAYS: 'days',
  NIGHTS: 'nights',
  DUE: 'items',
};

export const words = {
  ...text,
  days: [
    { value: 'MONDAY', label: 'Monday' },
    { value: 'TUESDAY', label: 'Tuesday' },
    { value: 'WEDNESDAY', label: 'Wednesday' },
    { value: 'THURSDAY', label: 'Thursday' },
    { value: 'FRIDAY', label: 'Friday' },
    { value: 'SATURDAY', label: 'Saturday' },
    { value: 'SUNDAY', label: 'Sunday' },
  ],
  outsideLevels: [
    { value: 'ALL', label: 'everything marked for external readers' },
    { value: 'TIMES_AND_PLACE', label: 'times and place' },
    { value: 'BUSY_ONLY', label: 'busy only' },
  ],
  deciders: [
    { value: 'PEOPLE', label: 'each person' },
    { value: 'HOUSE', label: 'the organisation, for everybody' },
  ],
  timesTitle: (name: string) => `Hours and leave of ${name}`,
  weekdays: ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'].map(
    (label, at) => ({ value: at + 1, label }),
  ),
  nameTitle: (name: string) => `Change ${name}`,
  memberCount: (n: number) => `${n} ${n === 1 ? 'member' : 'members'}`,
  placeTitle: (name: string) => `${name}: capacity, travel times, working days`,
  regionTitle: (name: string) => `Region ${name}`,
  weekShort: (days: string[]) =>
    days.map((one) => one[0] + one.slice(1, 3).toLowerCase()).join(', '),
  holidayCount: (count: number, last: string) =>
    `${count}, until ${shortDayText(last)} ${last.slice(0, 4)}`,
  holidaysRead: (count: number, until: string) =>
    `${count === 1 ? '1 day' : `${count} days`} in the file; repeating days are added up to the end of ${until.slice(0, 4)}. Days already listed stay as they are. Nothing is saved until you press Save.`,
  notRead: (number: number, summary: string, why: string) =>
    `Not imported: part ${number}${summary && ` (${summary})`}: ${why}`,
  aboutMore: (names: string[]) =>
    names.slice(0, 3).join(', ') + (names.length > 3 ? ` and ${names.length - 3} more` : ''),
  more: (count: number) => `and ${count} more`,
  marginKinds: [
    { value: 'JOB', label: 'Jobs' },
    { value: 'TICKET', label: 'Tickets' },
    { value: 'SHIFT', label: 'Shifts' },
    { value: 'DEADLINE', label: 'Deadlines' },
  ],
  tookBack: (what: string) => `Undone: ${what}`,
  limits: {
    DOUBLE: 'Double-booked',
    LEAVE: 'Work during approved leave',
    BUSY: 'Work during busy time in the person’s own calendar',
    TRAVEL: 'Not enough travel time between places',
    REST: 'Rest between working days, at least',
    MARGIN: 'Margin that does not fit',
    HOURS: 'Work outside working hours',
    LONGEST: 'Length of a shift, at most',
    WEEK: 'Hours in a week, at most',
    PERIOD: 'Average hours a week, at most',
    DAYS: 'Days in a row, at most',
    NIGHTS: 'Nights in a row, at most',
    SKILL: 'Missing skill',
    LEFT: 'Work after the person’s last day',
    CAPACITY: 'Place over capacity',
    SHUT: 'Place closed',
    DUE: 'Items due on one day for one person, fewer than',
  } satisfies Record<Schemas['Limit']['kind'], string>,
  limitUnits: LIMIT_UNITS,
  levels: [
    { value: 'NEVER', label: 'block' },
    { value: 'WARN', label: 'warn' },
    { value: 'REASON', label: 'warn, and ask for a reason' },
  ],
  skillUntil: (skill: string, last: string) =>
    `${skill} until ${shortDayText(last)} ${last.slice(0, 4)}`,
  capacity: (n: number, ofPeople: boolean) =>
    `${n} ${ofPeople ? (n === 1 ? 'person' : 'people') : n === 1 ? 'visit' : 'visits'} at once`,
  skillsTitle: (name: string) => `Skills of ${name}`,
  deciderWords: {
    LOCK: 'set by the organisation',
    PERSON: 'linked',
    DEFAULT: 'linked by the organisation',
    HELD: 'not linked',
  } satisfies Record<Schemas['LinkDecided']['by'], string>,
  inviteTitle: (name: string) => `Invite ${name}`,
  changeTitle: (name: string) => `Edit ${name}`,
  leave: (name: string) => `Remove ${name}`,
  standings: {
    HOUSE: 'crew',
    AGENCY: 'agency',
    OUTSIDE: 'external',
    LEFT: 'has left',
  } satisfies Record<Schemas['Person']['standing'], string>,
  rights: {
    NONE: 'no account',
    WORKER: 'worker',
    TEAM_COORDINATOR: 'team coordinator',
    COORDINATOR: 'coordinator',
  } satisfies Record<NonNullable<Schemas['Person']['right']>, string>,
  accounts: { NONE: '–', INVITED: 'invited', OPEN: 'open' } satisfies Record<
    NonNullable<Schemas['Person']['account']>,
    string
  >,
};
