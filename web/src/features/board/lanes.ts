import type { Schemas } from '../../shared/api/client';
import { dayStart } from '../../shared/time';
import { INFORMED } from '../records';
import { dayAt, type Days } from './days';
import { busyOf, emptiness, hoursOf } from './emptiness';

export type Item = Schemas['BoardItem'];
export type Board = Schemas['Board'];
export type Person = Schemas['Person'];
export type Team = Schemas['Team'];
export type Place = Schemas['Place'];
export type Grouping = 'team' | 'place' | 'one';

/** What one visit is on one lane. */
export interface Piece {
  key: string;
  item: Item;
  shape: 'shift' | 'job' | 'ticket' | 'deadline';
  /** Work itself, as moments; for a ticket without a span from hand-over to due. */
  start: number;
  end: number;
  /** With its margins. */
  outerStart: number;
  outerEnd: number;
  allDay: boolean;
  tentative: boolean;
  done: boolean;
  /** The day its text stands on. */
  day: number;
  hue: string;
}

/** A row of the board. */
export interface Lane {
  key: string;
  name: string;
  note: string;
  person: number | null;
  place: number | null;
  team: number | null;
  pieces: Piece[];
  /** By day: what stands there in words, in order. */
  cells: Piece[][];
  /** By day: what an empty cell is. */
  empty: Empty[];
  /** Planned hours drawn on the lane, what overlaps counted once. */
  hours: number;
  /** Two at once on this lane, by the day on which it begins. */
  twice: { day: number; from: number; to: number }[];
  hue: string;
  /** When they are busy outside, and no more is known of it. */
  busy: { start: number; end: number; tentative: boolean }[];
  /** Ticket rails, packed so that none lies on another. */
  rails: number;
}

export type Empty = 'off' | 'leave' | 'away' | 'free' | 'busy' | 'unknown' | 'unread' | '';

export interface Group {
  key: string;
  name: string;
  count: string;
  lanes: Lane[];
}

/** Calendars that lie on the board, each on a lane of its own or all on one. */
export interface OnBoard {
  calendars: { id: number; name: string }[];
  overlaid: boolean;
}

export interface World {
  people: Person[];
  teams: Team[];
  places: Place[];
}

export function pieceKey(item: Item): string {
  return `${item.record}:${item.visit}`;
}

/** When an item is, as moments; null where it has no time that could be drawn. */
function times(item: Item, zone: string): Pick<Piece, 'start' | 'end' | 'allDay'> | null {
  const when = item.when;
  if (when?.starts && when.ends) {
    return { start: Date.parse(when.starts), end: Date.parse(when.ends), allDay: false };
  }
  if (when?.first && when.last) {
    return {
      start: dayStart(when.first, zone),
      end: dayStart(when.last, zone, 1),
      allDay: true,
    };
  }
  const due = item.due;
  if (due?.instant) {
    const end = Date.parse(due.instant);
    return { start: end, end, allDay: false };
  }
  if (due?.date) {
    return { start: dayStart(due.date, zone), end: dayStart(due.date, zone, 1), allDay: true };
  }
  return null;
}

const MINUTE = 60_000;

function piece(item: Item, days: Days, hue: string, given: number | null): Piece | null {
  const found = times(item, days.zone);
  // What only its margins bring near is not on the board.
  const outside =
    found &&
    (found.start >= days.edges[days.dates.length]! && !(given !== null && item.due)
      ? true
      : found.end < days.edges[0]! || (found.end === days.edges[0]! && found.end > found.start));
  if (!found || outside) {
    return null;
  }
  const hasSpan = Boolean(item.when?.starts ?? item.when?.first);
  const shape =
    item.kind === 'DEADLINE'
      ? 'deadline'
      : item.kind === 'SHIFT'
        ? 'shift'
        : hasSpan
          ? 'job'
          : 'ticket';
  const start = shape === 'ticket' && given !== null ? Math.min(given, found.end) : found.start;
  const margin = (minutes: number | undefined) => (found.allDay ? 0 : (minutes ?? 0) * MINUTE);
  const shownAt = shape === 'ticket' && !found.allDay ? found.end : found.start;
  const shownDay =
    shape === 'ticket' && found.allDay ? dayAt(days, found.end - 1) : dayAt(days, shownAt);
  return {
    key: pieceKey(item),
    item,
    shape,
    start,
    end: found.end,
    outerStart: start - margin(item.when?.marginBefore),
    outerEnd: found.end + margin(item.when?.marginAfter),
    allDay: found.allDay,
    tentative:
      item.state === 'TENTATIVE' || item.state === 'DRAFT' || (item.when?.tentative ?? false),
    done: item.state === 'DONE',
    day: shownDay,
    hue,
  };
}

function emptyLane(key: string, name: string, days: Days, more: Partial<Lane> = {}): Lane {
  return {
    key,
    name,
    note: '',
    person: null,
    place: null,
    team: null,
    pieces: [],
    cells: days.dates.map(() => []),
    empty: days.dates.map(() => ''),
    hours: 0,
    twice: [],
    hue: 'lagoon',
    busy: [],
    rails: 0,
    ...more,
  };
}

/** Who works on it: everybody on it but those who only look. */
export function working(item: Item): number[] {
  const found: number[] = [];
  for (const on of item.people ?? []) {
    if (on.role !== INFORMED && on.person != null && !found.includes(on.person)) {
      found.push(on.person);
    }
  }
  return found;
}

function givenTo(item: Item, person: number | null): number | null {
  const moments = (item.people ?? [])
    .filter((on) => on.role !== INFORMED && (person === null || on.person === person))
    .flatMap((on) => (on.given ? [Date.parse(on.given)] : []));
  return moments.length > 0 ? Math.min(...moments) : null;
}

/** Counts what overlaps once. */
function unionHours(spans: [number, number][], from: number, until: number): number {
  const cut = spans
    .map(([a, b]) => [Math.max(a, from), Math.min(b, until)] as [number, number])
    .filter(([a, b]) => b > a)
    .sort((one, other) => one[0] - other[0]);
  let total = 0;
  let reached = -Infinity;
  for (const [a, b] of cut) {
    total += Math.max(0, b - Math.max(a, reached));
    reached = Math.max(reached, b);
  }
  return total / (60 * MINUTE);
}

/** Puts the pieces of a lane in order and works out all that is said of it. */
function settle(lane: Lane, days: Days): void {
  const last = days.dates.length;
  lane.pieces.sort(
    (one, other) => one.start - other.start || one.key.localeCompare(other.key, 'en'),
  );
  const drawn: [number, number][] = [];
  for (const p of lane.pieces) {
    if ((p.shape === 'job' || p.shape === 'shift') && !p.allDay) {
      drawn.push([p.start, p.end]);
    }
    // Work over several days is named on each; a night is named where it begins.
    const over = p.allDay && (p.shape === 'job' || p.shape === 'shift');
    const until = over ? Math.min(last - 1, dayAt(days, p.end - 1)) : p.day;
    for (let d = over ? Math.max(0, p.day) : p.day; d <= until; d++) {
      lane.cells[d]?.push(p);
    }
  }
  const rank = { deadline: 0, shift: 1, job: 2, ticket: 2 };
  lane.cells.forEach((cell) =>
    cell.sort((one, other) => rank[one.shape] - rank[other.shape] || moment(one) - moment(other)),
  );
  lane.hours = unionHours(drawn, days.edges[0]!, days.edges[last]!);
  lane.rails = packRails(lane.pieces, days).length;
  if (lane.person !== null) {
    lane.twice = overlaps(lane.pieces, days);
  }
}

function moment(p: Piece): number {
  return p.shape === 'ticket' ? p.end : p.start;
}

/** Two pieces of timed work at once; touching ones are none, and a shift leaves room for work. */
function overlaps(pieces: Piece[], days: Days): Lane['twice'] {
  const jobs = pieces.filter((p) => p.shape === 'job' && !p.allDay && !p.done);
  const found: Lane['twice'] = [];
  for (let i = 0; i < jobs.length; i++) {
    for (let k = i + 1; k < jobs.length && jobs[k]!.start < jobs[i]!.end; k++) {
      const from = jobs[k]!.start;
      const to = Math.min(jobs[i]!.end, jobs[k]!.end);
      if (to > from) {
        found.push({ day: dayAt(days, from), from, to });
      }
    }
  }
  return found;
}

/** The rails of tickets in rows, none over another. */
export function packRails(pieces: Piece[], days: Days): Piece[][] {
  const rows: Piece[][] = [];
  for (const p of pieces) {
    const outside = p.end < days.edges[0]! || p.start >= days.edges[days.dates.length]!;
    if (p.shape !== 'ticket' || outside || p.start === p.end) {
      continue;
    }
    const row = rows.find((r) => r[r.length - 1]!.end <= p.start);
    if (row) {
      row.push(p);
    } else {
      rows.push([p]);
    }
  }
  return rows;
}

/** What the board calls what has no name of its own. */
export interface Names {
  nobody: string;
  nobodyNote: string;
  noTeam: string;
  one: string;
  places: string;
  calendars: string;
  overlaid: string;
  people: (n: number) => string;
  also: (teams: string) => string;
}

/** The whole board: nobody's work first, then the groups of lanes. */
export function layBoard(
  board: Board,
  world: World,
  days: Days,
  grouping: Grouping,
  onBoard: OnBoard,
  names: Names,
): { nobody: Lane; groups: Group[] } {
  const hueOf = new Map(world.teams.map((team) => [team.id, team.hue]));
  const hueFor = (item: Item, lane: string) => (item.team != null && hueOf.get(item.team)) || lane;
  const nobody = emptyLane('nobody', names.nobody, days, { note: names.nobodyNote });
  const byPerson = new Map<number, Item[]>();
  const byPlace = new Map<number, Item[]>();
  for (const item of board.items) {
    const people = working(item);
    if (people.length === 0 && item.state !== 'DONE') {
      const p = piece(item, days, hueFor(item, 'slate'), null);
      if (p) {
        nobody.pieces.push({ ...p, start: p.shape === 'ticket' ? p.end : p.start });
      }
    }
    people.forEach((id) => push(byPerson, id, item));
    [item.place, ...(item.uses ?? [])].forEach((place) => {
      if (place != null) {
        push(byPlace, place, item);
      }
    });
  }
  settle(nobody, days);
  const groups =
    grouping === 'place'
      ? [byPlaces(world, days, byPlace, hueFor, names)]
      : grouping === 'one'
        ? [inOne(board, days, hueFor, names)]
        : byTeams(board, world, days, byPerson, hueFor, names);
  const lists = calendarLanes(board, days, onBoard, hueFor, names);
  return { nobody, groups: lists ? [lists, ...groups] : groups };
}

function push(map: Map<number, Item[]>, key: number, item: Item): void {
  const list = map.get(key);
  if (list) {
    list.push(item);
  } else {
    map.set(key, [item]);
  }
}

type HueFor = (item: Item, lane: string) => string;

function byTeams(
  board: Board,
  world: World,
  days: Days,
  byPerson: Map<number, Item[]>,
  hueFor: HueFor,
  names: Pick<Names, 'noTeam' | 'people' | 'also'>,
): Group[] {
  const hours = hoursOf(board);
  const crew = world.people.filter((p) => p.standing === 'HOUSE' || p.standing === 'AGENCY');
  const lane = (p: Person, team: Team | null): Lane => {
    const hue = team?.hue ?? 'slate';
    const others = world.teams.filter((t) => t.id !== team?.id && p.teams.includes(t.id));
    const made = emptyLane(`${team?.id ?? 0}:${p.id}`, p.name, days, {
      note: others.length > 0 ? names.also(others.map((t) => t.name).join(', ')) : '',
      person: p.id,
      team: team?.id ?? null,
      hue,
      empty: emptiness(board, p.id, days, hours),
      busy: busyOf(board, p.id),
    });
    for (const item of byPerson.get(p.id) ?? []) {
      const one = piece(item, days, hueFor(item, hue), givenTo(item, p.id));
      if (one) {
        made.pieces.push(one);
      }
    }
    settle(made, days);
    return made;
  };
  const groups: Group[] = [];
  for (const team of world.teams) {
    const members = crew.filter((p) => p.teams.includes(team.id));
    if (members.length > 0) {
      groups.push({
        key: 't' + team.id,
        name: team.name,
        count: names.people(members.length),
        lanes: members.map((p) => lane(p, team)),
      });
    }
  }
  const known = new Set(world.teams.map((team) => team.id));
  const alone = crew.filter((p) => !p.teams.some((id) => known.has(id)));
  if (alone.length > 0) {
    groups.push({
      key: 't0',
      name: names.noTeam,
      count: names.people(alone.length),
      lanes: alone.map((p) => lane(p, null)),
    });
  }
  return groups;
}

function calendarLanes(
  board: Board,
  days: Days,
  onBoard: OnBoard,
  hueFor: HueFor,
  names: Pick<Names, 'calendars' | 'overlaid'>,
): Group | null {
  const { calendars, overlaid } = onBoard;
  if (calendars.length === 0) {
    return null;
  }
  const shown = overlaid
    ? [{ key: 'overlaid', name: names.overlaid, ids: calendars.map((c) => c.id) }]
    : calendars.map((c) => ({ key: 'c' + c.id, name: c.name, ids: [c.id] }));
  const lanes = shown.map(({ key, name, ids }) => {
    const lane = emptyLane(key, name, days, {
      note: overlaid ? calendars.map((c) => c.name).join(', ') : '',
    });
    for (const item of board.items) {
      if ((item.on ?? []).some((id) => ids.includes(id))) {
        const one = piece(item, days, hueFor(item, 'lagoon'), givenTo(item, null));
        if (one) {
          lane.pieces.push(one);
        }
      }
    }
    settle(lane, days);
    return lane;
  });
  return { key: 'calendars', name: names.calendars, count: '', lanes };
}

function byPlaces(
  world: World,
  days: Days,
  byPlace: Map<number, Item[]>,
  hueFor: HueFor,
  names: Pick<Names, 'places'>,
): Group {
  const lanes = world.places.map((place) => {
    const made = emptyLane('p' + place.id, place.name, days, { place: place.id, note: place.code });
    for (const item of byPlace.get(place.id) ?? []) {
      const one = piece(item, days, hueFor(item, 'lagoon'), givenTo(item, null));
      if (one) {
        made.pieces.push(one);
      }
    }
    settle(made, days);
    return made;
  });
  return { key: 'places', name: names.places, count: `${lanes.length}`, lanes };
}

function inOne(board: Board, days: Days, hueFor: HueFor, names: { one: string }): Group {
  const lane = emptyLane('one', names.one, days);
  for (const item of board.items) {
    const one = piece(item, days, hueFor(item, 'lagoon'), givenTo(item, null));
    if (one) {
      lane.pieces.push(one);
    }
  }
  settle(lane, days);
  return { key: 'one', name: names.one, count: '', lanes: [lane] };
}
