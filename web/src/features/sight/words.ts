import type { Schemas } from '../../shared/api/client';
import text from './words.json';

/** Everything the page of who sees what says. */
export const words = {
  ...text,
  bys: [
    { value: 'house', label: 'All details' },
    { value: 'record', label: 'By record' },
    { value: 'detail', label: 'By detail' },
    { value: 'person', label: 'By person' },
  ],
  mapWhy: (n: number, days: string) =>
    `Who can read each detail, from ${n === 1 ? 'the one record' : `the ${n.toLocaleString('en-GB')} records`} of ${days}. Everybody counts once, as what they are most to the work.`,
  column: (name: string) => name.charAt(0).toUpperCase() + name.slice(1),
  peopleCount: (n: number, anybody: boolean) =>
    anybody ? 'anybody' : `${n.toLocaleString('en-GB')} ${n === 1 ? 'person' : 'people'}`,
  calendarCount: (n: number) =>
    n === 0 ? 'in this app' : `${n.toLocaleString('en-GB')} ${n === 1 ? 'calendar' : 'calendars'}`,
  andMore: (n: number) => `and ${n.toLocaleString('en-GB')} more`,
  auditOf: { detail: 'Which detail?', person: 'Which person?' },
  auditWhy: {
    detail:
      'Choose a detail to list every calendar that shows it, who reads it there, and the rule that puts it there.',
    person: 'Choose a person to list every detail they can read, and where.',
  },
  auditWays: {
    MEMBERS: '',
    SHARE: 'shared',
    FEED: 'secret address',
    COPY: 'copy elsewhere',
    SCREENS: 'in this app',
  } satisfies Record<Schemas['AuditRow']['way'], string>,
  auditEntries: (n: string) => `${n} ${n === '1' ? 'entry' : 'entries'}`,
  auditRecords: (n: string) => `${n} ${n === '1' ? 'record' : 'records'}`,
  legend: { shown: 'shown', notAsked: 'not in the wording', keptBack: 'hidden from' },
  ways: {
    MEMBERS: '',
    SHARE: 'shared with',
    FEED: 'secret address',
    COPY: 'copy elsewhere',
  } satisfies Record<Schemas['SightAudience']['way'], string>,
  sorts: {
    OWN: 'own',
    TEAM: 'team',
    PLACE: 'place',
    MASTER: 'master',
    DATE_LIST: 'date list',
    NAMED: 'named',
  } satisfies Record<Schemas['SightAudience']['sort'], string>,
  visit: (n: number) => `visit ${n}`,
  invited: (names: string) => `guests: ${names}`,
  reminds: (when: string) => `reminds ${when}`,
  waits: {
    FIRST: 'nothing yet: awaiting approval',
    CHANGE: 'last approved version; a change awaits approval',
  } satisfies Record<NonNullable<Schemas['SightAudience']['waits']>, string>,
};
