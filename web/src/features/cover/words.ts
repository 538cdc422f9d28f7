import { shortSpanText, spanText } from '../../shared/time';
import type { Answer, Ask, Clash, DayOff, Gap, Reason, Swap } from './queries';

/** What the page of cover says. */
export const words = {
  heading: 'Cover',
  loading: 'Looking what is covered',
  zoom: 'How much at once',
  zooms: [
    { value: 'week', label: 'Week' },
    { value: 'weeks', label: '3 weeks' },
    { value: 'season', label: 'Season' },
  ],
  earlier: 'Earlier',
  later: 'Later',
  today: 'Today',
  share: (perMille: number) => `${(perMille / 10).toFixed(1)} % of needed hours placed`,
  noShare: 'Nothing is needed',
  short: (n: number) => `Short · ${n}`,
  over: 'over',
  inHours: (h: number) => (h < 48 ? `in ${h} h` : `in ${Math.round(h / 24)} days`),
  now: 'now',
  noGaps: 'Nothing is short in these days.',
  noDuties: 'No duty yet',
  noDutiesWhy:
    'A duty is what must be stood: a place and a role, so many people, at these hours. Whoever has the role on a shift there fills it.',
  missing: (n: number) => `${n} short`,
  needs: (n: number, skills: string[]) => `needs ${n} more${having(n, skills)}`,
  whoCould: (n: number, of: number) => `Who could, ${n} of ${of}`,
  week: 'Week',
  days: 'Their days, asked outlined',
  way: (minutes: number) => (minutes === 0 ? 'at the place that day' : `${minutes} min away`),
  weekHours: (from: number, to: number) => `${hours(from)} → ${hours(to)} h`,
  why: 'What speaks against it',
  free: 'free',
  could: 'could take it',
  hoursUnsaid: 'hours not known',
  kinds: {
    DOUBLE: 'two works at once',
    LEAVE: 'work on leave',
    BUSY: 'busy elsewhere',
    TRAVEL: 'no time to get there',
    REST: 'too little rest',
    MARGIN: 'margin does not fit',
    HOURS: 'outside hours',
    LONGEST: 'too long at a stretch',
    WEEK: 'too many hours',
    PERIOD: 'too many hours on average',
    DAYS: 'too many days in a row',
    NIGHTS: 'too many nights in a row',
    SKILL: 'without the skill',
    CAPACITY: 'too much at one place',
    DUE: 'due on one day',
  } satisfies Record<Clash['kind'], string>,
  reasons: {
    HERE: 'stands there already',
    LEFT: 'has left',
    ALONE: 'may not stand alone',
    UNKNOWN: 'their calendar could not be read',
    DOUBLE: 'other work',
    LEAVE: 'on leave',
    BUSY: 'busy elsewhere',
    TRAVEL: 'no time to get there',
    REST: 'too little rest',
    MARGIN: 'margin does not fit',
    HOURS: 'outside their hours',
    LONGEST: 'too long at a stretch',
    WEEK: 'over the hours of the week',
    PERIOD: 'over the hours of the weeks',
    DAYS: 'too many days in a row',
    NIGHTS: 'too many nights in a row',
    SKILL: 'without the skill',
    CAPACITY: 'too much at the place',
    DUE: 'much due that day',
  } satisfies Record<Reason['why'], string>,
  give: 'Give it',
  giveAnyway: 'Give it all the same',
  cannot: 'cannot',
  rest: (n: number) => (n === 1 ? '1 more person cannot' : `${n} more people cannot`),
  show: 'show',
  further: (n: number) => `${n} more`,
  given: (who: string, what: string) => `${what} is given to ${who}`,
  legend: { needed: 'needed', placed: 'placed', short: 'short', maybe: 'tentative' },
  daysOff: 'Holidays, closures:',
  halfDay: 'half a day',
  closed: 'closed',
  print: 'Print the week',
  hoursOf: 'Hours',
  hours: 'Hours of the crew',
  adding: 'Adding up their hours',
  close: 'Close',
  who: 'Who',
  byDay: 'By day',
  timed: 'At a time',
  givenWork: 'By a due day',
  ofContract: 'Of contract',
  maybe: 'Tentative',
  besides: 'Not in hours',
  noContract: 'not said',
  contract: (part: number, minutes: number) => `${Math.round(100 * part)} % of ${hours(minutes)} h`,
  beside: (wholeDays: number, unestimated: number) =>
    [
      wholeDays > 0 && `${wholeDays} × whole day`,
      unestimated > 0 && `${unestimated} without an estimate`,
    ]
      .filter(Boolean)
      .join(', '),
  newDuty: 'A new duty',
  changeDuty: 'Change the duty',
  changeThe: (duty: string) => `Change ${duty}`,
  dutyName: 'Name',
  dutyNameMissing: 'Say what it is called',
  dutyPlace: 'Place',
  dutyPlaceMissing: 'Say where it is stood',
  dutySkill: 'With the skill',
  anybody: 'none is asked',
  dutyCount: 'People',
  dutyFrom: 'From',
  dutyUntil: 'Until',
  dutyDays: 'On these days',
  seasonFirst: 'In season from',
  seasonLast: 'until (incl.)',
  weekdays: ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'].map((label, at) => ({
    value: at + 1,
    label,
  })),
  spanAdd: 'More hours',
  spanOff: 'Take these hours off',
  lifted: 'Not on these days',
  liftedWhy: 'Dates as 2026-12-25, with a space between.',
  meanwhile: 'Other work may be done meanwhile',
  dutyOff: 'Take it out',
  save: 'Save',
  cancel: 'Cancel',
  forWhat: (duty: string) => `Who could stand ${duty}`,
  asks: (n: number, skills: string[]) => `${n}${having(n, skills)}`,
  gaps: (n: number) => (n === 1 ? '1 short' : `${n} short`),
  clashCount: (n: number) => (n === 1 ? '1 clash' : `${n} clashes`),
  wrong: 'What is wrong',
  clashes: (n: number) => `Clashes · ${n}`,
  noClashes: 'Nothing clashes in these days.',
  pileUps: (n: number) => `Due on top of each other · ${n}`,
  standing: (n: number) => `Let stand · ${n}`,
  never: 'never',
  isNever: 'the house never wants this',
  warns: 'only a warning',
  clash: 'The clash',
  aPlace: 'A place',
  what: 'What',
  when: 'When',
  work: 'work that is not yours to see',
  around: { WORK: 'work', LEAVE: 'leave', BUSY: 'busy elsewhere' },
  nothingAround: 'nothing else in these days',
  sorts: { WORK: 'private work', LEAVE: 'leave', BUSY: 'busy elsewhere' },
  also: 'Also:',
  handOver: 'Hand over',
  takes: (what: string) => `Who could take ${what}`,
  handed: (what: string, to: string) => `${what} is handed over to ${to}`,
  swap: 'Swap',
  swapAnyway: 'Swap all the same',
  swapping: 'Looking what it could be swapped for',
  swaps: (what: string) => `What ${what} could be swapped for`,
  swapWith: 'With',
  swapFor: 'For their',
  bothCould: 'both are free for it',
  noSwap: 'Within a week of it there is nothing that both could take.',
  moreSwaps: (n: number) => `${n} more could be swapped`,
  noSwaps: (n: number) =>
    n === 1 ? '1 more within a week of it cannot' : `${n} more within a week of it cannot`,
  swapped: (what: string, to: string, theirs: string, from: string) =>
    `${what} is ${to}’s now, and ${theirs} ${from}’s`,
  letItStand: 'It may stand, because',
  reasonHint: 'Why it may stand',
  ready: ['Agreed with them', 'Swapped among themselves', 'Only this once', 'Paid as overtime'],
  letStand: 'Let it stand',
  itStands: 'It stands, until either side changes',
  stands: (by: string, at: string) => `Let stand by ${by}, ${at}:`,
  openAgain: 'Open it again',
  neverWhy: 'It cannot be let stand: hand one of them over, swap it, or move it.',
  suggest: (n: number) => (n === 1 ? 'Suggest a fill' : `Suggest a fill for all ${n}`),
  fill: 'A fill for what is short',
  fillWhy: 'nothing is given before you say so',
  filling: 'Looking who could fill it',
  to: 'To',
  nobody: 'nobody could',
  giveAll: (n: number) => (n === 1 ? 'Give 1' : `Give ${n}`),
  leaveIt: 'Leave it',
  whenCould: 'Starts that fit',
  whenLooking: 'Looking when it fits',
  elsewhen: (why: string, fits: boolean) => (fits ? `else ${why}` : why),
  startAt: (day: string, clock: string, why: string) =>
    `Start ${day} ${clock}${why ? ` although ${why}` : ''}`,
  leaves: (name: string) => `What ${name} leaves`,
  leaving: 'Looking who could take it',
  leavesNothing: 'They have no work in these days.',
  handAll: (n: number) => `Hand ${n} over`,
  handedAll: (n: number) => (n === 1 ? '1 is handed over' : `${n} are handed over`),
  filled: (n: number) => (n === 1 ? '1 is given' : `${n} are given`),
  filledInPart: (n: number, of: number, why: string) => `${n} of ${of} are given: ${why}`,
};

/** To the tenth. */
export function hours(minutes: number): string {
  return String(Math.round(minutes / 6) / 10);
}

/** Which skills so many people have to have, or some of them. */
function having(n: number, skills: string[]): string {
  const names = [...new Set(skills)];
  return skills.length === n && names.length === 1
    ? ` with ${names[0]}`
    : names.map((name) => `, ${skills.filter((one) => one === name).length} with ${name}`).join('');
}

/** What something that asks for people is called. */
export function askName(ask: Ask | undefined): string {
  return ask ? [ask.ref, ask.name].filter(Boolean).join(' ') || words.work : '';
}

/** Reasons about the whole of it need no time. */
export function reasonText(reason: Reason): string {
  const plain = ['UNKNOWN', 'LEFT', 'SKILL', 'WEEK', 'PERIOD', 'DAYS', 'NIGHTS'];
  const text = words.reasons[reason.why];
  return plain.includes(reason.why)
    ? text
    : `${text} ${spanText({ start: reason.start, end: reason.end })}`;
}

/** Whether somebody could take something, in a few words. */
export function takerText({ verdict, reasons }: Answer): string {
  // What rules them out is said first.
  const byWeight = [...reasons].sort((a, b) => Number(b.never) - Number(a.never));
  const why = [...new Set(byWeight.map((one) => words.reasons[one.why]))].join(', ');
  return verdict === 'YES' ? words.could : verdict === 'NO' ? `${words.cannot}: ${why}` : why;
}

/** What speaks against a swap, of each of the two. */
export function againstText({ name, theirs, ours }: Swap, us: string): string {
  const of = (who: string, reasons: Reason[]) =>
    reasons.length > 0 ? [`${who}: ${reasons.map(reasonText).join(', ')}`] : [];
  return [...of(name, theirs), ...of(us, ours)].join('; ');
}

/** What is wrong and when, without whom. */
export function clashText(clash: Clash): string {
  const { kind, items, start, end } = clash;
  const what = kind === 'DUE' ? `${items.length} ${words.kinds.DUE}` : words.kinds[kind];
  return `${what}, ${shortSpanText(start, end)}`;
}

/** What a gap is chosen by. */
/** A holiday or a closure, as "Fri 27 Nov Tide Fair (half a day, Salt Coast)". */
export function dayOffText({ first, last, name, half, region, place }: DayOff): string {
  const where = [half && words.halfDay, region, place, !region && words.closed];
  return `${spanText({ first, last })} ${name} (${where.filter(Boolean).join(', ')})`;
}

export function gapKey(gap: Gap): string {
  return `${gap.ask}@${gap.start}`;
}
