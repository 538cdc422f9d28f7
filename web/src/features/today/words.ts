import text from './words.json';

/** Everything Today says. */
export const words = {
  ...text,
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
  more: (n: number) => (n === 1 ? '1 more' : `${n} more`),
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
  notSeenBy: (name: string) => `${name} has not acknowledged this`,
  finished: (ref: string) => `${ref} finished`,
  given: (ref: string, name: string) => `${ref} assigned to ${name}`,
  done: (ref: string) => `${ref} reopened`,
  of: (n: number) => (n > 99 ? '100 or more' : String(n)),
};
