import type { Schemas } from '../../shared/api/client';
import text from './words.json';

/** What the page of copies and links says. */
export const words = {
  ...text,
  parts: {
    TIMES: 'When',
    TITLE: 'Title',
    PLACE: 'Place',
    TEXT: 'Text',
    NOTE: 'Note added',
    DELETED: 'Removed there',
    REPEATS: 'Set to repeat',
  } satisfies Record<Schemas['OutsideChange']['part'], string>,
  states: {
    TAKEN: 'accepted',
    PUT_BACK: 'restored',
    SETTLED: 'no longer needed',
    PROPOSED: 'to decide',
  } satisfies Record<Schemas['OutsideChange']['state'], string>,
  steps: ['Link an account', 'Choose calendars', 'Preview', 'Test'],
  stepOf: (n: number, of: number) => `step ${n} of ${of}`,
  families: [
    { value: 'WORK', label: 'work' },
    { value: 'GIVEN_DUE', label: 'given → due' },
    { value: 'DUE', label: 'due times' },
  ],
  wouldSend: (n: number) =>
    n === 0
      ? 'Nothing to copy yet.'
      : n === 1
        ? '1 copy will be sent.'
        : `${n} copies will be sent, soonest work first.`,
  wouldRead: (n: number) =>
    n === 1
      ? '1 entry there; only its time is read.'
      : `${n} entries there; only their times are read.`,
  more: (n: number) => `and ${n} more`,
  at: (place: string) => `Place: ${place}`,
  decidedBy: {
    LOCK: 'The organisation decides where your work is copied.',
    PERSON: 'You decide where your work is copied.',
    DEFAULT: 'Your work is copied where the organisation copies it, until you link a calendar.',
    HELD: '',
  } satisfies Record<Schemas['LinkDecided']['by'], string>,
  shows: (what: string[]) => `still shows ${what.join(', ')}`,
  replace: (what: string[]) => `change ${what.join(', ')} if that applies`,
  unknownBusy: (names: string[]) =>
    names.length > 3
      ? `Busy time of ${names.length} people is not known`
      : `Busy time of ${names.join(', ')} is not known`,
  alsoOptions: [
    { value: 'UNSAID', label: 'unknown: show what external readers may see' },
    { value: 'NOBODY', label: 'nobody else' },
    { value: 'PEOPLE', label: 'these people' },
    { value: 'OTHERS', label: 'others' },
  ] as { value: 'UNSAID' | 'NOBODY' | 'PEOPLE' | 'OTHERS'; label: string }[],
  refused: (n: number) => (n === 1 ? '1 copy refused' : `${n} copies refused`),
  elsewhere: (address: string) => `Use ${address}`,
  standsThere: (n: number) =>
    n === 1 ? '1 of our entries is still there' : `${n} of our entries are still there`,
  held: (n: number) =>
    `This organisation was restored from a backup. Nothing is sent until you confirm. ${n} copies are waiting; each calendar is checked before anything is sent.`,
  proven: (asSent: boolean) => (asSent ? 'as sent' : 'different'),
  since: (when: string) => `Since ${when}: `,
  readAt: (when: string) => `checked ${when}`,
  counts: (sent: number, open: number) =>
    `${sent} ${sent === 1 ? 'copy' : 'copies'} there` + (open > 0 ? `, ${open} pending` : ''),
  toTakeOff: (n: number) => (n === 1 ? '1 copy to remove' : `${n} copies to remove`),
  copyCount: (n: number) => (n === 1 ? '1 copy' : `${n} copies`),
  goesOut: (changes: number, calendars: number, seconds: number) =>
    `${changes === 1 ? '1 change goes' : `${changes} changes go`} out to ` +
    `${calendars === 1 ? '1 calendar' : `${calendars} calendars`} in ${seconds} s`,
  todayAsks: (n: number) =>
    n === 1
      ? '1 change in somebody’s calendar to decide'
      : `${n} changes in people’s calendars to decide`,
  todayRefused: (n: number) => (n === 1 ? '1 copy was refused' : `${n} copies were refused`),
  todayStill: (n: number) =>
    n === 1
      ? '1 copy should be removed but is still there'
      : `${n} copies should be removed but are still there`,
  todayTrouble: (n: number) =>
    n === 1 ? '1 copy waits for a server in trouble' : `${n} copies wait for servers in trouble`,
};
