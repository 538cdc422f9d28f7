import type { QueryClient } from '@tanstack/react-query';

/** Under what each reading is kept; a shorter key means all that begin with it. */
export const keys = {
  session: ['session'],
  invitation: (token: string) => ['invitation', token],

  people: ['people'],
  places: ['places'],
  teams: ['teams'],
  roles: ['roles'],
  details: ['details'],
  calendars: ['calendars'],
  calendarWeek: ['calendars', 'week'],
  house: ['house'],
  regions: ['regions'],
  settled: ['settled'],
  skills: (person: number) => ['skills', person],
  times: (person: number) => ['times', person],
  ownTimes: ['my-times'],
  limits: ['limits'],
  margins: ['margins'],
  placeTerms: ['place-terms'],
  placeTermsOf: (place: number) => ['place-terms', place],
  workedDays: (place: number | null) => ['worked-days', place ?? 'house'],

  records: ['records'],
  recordList: (wish: object) => ['records', wish],
  anyRecord: ['records', 'any'],
  recordsFound: (find: string, state: string) => ['records-found', find, state],
  reading: (line: string) => ['reading', line],
  record: (id: number | null) => ['record', id],
  facets: (query: object) => ['records', 'facets', query],
  entryHome: (entry: string) => ['open', entry],
  landings: (id: number) => ['record', id, 'landings'],
  history: (id: number) => ['record', id, 'history'],
  preview: (change: object) => ['preview', change],
  manyLook: (items: unknown) => ['many-look', items],
  views: ['views'],
  releases: ['releases'],
  board: ['board'],
  boardOf: (from: string, until: string, calendars: number[]) => ['board', from, until, calendars],
  today: ['today'],
  myDay: ['my-day'],
  fileLook: (sent: unknown) => ['file-look', sent],

  sight: (record: number | null) => ['sight', record],
  houseMap: ['house-map'],
  audit: (by: string, value: string | null) => ['audit', by, value],
  rules: ['rules'],
  rulesWork: ['rules-work'],
  rulesTry: (set: unknown) => ['rules-try', set],
  rulesLook: (looked: unknown) => ['rules-look', looked],

  cover: ['cover'],
  coverOf: (from: string, until: string) => ['cover', from, until],
  coverPart: (part: string, ...of: unknown[]) => ['cover', part, ...of],
  daysOff: (from: string, until: string) => ['days-off', from, until],
  duties: ['duties'],

  deadlineSets: ['deadline-sets'],
  deadlineSet: (id: number | null) => ['deadline-sets', id],
  setsAround: (record: number) => ['deadline-sets', 'around', record],
  deadlineLook: (sets: unknown) => ['deadline-look', sets],
  chains: ['chains'],
  methods: ['methods'],
  chainTrial: (tried: unknown) => ['chain-trial', tried],

  copies: ['copies'],
  copiesOf: (record: number) => ['copies', record],
  copiesWaiting: ['copies', 'waiting'],
  copiesHeld: ['copies-held'],
  outsideChanges: ['outside-changes'],
  links: ['links'],
  decided: ['links', 'decided'],
  standing: (link: number) => ['links', link, 'standing'],

  appPasswords: ['app-passwords'],
  sessions: ['sessions'],
  feeds: ['feeds'],
  shares: ['shares'],
  ownTitle: ['own-title'],
};

const TOLD_OF_RECORDS = [
  keys.records,
  keys.board,
  keys.today,
  keys.myDay,
  keys.releases,
  keys.copies,
  keys.cover,
  keys.deadlineSets,
];

/** Has all read again that tells of a record, or of any. */
export function recordChanged(queries: QueryClient, id?: number) {
  for (const queryKey of [id === undefined ? ['record'] : keys.record(id), ...TOLD_OF_RECORDS]) {
    void queries.invalidateQueries({ queryKey });
  }
}
