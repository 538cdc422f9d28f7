import type { Schemas } from '../api/client';

/** What every preview says. */
export const words = {
  heading: 'Preview',
  doIt: 'Apply',
  leave: 'Cancel',
  nothing: 'No calendar changes.',
  added: 'added',
  changed: 'changed',
  takenOff: 'removed',
  calendar: 'Calendar',
  shown: 'Becomes visible',
  shownNone: 'Nobody sees anything new.',
  hidden: 'Becomes hidden',
  hiddenNone: 'Nothing becomes hidden from anybody.',
  readersHeading: 'Visible to different people from now on, in this app too',
  warningsHeading: 'Please note',
  endsHeading: 'Ends with this',
  ends: {
    FEED: (label: string, calendar: string) => `Secret address “${label}” of ${calendar}`,
    SHARE: (_: string, calendar: string, reader: string) => `${calendar}, shared with ${reader}`,
    LINK: () => 'A linked calendar',
    APP_PASSWORD: () => 'An app password',
  } satisfies Record<
    Schemas['EndsWith']['sort'],
    (label: string, calendar: string, reader: string) => string
  >,
  anew: 'make a new one in my name',
  madeHeading: 'New addresses',
  once: 'Copy these addresses now. Each is shown only once.',
  close: 'Close',
  to: (detail: string, entries: number) =>
    `${detail} of ${entries.toLocaleString('en-GB')} ${entries === 1 ? 'entry' : 'entries'}`,
  readersOf: (before: string, after: string, records: number) =>
    `${before} → ${after}, on ${records.toLocaleString('en-GB')} ${records === 1 ? 'record' : 'records'}`,
  waits: (n: number) =>
    `${n.toLocaleString('en-GB')} ${n === 1 ? 'entry' : 'entries'} will await approval. Until then readers keep the present version.`,
};
