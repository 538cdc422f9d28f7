import type { Schemas } from '../../shared/api/client';

/** What the page of copies and links says. */
export const words = {
  heading: 'Copies',
  why: 'Entries that Mellow Rota keeps in people’s own calendars elsewhere.',
  loading: 'Loading the copies…',
  changed: 'Changed in their calendar',
  changedWhy: 'Nothing is overwritten until somebody decides.',
  sent: 'We sent',
  theirs: 'Now there',
  take: 'Accept the change',
  putBack: 'Restore ours',
  letOff: 'Keep it removed',
  taken: 'Change accepted',
  wasPutBack: 'Ours is being restored',
  parts: {
    TIMES: 'When',
    TITLE: 'Title',
    PLACE: 'Place',
    TEXT: 'Text',
    NOTE: 'Note added',
    DELETED: 'Removed there',
    REPEATS: 'Set to repeat',
  } satisfies Record<Schemas['OutsideChange']['part'], string>,
  earlier: 'Resolved',
  states: {
    TAKEN: 'accepted',
    PUT_BACK: 'restored',
    SETTLED: 'no longer needed',
    PROPOSED: 'to decide',
  } satisfies Record<Schemas['OutsideChange']['state'], string>,
  links: 'Linked accounts',
  noLinks: 'No account is linked yet',
  noLinksWhy:
    'Link the calendar you already use. Your work is then copied there and kept up to date. The account must support CalDAV; use an app password if it offers one.',
  link: 'Link an account',
  steps: ['Link an account', 'Choose calendars', 'Preview', 'Test'],
  stepOf: (n: number, of: number) => `step ${n} of ${of}`,
  back: 'Back',
  lookFirst: 'Preview',
  done: 'Done',
  proving: 'Sending a test entry…',
  onlyRead: 'Linked. Only busy time is read; nothing is written.',
  from: 'Leave out work that ended before (today if empty)',
  takes: 'Which work',
  everything: 'everything',
  families: [
    { value: 'WORK', label: 'work' },
    { value: 'GIVEN_DUE', label: 'given → due' },
    { value: 'DUE', label: 'due times' },
  ],
  whichPeople: 'Which people?',
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
  stop: 'Stop',
  stopped: 'stopped',
  overruled: 'copied elsewhere now',
  lockedWhy: 'The organisation decides where people’s work is copied. Busy time can still be read.',
  decidedBy: {
    LOCK: 'The organisation decides where your work is copied.',
    PERSON: 'You decide where your work is copied.',
    DEFAULT: 'Your work is copied where the organisation copies it, until you link a calendar.',
    HELD: '',
  } satisfies Record<Schemas['LinkDecided']['by'], string>,
  still: 'Should be removed, but still there',
  stillWhy:
    'The other calendar has not confirmed the removal, so the copy can still be read there.',
  shows: (what: string[]) => `still shows ${what.join(', ')}`,
  replace: (what: string[]) => `change ${what.join(', ')} if that applies`,
  unknownBusy: (names: string[]) =>
    names.length > 3
      ? `Busy time of ${names.length} people is not known`
      : `Busy time of ${names.join(', ')} is not known`,
  address: 'Address, server or email address',
  user: 'User name',
  password: 'App password',
  house: 'For the organisation, not for me',
  tryIt: 'Continue',
  writes: 'Copy here',
  nothing: 'nothing',
  also: 'Who else reads it?',
  alsoOptions: [
    { value: 'UNSAID', label: 'unknown: show what external readers may see' },
    { value: 'NOBODY', label: 'nobody else' },
    { value: 'PEOPLE', label: 'these people' },
    { value: 'OTHERS', label: 'others' },
  ] as { value: 'UNSAID' | 'NOBODY' | 'PEOPLE' | 'OTHERS'; label: string }[],
  reads: 'Read busy time',
  mayNot: 'read-only',
  ofOthers: 'Links of other people',
  well: 'working',
  refused: (n: number) => (n === 1 ? '1 copy refused' : `${n} copies refused`),
  elsewhere: (address: string) => `Use ${address}`,
  standsThere: (n: number) =>
    n === 1 ? '1 of our entries is still there' : `${n} of our entries are still there`,
  leave: 'Unlink anyway',
  leaveWhy: 'Our entries stay there, and can no longer be removed from here.',
  held: (n: number) =>
    `This organisation was restored from a backup. Nothing is sent until you confirm. ${n} copies are waiting; each calendar is checked before anything is sent.`,
  goOn: 'Start sending',
  save: 'Link',
  cancel: 'Cancel',
  end: 'Unlink',
  endWhy: 'Our entries are removed there first.',
  ending: 'being unlinked',
  again: 'Check now',
  prove: 'Send a test entry',
  proven: (asSent: boolean) => (asSent ? 'as sent' : 'different'),
  since: (when: string) => `Since ${when}: `,
  readAt: (when: string) => `checked ${when}`,
  neverRead: 'not checked yet',
  counts: (sent: number, open: number) =>
    `${sent} ${sent === 1 ? 'copy' : 'copies'} there` + (open > 0 ? `, ${open} pending` : ''),
  toTakeOff: (n: number) => (n === 1 ? '1 copy to remove' : `${n} copies to remove`),
  busy: 'busy time is read',
  copies: 'Pending and failed',
  sendNow: 'Send now',
  copyCount: (n: number) => (n === 1 ? '1 copy' : `${n} copies`),
  goesOut: (changes: number, calendars: number, seconds: number) =>
    `${changes === 1 ? '1 change goes' : `${changes} changes go`} out to ` +
    `${calendars === 1 ? '1 calendar' : `${calendars} calendars`} in ${seconds} s`,
  none: 'All copies are up to date.',
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
