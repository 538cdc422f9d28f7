import type { Schemas } from '../api/client';

/** What every look first says. */
export const words = {
  heading: 'What this will do',
  doIt: 'Do it',
  leave: 'Leave it as it is',
  nothing: 'Nothing changes on any calendar.',
  added: 'added',
  changed: 'changed',
  takenOff: 'taken off',
  calendar: 'Calendar',
  shown: 'Newly shown',
  shownNone: 'Nothing is newly shown to anybody.',
  hidden: 'Seen no longer',
  hiddenNone: 'Nothing is hidden from anybody.',
  readersHeading: 'For others than now, on our screens too',
  warningsHeading: 'To know',
  endsHeading: 'Ends with them',
  ends: {
    FEED: (label: string, calendar: string) => `Secret address “${label}” of ${calendar}`,
    SHARE: (_: string, calendar: string, reader: string) => `${calendar}, shared with ${reader}`,
    LINK: () => 'A linked calendar of theirs',
    APP_PASSWORD: () => 'An app password',
  } satisfies Record<
    Schemas['EndsWith']['sort'],
    (label: string, calendar: string, reader: string) => string
  >,
  anew: 'make a new one in my name',
  madeHeading: 'New addresses',
  once: 'Copy them now: each is shown this once.',
  close: 'Close',
  to: (detail: string, entries: number) =>
    `${detail} of ${entries.toLocaleString('en-GB')} ${entries === 1 ? 'entry' : 'entries'}`,
  readersOf: (before: string, after: string, records: number) =>
    `${before} → ${after}, on ${records.toLocaleString('en-GB')} ${records === 1 ? 'record' : 'records'}`,
  waits: (n: number) =>
    `${n.toLocaleString('en-GB')} ${n === 1 ? 'entry' : 'entries'} will wait for a yes; until then readers keep what they have.`,
};
