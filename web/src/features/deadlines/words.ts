import { dueText, type Due } from '../../shared/time';
import type { DeadlineSet, Line, Looks, Step } from './queries';
import type { Fold, Which } from './model';
import text from './words.json';

const COUNTED: Record<Line['kind'], string> = {
  MOVED: 'moved',
  NOW_DATED: 'new',
  NOW_WITHOUT_DATE: 'now without date',
  REMOVED: 'off',
  DOES_NOT_APPLY: 'do not apply',
  KEPT_BY_HAND: 'kept by hand',
  DONE: 'done',
  STILL_WITHOUT_DATE: 'still without date',
  UNCHANGED: 'unchanged',
};

const plural = (n: number, one: string, more: string) => (n === 1 ? `1 ${one}` : `${n} ${more}`);

export const words = {
  ...text,
  which: {
    all: 'All',
    late: 'Overdue',
    soon: 'Next 14 days',
    undated: 'Without date',
    offered: 'To recompute',
  } satisfies Record<Which, string>,
  folds: [
    { value: 'none', label: 'By next date' },
    { value: 'chain', label: 'By chain' },
    { value: 'place', label: 'By place' },
    { value: 'team', label: 'By team' },
    { value: 'person', label: 'By person' },
  ] satisfies { value: Fold; label: string }[],
  standings: {
    LEFT_OUT: 'left out',
    DONE: 'done',
    BY_HAND: 'set by hand',
    DOES_NOT_APPLY: 'does not apply',
    PENDING: 'pending',
    NO_DATE: 'no date',
    RECKONED: '',
  } satisfies Record<Step['standing'], string>,
  kinds: {
    MOVED: 'moves',
    NOW_DATED: 'new date',
    NOW_WITHOUT_DATE: 'loses its date',
    REMOVED: 'comes off',
    DOES_NOT_APPLY: 'does not apply',
    KEPT_BY_HAND: 'by hand, stays',
    DONE: 'done, stays',
    STILL_WITHOUT_DATE: 'still without date',
    UNCHANGED: 'unchanged',
  } satisfies Record<Line['kind'], string>,
  nextIs: (step: Step) => `${dueText(step.date)} · ${step.name ?? ''}`,
  keyIs: (name: string, due: Due | undefined) => `${name}: ${due ? dueText(due) : text.noKeyDate}`,
  noDates: (n: number) => `${n} without date`,
  label: (set: DeadlineSet) =>
    [set.name, set.work?.title ?? set.place?.name].filter(Boolean).join(', '),
  sets: (n: number) => plural(n, 'set', 'sets'),
  stepsIn: (n: number) => plural(n, 'deadline', 'deadlines'),
  offer: ({ newerText, keyDate, changes }: NonNullable<DeadlineSet['offer']>) => {
    const why = keyDate
      ? 'The date it follows has moved'
      : newerText
        ? 'Its chain has a newer text'
        : 'Holidays, closures or methods have changed';
    return changes === 0
      ? `${why}; no date changes.`
      : `${why}: ${plural(changes, 'date', 'dates')} would change.`;
  },
  counted: (counts: Looks['counts']) =>
    (Object.keys(COUNTED) as Line['kind'][])
      .filter((kind) => counts[kind])
      .map((kind) => `${counts[kind]} ${COUNTED[kind]}`)
      .join(' · '),
  reaches: (looks: Looks) =>
    `${plural(looks.calendars, 'calendar', 'calendars')} · ${
      looks.people.length > 3
        ? plural(looks.people.length, 'person or team', 'people and teams')
        : looks.people.join(', ') || text.nobody
    }`,
  teamLead: (team: string) => `All of ${team} will see what the Lead sees.`,
  sameDay: (steps: string[]) => `same day as ${steps.join(', ')}`,
  offDay: (why: string) => (why ? `not a working day (${why})` : text.offWeek),
  takes: (n: number) => (n === 0 ? 'Apply' : `Change ${plural(n, 'deadline', 'deadlines')}`),
  makes: (n: number) => `Make ${plural(n, 'deadline', 'deadlines')}`,
  made: (n: number) => `${plural(n, 'set', 'sets')} of deadlines made`,
  moved: (n: number) => `${plural(n, 'deadline', 'deadlines')} changed`,
  takenOff: (name: string) => `${name} taken off`,
  chainSaved: (name: string) => `Chain ${name} saved`,
  faultAt: (line: number, column: number) => `Line ${line}, column ${column}`,
  followersUnread: (why: string) => `Could not look what follows this date: ${why}`,
  version: (n: number) => `version ${n}`,
  recompute: (n: number) => `Look at ${plural(n, 'set', 'sets')}…`,
  units: {
    HOURS: 'hours',
    DAYS: 'days',
    WORKING_DAYS: 'working days',
    WEEKS: 'weeks',
    MONTHS: 'months',
  },
  sides: { BEFORE: 'before', AFTER: 'after', on: 'on the day of' },
  rollNames: {
    '': 'as usual',
    BACK: 'back to a working day',
    FORWARD: 'forward to a working day',
    ANY_DAY: 'stays on any day',
  },
  ifYes: (question: string) => `only if ${question}`,
  ifNo: (question: string) => `unless ${question}`,
  // What the language of chains has where.
  lineStarts: ['chain: ', 'key date: ', 'ask: ', 'on '],
  unitPhrases: ['days before', 'days after', 'working days before', 'working days after']
    .concat(['weeks before', 'weeks after', 'months before', 'months after'])
    .concat(['hours before', 'hours after']),
  howPhrases: ['by chosen method', 'by ', 'at ', 'on any day'].concat([
    'back to a working day',
    'forward to a working day',
  ]),
  morePhrases: ['for the Lead', 'for ', 'remind ', 'only if ', 'unless '],
};
