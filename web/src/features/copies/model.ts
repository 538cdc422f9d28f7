import type { Schemas } from '../../shared/api/client';
import { momentText } from '../../shared/time';
import type { useLinkDeeds } from './queries';

export type Change = Schemas['OutsideChange'];
export type Link = Schemas['Link'];
export type Found = Schemas['FoundCalendar'];
export type LookedAt = Schemas['LinkLook'];
export type Proved = Schemas['LinkProof'];
type Deeds = ReturnType<typeof useLinkDeeds>;
export type Tried = Deeds['tryIt'];
export type Looked = Deeds['look'];
export type Adding = Deeds['add'];

/** What one of the account's calendars is wanted for. */
export interface Wish {
  writes: number | null;
  families: string[];
  alsoRead: 'UNSAID' | 'NOBODY' | 'OTHERS' | 'PEOPLE';
  people: number[];
  readsBusy: boolean;
}

export const NOTHING: Wish = {
  writes: null,
  families: [],
  alsoRead: 'UNSAID',
  people: [],
  readsBusy: false,
};

/** A wish as it is asked for; work that ended before the day is not sent. */
export function bodyOf(one: Found, wish: Wish, from: string): Schemas['LinkedCalendarWish'] {
  return {
    href: one.href,
    ...(wish.writes !== null && { writes: wish.writes }),
    ...(from && { from }),
    families: wish.families,
    alsoRead: wish.alsoRead,
    ...(wish.alsoRead === 'PEOPLE' && { people: wish.people }),
    readsBusy: wish.readsBusy,
  };
}

/** A change's value as people read it; times are two moments with a stroke between. */
export function valueText(part: string, value: string): string {
  if (part !== 'TIMES' || !value.includes('/')) {
    return value || '—';
  }
  const [from, to] = value.replace(/\[[^\]]*\]/g, '').split('/');
  if (!value.includes('T')) {
    return `${from} – ${to}`;
  }
  const [begins, ends] = [momentText(from ?? ''), momentText(to ?? '')];
  const [day] = begins.split(', ');
  return `${begins} – ${ends.startsWith(day + ', ') ? ends.slice((day + ', ').length) : ends}`;
}
