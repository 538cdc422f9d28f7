import type { Schemas } from '../api/client';
import text from './words.json';

/** What every preview says. */
export const words = {
  ...text,
  ends: {
    FEED: (label: string, calendar: string) => `Secret address “${label}” of ${calendar}`,
    SHARE: (_: string, calendar: string, reader: string) => `${calendar}, shared with ${reader}`,
    LINK: () => 'A linked calendar',
    APP_PASSWORD: () => 'An app password',
  } satisfies Record<
    Schemas['EndsWith']['sort'],
    (label: string, calendar: string, reader: string) => string
  >,
  to: (detail: string, entries: number) =>
    `${detail} of ${entries.toLocaleString('en-GB')} ${entries === 1 ? 'entry' : 'entries'}`,
  readersOf: (before: string, after: string, records: number) =>
    `${before} → ${after}, on ${records.toLocaleString('en-GB')} ${records === 1 ? 'record' : 'records'}`,
  waits: (n: number) =>
    `${n.toLocaleString('en-GB')} ${n === 1 ? 'entry' : 'entries'} will await approval. Until then readers keep the present version.`,
};
