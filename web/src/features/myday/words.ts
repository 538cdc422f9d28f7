import text from './words.json';

/** Everything My day says. */
export const words = {
  ...text,
  tabs: [
    { key: 'day', label: 'My day' },
    { key: 'weeks', label: 'Two weeks' },
    { key: 'times', label: 'Hours and leave' },
  ] as const,
  without: (since: string) =>
    `No connection. You see your day as of ${since}. Anything you mark is kept and sent later.`,
  waits: (n: number) =>
    n === 1 ? '1 change waiting to be sent' : `${n} changes waiting to be sent`,
  changed: (n: number) => `Changed · ${n} to acknowledge`,
  places: (n: number) => (n === 1 ? '1 place' : `${n} places`),
  with: (names: string) => `with ${names}`,
  leads: (name: string) => `${name}, lead`,
  weekdays: ['', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'],
  left: (hours: number) => (hours < 1 ? 'under 1 h left' : `${Math.floor(hours)} h left`),
};
