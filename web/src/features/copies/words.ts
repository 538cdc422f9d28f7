import type { Schemas } from '../../shared/api/client';

/** What the page of copies and links says. */
export const words = {
  heading: 'Copies',
  why: 'What stands of Mellow Rota in calendars that people have elsewhere.',
  loading: 'Looking at the copies',
  changed: 'Changed in their calendar',
  changedWhy: 'Nothing there is overwritten before somebody decides.',
  sent: 'We sent',
  theirs: 'There now',
  take: 'Take it',
  putBack: 'Put it back',
  letOff: 'Leave it off',
  taken: 'Taken into the record',
  wasPutBack: 'It is put back there',
  parts: {
    TIMES: 'When',
    TITLE: 'Title',
    PLACE: 'Place',
    TEXT: 'Text',
    NOTE: 'Note added',
    DELETED: 'Taken off there',
    REPEATS: 'Made to repeat',
  } satisfies Record<Schemas['OutsideChange']['part'], string>,
  earlier: 'Settled',
  states: {
    TAKEN: 'came into the record',
    PUT_BACK: 'put back',
    SETTLED: 'overtaken',
    PROPOSED: 'asks',
  } satisfies Record<Schemas['OutsideChange']['state'], string>,
  links: 'Linked accounts',
  noLinks: 'No account is linked yet',
  noLinksWhy:
    'Link the calendar you already use: your work is then copied there, and kept true. The account needs CalDAV and, best, a password made for this alone.',
  link: 'Link an account',
  steps: ['Link an account', 'What its calendars are for', 'Look first', 'A proof'],
  stepOf: (n: number, of: number) => `step ${n} of ${of}`,
  back: 'Back',
  lookFirst: 'Look first',
  done: 'Done',
  proving: 'Writing a test entry there',
  onlyRead: 'Linked. Nothing is written there; busy time is read.',
  from: 'Work that ended before this day is not sent (today unless you say)',
  takes: 'What it takes',
  everything: 'everything',
  families: [
    { value: 'WORK', label: 'work' },
    { value: 'GIVEN_DUE', label: 'given → due' },
    { value: 'DUE', label: 'due times' },
  ],
  whichPeople: 'Who are they?',
  wouldSend: (n: number) =>
    n === 0
      ? 'Nothing would be written yet.'
      : n === 1
        ? '1 copy would be written.'
        : `${n} copies would be written, the nearest first.`,
  wouldRead: (n: number) =>
    n === 1
      ? '1 entry stands there; only its times are read.'
      : `${n} entries stand there; only their times are read.`,
  more: (n: number) => `and ${n} more`,
  at: (place: string) => `Place: ${place}`,
  stop: 'Stop',
  stopped: 'stopped',
  overruled: 'written elsewhere now',
  lockedWhy:
    'Where people’s work is copied is decided by the house, for all. Busy time can be read all the same.',
  decidedBy: {
    LOCK: 'Where your work is copied is decided by the house, for all.',
    PERSON: 'You decide where your work is copied.',
    DEFAULT: 'Your work is copied where the house copies it, since you have said nothing else.',
    HELD: '',
  } satisfies Record<Schemas['LinkDecided']['by'], string>,
  still: 'Should be off, and still stands there',
  stillWhy:
    'It was asked off and nobody has confirmed it yet. What stands there can still be read there.',
  shows: (what: string[]) => `still shows ${what.join(', ')}`,
  replace: (what: string[]) => `replace ${what.join(', ')}, if there is any`,
  unknownBusy: (names: string[]) =>
    names.length > 3
      ? `Busy time of ${names.length} people is not known`
      : `Busy time of ${names.join(', ')} is not known`,
  address: 'Address, host or mail address',
  user: 'User name there',
  password: 'Password made for this',
  house: 'For the house, not for me',
  tryIt: 'Look',
  writes: 'Write here',
  nothing: 'nothing',
  also: 'Who else reads it?',
  alsoOptions: [
    { value: 'UNSAID', label: 'not said: it shows what outside may see' },
    { value: 'NOBODY', label: 'nobody else' },
    { value: 'PEOPLE', label: 'these people do' },
    { value: 'OTHERS', label: 'others do' },
  ] as { value: 'UNSAID' | 'NOBODY' | 'PEOPLE' | 'OTHERS'; label: string }[],
  reads: 'Read busy time',
  mayNot: 'cannot be written to',
  ofOthers: 'Others who are linked',
  well: 'well',
  refused: (n: number) => (n === 1 ? '1 copy refused' : `${n} copies refused`),
  elsewhere: (address: string) => `Use ${address}`,
  standsThere: (n: number) =>
    n === 1 ? '1 entry of ours still stands there' : `${n} entries of ours still stand there`,
  leave: 'End it anyway',
  leaveWhy: 'What stands there is left there, and nobody here can take it off any more.',
  held: (n: number) =>
    `This house was restored from a backup. Nothing is sent until you say so: ${n} copies would go out, and what stands there is looked at first.`,
  goOn: 'Go on',
  save: 'Link it',
  cancel: 'Cancel',
  end: 'End',
  endWhy: 'What stands there of ours is taken off first.',
  ending: 'being ended',
  again: 'Read now',
  prove: 'Try it with a test entry',
  proven: (asSent: boolean) => (asSent ? 'as sent' : 'otherwise'),
  since: (when: string) => `Since ${when}: `,
  readAt: (when: string) => `read ${when}`,
  neverRead: 'not read yet',
  counts: (sent: number, open: number) =>
    `${sent} ${sent === 1 ? 'copy' : 'copies'} there` + (open > 0 ? `, ${open} on the way` : ''),
  toTakeOff: (n: number) => (n === 1 ? '1 copy to take off' : `${n} copies to take off`),
  busy: 'busy time is read',
  copies: 'On their way, or in trouble',
  sendNow: 'Send now',
  copyCount: (n: number) => (n === 1 ? '1 copy' : `${n} copies`),
  goesOut: (changes: number, calendars: number, seconds: number) =>
    `${changes === 1 ? '1 change goes' : `${changes} changes go`} out to ` +
    `${calendars === 1 ? '1 calendar' : `${calendars} calendars`} in ${seconds} s`,
  none: 'Every copy stands as it should.',
  todayAsks: (n: number) =>
    n === 1 ? '1 change in somebody’s calendar asks' : `${n} changes in people’s calendars ask`,
  todayRefused: (n: number) => (n === 1 ? '1 copy was refused' : `${n} copies were refused`),
  todayStill: (n: number) =>
    n === 1
      ? '1 copy should be off and still stands there'
      : `${n} copies should be off and still stand there`,
  todayTrouble: (n: number) =>
    n === 1 ? '1 copy waits for a host that is not well' : `${n} copies wait for hosts not well`,
};
