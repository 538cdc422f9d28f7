import { addDays, daysBetween, today, type Due } from '../../shared/time';
import type { DeadlineSet, Step } from './queries';

/** The day of a due time where it is. */
export function dayOf(due: Due | undefined): string | undefined {
  return due ? (due.date ?? due.at?.slice(0, 10)) : undefined;
}

/** By what a moment sorts: a day alone stands at its end. */
export function rank(due: Due | undefined): string {
  return due ? (due.at ?? due.date + 'T99') : '9999';
}

/** Steps in the order of time, those without a date last. */
export function inTime(steps: Step[]): Step[] {
  return [...steps].sort((one, other) => (rank(one.date) < rank(other.date) ? -1 : 1));
}

export const isOpen = (step: Step) => step.date !== undefined && step.standing !== 'DONE';

/** What is to be done next of a set; what is overdue goes before. */
export function next(set: DeadlineSet): Step | undefined {
  return inTime(set.steps).find(isOpen);
}

export const isLate = (set: DeadlineSet) => set.steps.some((step) => step.late);

/** Steps that have yet to get a date. */
export const undated = (set: DeadlineSet) =>
  set.steps.filter((step) => step.standing === 'PENDING' || step.standing === 'NO_DATE');

export type Which = 'all' | 'late' | 'soon' | 'undated' | 'offered';

/** How far ahead is soon. */
const SOON_DAYS = 14;

export function isOf(which: Which, set: DeadlineSet): boolean {
  switch (which) {
    case 'late':
      return isLate(set);
    case 'soon': {
      const day = dayOf(next(set)?.date);
      return day !== undefined && day >= today() && daysBetween(today(), day) <= SOON_DAYS;
    }
    case 'undated':
      return undated(set).length > 0;
    case 'offered':
      return set.offer !== undefined;
    default:
      return true;
  }
}

export const WHICH: Which[] = ['all', 'late', 'soon', 'undated', 'offered'];

/** Whether all words stand somewhere in it. */
export function holds(set: DeadlineSet, find: string): boolean {
  const text = [
    set.name,
    set.keyDateName,
    set.work?.ref,
    set.work?.title,
    set.place?.name,
    ...set.steps.flatMap((step) => [step.name, ...(step.people ?? [])]),
  ]
    .filter(Boolean)
    .join(' ')
    .toLowerCase();
  return find
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}

export type Fold = 'none' | 'chain' | 'place' | 'team' | 'person';

/** Who has something of it still to do, each once. */
const holders = (set: DeadlineSet) => [
  ...new Set(set.steps.filter(isOpen).flatMap((step) => step.people ?? [])),
];

/** Under which names a set stands; a set stands under each of its people and teams. */
function namesOf(fold: Fold, set: DeadlineSet, teams: Set<string>): string[] {
  switch (fold) {
    case 'chain':
      return [set.name ?? ''];
    case 'place':
      return [set.place?.name ?? ''];
    case 'team':
      return holders(set).filter((name) => teams.has(name));
    case 'person':
      return holders(set).filter((name) => !teams.has(name));
    default:
      return [''];
  }
}

export interface Folded {
  name: string;
  sets: DeadlineSet[];
}

/**
 * Sets by what is next, those with nothing left last, under their names.
 *
 * @param teams what the teams of the house are called
 */
export function folded(fold: Fold, sets: DeadlineSet[], teams: Set<string>): Folded[] {
  const byNext = [...sets].sort((one, other) =>
    rank(next(one)?.date) < rank(next(other)?.date) ? -1 : 1,
  );
  const found = new Map<string, DeadlineSet[]>();
  byNext.forEach((set) => {
    const names = namesOf(fold, set, teams);
    // Whoever has nothing of it: it stands there all the same.
    (names.length > 0 ? names : ['']).forEach((name) =>
      found.set(name, [...(found.get(name) ?? []), set]),
    );
  });
  return [...found]
    .map(([name, all]) => ({ name, sets: all }))
    .sort((one, other) => one.name.localeCompare(other.name));
}

/** A stretch of days that is drawn. */
export interface Stretch {
  from: string;
  days: number;
}

export const ZOOMS = [84, 182, 364];

export function stretchOf(from: string | null, days: number): Stretch {
  return { from: from ?? addDays(today(), -Math.round(days / 9)), days };
}

/** Where a day lies in a stretch, in hundredths; outside where it is not in it. */
export function at(stretch: Stretch, due: Due | undefined): number | undefined {
  const day = dayOf(due);
  if (!day) {
    return undefined;
  }
  const clock = due?.at ? Number(due.at.slice(11, 13)) / 24 : 0.5;
  return ((daysBetween(stretch.from, day) + clock) / stretch.days) * 100;
}

/** The first days of the months in a stretch. */
export function months(stretch: Stretch): string[] {
  const found: string[] = [];
  let [year, month] = stretch.from.split('-').map(Number) as [number, number];
  for (;;) {
    month += 1;
    if (month > 12) {
      month = 1;
      year += 1;
    }
    const day = `${year}-${String(month).padStart(2, '0')}-01`;
    if (daysBetween(stretch.from, day) >= stretch.days) {
      return found;
    }
    found.push(day);
  }
}
