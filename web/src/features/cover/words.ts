import type { Schemas } from '../../shared/api/client';
import { gapText, shortDayText, shortSpanText, spanText } from '../../shared/time';
import type { Answer, Ask, Clash, DayOff, Gap, Reason, Swap } from './queries';
import text from './words.json';

/** What the page of cover says. */
export const words = {
  ...text,
  zooms: [
    { value: 'week', label: 'Week' },
    { value: 'weeks', label: '3 weeks' },
    { value: 'season', label: 'Season' },
  ],
  share: (perMille: number) => `${(perMille / 10).toFixed(1)} % of required hours covered`,
  ofNeeded: (filled: number, needed: number) => `${filled} of ${needed}`,
  short: (n: number) => `Short · ${n}`,
  inHours: (h: number) => (h < 48 ? `in ${h} h` : `in ${Math.round(h / 24)} days`),
  missing: (n: number) => `${n} short`,
  needs: (n: number, skills: string[]) => `${n} more needed${having(n, skills)}`,
  whoCould: (n: number, of: number) => `Available: ${n} of ${of}`,
  uncountedWhy: {
    ROLE: 'other role',
    TENTATIVE: 'tentative',
    LEAVE: 'on leave',
    SKILL: 'missing skill',
    ALONE: 'not qualified to work alone',
    ELSEWHERE: 'counts on other work',
  } satisfies Record<Schemas['CoverUncounted']['why'], string>,
  asRole: (role: string) => `as ${role}`,
  way: (minutes: number) => (minutes === 0 ? 'on site that day' : `${minutes} min away`),
  weekHours: (from: number, to: number) => `${hours(from)} → ${hours(to)} h`,
  kinds: {
    DOUBLE: 'double-booked',
    LEAVE: 'on leave',
    BUSY: 'busy elsewhere',
    TRAVEL: 'not enough travel time',
    REST: 'not enough rest',
    MARGIN: 'margin does not fit',
    HOURS: 'outside working hours',
    LONGEST: 'shift too long',
    WEEK: 'too many hours in the week',
    PERIOD: 'too many hours on average',
    DAYS: 'too many days in a row',
    NIGHTS: 'too many nights in a row',
    SKILL: 'missing skill',
    LEFT: 'after their last day',
    CAPACITY: 'place over capacity',
    SHUT: 'place closed',
    DUE: 'due on one day',
  } satisfies Record<Clash['kind'], string>,
  reasons: {
    HERE: 'already on it',
    LEFT: 'has left by then',
    ALONE: 'not qualified to work alone',
    UNKNOWN: 'busy time unknown',
    DOUBLE: 'other work',
    LEAVE: 'on leave',
    BUSY: 'busy elsewhere',
    TRAVEL: 'not enough travel time',
    REST: 'not enough rest',
    MARGIN: 'margin does not fit',
    HOURS: 'outside working hours',
    LONGEST: 'shift too long',
    WEEK: 'too many hours in the week',
    PERIOD: 'too many hours on average',
    DAYS: 'too many days in a row',
    NIGHTS: 'too many nights in a row',
    SKILL: 'missing skill',
    CAPACITY: 'place over capacity',
    DUE: 'too much due that day',
  } satisfies Record<Reason['why'], string>,
  lacks: ({ skill, begins, ends }: Schemas['WhoCouldLack']) =>
    [skill, begins && `from ${shortDayText(begins)}`, ends && `until ${shortDayText(ends)}`]
      .filter(Boolean)
      .join(', '),
  rest: (n: number) => (n === 1 ? '1 person not available' : `${n} people not available`),
  further: (n: number) => `${n} more`,
  given: (who: string, what: string) => `${what} assigned to ${who}`,
  legend: { needed: 'required', placed: 'covered', short: 'short', maybe: 'tentative' },
  contract: (part: number, minutes: number) => `${Math.round(100 * part)} % of ${hours(minutes)} h`,
  beside: (wholeDays: number, unestimated: number) =>
    [
      wholeDays > 0 && `${wholeDays} × whole day`,
      unestimated > 0 && `${unestimated} without an estimate`,
    ]
      .filter(Boolean)
      .join(', '),
  changeThe: (duty: string) => `Edit ${duty}`,
  weekdays: ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'].map((label, at) => ({
    value: at + 1,
    label,
  })),
  forWhat: (duty: string) => `Who can cover ${duty}`,
  asks: (n: number, skills: string[]) => `${n}${having(n, skills)}`,
  gaps: (n: number) => (n === 1 ? '1 short' : `${n} short`),
  clashCount: (n: number) => (n === 1 ? '1 clash' : `${n} clashes`),
  clashes: (n: number) => `Clashes · ${n}`,
  pileUps: (n: number) => `Several due on one day · ${n}`,
  standing: (n: number) => `Accepted · ${n}`,
  around: { WORK: 'work', LEAVE: 'leave', BUSY: 'busy elsewhere' },
  sorts: { WORK: 'private work', LEAVE: 'leave', BUSY: 'busy elsewhere' },
  takes: (what: string) => `Who can take ${what}`,
  handed: (what: string, to: string) => `${what} handed over to ${to}`,
  swaps: (what: string) => `Swaps for ${what}`,
  moreSwaps: (n: number) => `${n} more possible`,
  noSwaps: (n: number) => (n === 1 ? '1 other not possible' : `${n} others not possible`),
  swapped: (what: string, to: string, theirs: string, from: string) =>
    `${what} now goes to ${to}, and ${theirs} to ${from}`,
  stands: (by: string, at: string) => `Accepted by ${by}, ${at}:`,
  suggest: (n: number) => (n === 1 ? 'Suggest cover' : `Suggest cover for all ${n}`),
  giveAll: (n: number) => (n === 1 ? 'Assign 1' : `Assign ${n}`),
  elsewhen: (why: string, fits: boolean) => (fits ? `otherwise ${why}` : why),
  startAt: (day: string, clock: string, why: string) =>
    `Start ${day} ${clock}${why ? ` although ${why}` : ''}`,
  leaves: (name: string) => `Work to reassign from ${name}`,
  handAll: (n: number) => `Hand ${n} over`,
  handedAll: (n: number) => (n === 1 ? '1 handed over' : `${n} handed over`),
  filled: (n: number) => (n === 1 ? '1 assigned' : `${n} assigned`),
  filledInPart: (n: number, of: number, why: string) => `${n} of ${of} assigned: ${why}`,
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

/** How much it would be and what the limits allow, as "(16 h, limit 13 h)". */
function figureText({ why, is, limit }: Reason): string {
  if (is === undefined || limit === undefined) {
    return '';
  }
  const said = (n: number) => (why === 'DAYS' || why === 'NIGHTS' ? String(n) : `${hours(n)} h`);
  return ` (${said(is)}, ${words.limit} ${said(limit)})`;
}

/** Reasons about the whole of it need no time. */
export function reasonText(reason: Reason): string {
  const plain = ['UNKNOWN', 'LEFT', 'SKILL', 'WEEK', 'PERIOD', 'DAYS', 'NIGHTS'];
  const lacks = reason.lacks.map(words.lacks);
  const text =
    [words.reasons[reason.why], ...reason.with].join(' ') +
    (lacks.length > 0 ? `: ${lacks.join(', ')}` : '') +
    figureText(reason);
  return plain.includes(reason.why)
    ? text
    : `${text} ${spanText({ start: reason.start, end: reason.end })}`;
}

/** Whether somebody could take something, in a few words. */
export function takerText({ verdict, reasons }: Answer): string {
  // What rules them out is said first.
  const byWeight = [...reasons].sort((a, b) => Number(b.never) - Number(a.never));
  const why = [
    ...new Set(byWeight.map((one) => [words.reasons[one.why], ...one.with].join(' '))),
  ].join(', ');
  return verdict === 'YES' ? words.free : verdict === 'NO' ? `${words.cannot}: ${why}` : why;
}

/** What speaks against a swap, of each of the two. */
export function againstText({ name, theirs, ours }: Swap, us: string): string {
  const of = (who: string, reasons: Reason[]) =>
    reasons.length > 0 ? [`${who}: ${reasons.map((why) => reasonText(why)).join(', ')}`] : [];
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

/** When it is, and on which sides it is longer than that. */
export function gapWhen(gap: Gap, zone: string): string {
  const longer = [gap.beganBefore && words.beganBefore, gap.goesOn && words.goesOn].filter(Boolean);
  return gapText(gap.start, gap.end, zone) + (longer.length > 0 ? ` (${longer.join(', ')})` : '');
}

export function gapKey(gap: Gap): string {
  return `${gap.ask}@${gap.start}`;
}
