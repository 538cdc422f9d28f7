import type { Schemas } from '../../shared/api/client';
import { nowMoment } from '../../shared/time';

export type MyDay = Schemas['MyDay'];
export type Mark = Schemas['RecordChange'];

/** What was last fetched, and when; shown while there is no network. */
export interface Kept {
  at: number;
  day: MyDay;
}

/** A tick or note that waits to be sent; under its key it is done once, however often it is sent. */
export interface Waiting {
  key: string;
  record: number;
  change: Mark;
  /** Why the server refused it; kept until somebody has read it. */
  refused?: string;
}

const DAY = 'my-day:';
const OUT = 'my-day-out:';

function read<T>(key: string): T | null {
  const text = localStorage.getItem(key);
  if (text === null) {
    return null;
  }
  try {
    return JSON.parse(text) as T;
  } catch {
    localStorage.removeItem(key);
    return null;
  }
}

export function keepDay(person: number, day: MyDay): void {
  localStorage.setItem(DAY + person, JSON.stringify({ at: nowMoment(), day } satisfies Kept));
}

export const keptDay = (person: number) => read<Kept>(DAY + person);

export const waitingOf = (person: number) => read<Waiting[]>(OUT + person) ?? [];

export function keepWaiting(person: number, waiting: Waiting[]): void {
  localStorage.setItem(OUT + person, JSON.stringify(waiting));
}

/** The day as it will be when all that waits has been sent. */
export function withMarks(day: MyDay, waiting: Waiting[]): MyDay {
  return {
    ...day,
    // A day that was kept before there was such a thing has none.
    lost: (day as Partial<MyDay>).lost ?? [],
    work: day.work.map((record) => {
      const mine = waiting.filter((w) => w.record === record.id && !w.refused);
      return mine.reduce<typeof record>(
        (now, { change }) => ({
          ...now,
          ...(change.state && { state: change.state as typeof now.state }),
          ...(change.started !== undefined && { started: change.started }),
          ...(change.cant !== undefined && { cant: change.cant }),
        }),
        record,
      );
    }),
  };
}

/** Takes everything of everybody off this device, as when somebody signs out. */
export function forgetDays(): void {
  Object.keys(localStorage)
    .filter((key) => key.startsWith(DAY) || key.startsWith(OUT))
    .forEach((key) => localStorage.removeItem(key));
}
