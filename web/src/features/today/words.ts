import type { Schemas } from '../../shared/api/client';
import text from './words.json';

/** Everything Today says. */
export const words = {
  ...text,
  allOf: (list: string) => `Edit all: ${list}`,
  steps: {
    people: {
      name: 'Your people',
      why: 'everybody who works here; each person has a calendar from the first day',
    },
    teams: { name: 'A team', why: 'its members get the team’s work on their calendars' },
    places: { name: 'A place', why: 'where work is done; each place has a calendar too' },
    rules: {
      name: 'Landing rules',
      why: 'which work lands on which calendars; suggested rules already apply',
    },
    record: {
      name: 'The first ticket',
      why: 'type it in one line; the form shows where it will land',
    },
  },
  yesToAll: (n: number) => `Approve all ${n}`,
  released: (n: number) => (n === 1 ? '1 entry approved' : `${n} entries approved`),
  isNew: (when: string) => `new, ${when}`,
  theyHave: (readers: string) => `${readers} now`,
  parts: {
    title: 'title',
    place: 'place',
    text: 'text',
    busy: 'busy or free',
    invited: 'guests',
    reminders: 'reminders',
  },
  giveTo: (what: string) => `Assign ${what} to`,
  skillEnds: (skill: string, last: string, touched: number, first: string | undefined) =>
    `${skill} until ${last}` +
    (touched > 0 ? `; ${touched} of their later works need it, the first on ${first ?? ''}` : ''),
  tellHow: [
    { how: 'PHONE', label: 'told by phone' },
    { how: 'IN_PERSON', label: 'told in person' },
    { how: 'MESSAGE', label: 'told by message' },
    { how: 'PAPER', label: 'told on paper' },
  ] satisfies { how: Schemas['ToldOf']['how']; label: string }[],
  notSeen: (people: string[], unseen: string[]) =>
    people.length === unseen.length
      ? `${people.join(', ')} (not acknowledged)`
      : `${people.join(', ')} (not acknowledged by ${unseen.join(', ')})`,
  finished: (ref: string) => `${ref} finished`,
  given: (ref: string, name: string) => `${ref} assigned to ${name}`,
  done: (ref: string) => `${ref} reopened`,
  of: (n: number) => (n > 99 ? '100 or more' : String(n)),
};
