import type { Days } from './days';
import {
  layBoard,
  working,
  type Board,
  type Grouping,
  type Group,
  type Lane,
  type World,
} from './lanes';
import { words } from './words';

/** What a part of the board can be of. */
export type Sort = 'crew' | 'team' | 'person' | 'place' | 'calendar';
export interface Of {
  sort: Sort;
  id: number;
}

const SORTS: Sort[] = ['team', 'person', 'place', 'calendar'];

/** As an address says it: team-4; everybody where it says nothing. */
export function ofText(text: string | null): Of {
  const [sort, id] = (text ?? '').split('-');
  return SORTS.includes(sort as Sort) && Number.isInteger(Number(id)) && Number(id) > 0
    ? { sort: sort as Sort, id: Number(id) }
    : { sort: 'crew', id: 0 };
}

export type Calendars = { id: number; name: string }[];

/** All that a part can be of, to choose from. */
export function parts({ teams, people, places }: World, calendars: Calendars) {
  const some = (sort: keyof typeof words.partsOf, all: Calendars) =>
    all.map(({ id, name }) => ({
      value: `${sort}-${id}`,
      label: name,
      hint: words.partsOf[sort],
    }));
  return [
    { value: 'crew-0', label: words.crew },
    ...some('team', teams),
    ...some('person', people),
    ...some('place', places),
    ...some('calendar', calendars),
  ];
}

/** A part of the board: people by team, or one lane. */
export interface Part {
  name: string;
  nobody?: Lane;
  groups: Group[];
  one?: Lane;
}

/** The part of the board that is of one team, person, place or calendar; or all of it. */
export function part(
  board: Board,
  world: World,
  calendars: Calendars,
  days: Days,
  { sort, id }: Of,
): Part | null {
  const lay = (items: Board['items'], by: Grouping, on: Calendars = []) =>
    layBoard({ ...board, items }, world, days, by, { calendars: on, overlaid: false }, words);
  const lanes = (groups: Group[]) => groups.flatMap((group) => group.lanes);
  const only = (one: Lane | undefined) => (one ? { name: one.name, groups: [], one } : null);
  switch (sort) {
    case 'crew':
      return { name: words.crew, ...lay(board.items, 'team') };
    case 'team': {
      const members = world.people.filter((one) => one.teams.includes(id)).map((one) => one.id);
      const theirs = board.items.filter(
        (item) => item.team === id || working(item).some((person) => members.includes(person)),
      );
      const { nobody, groups } = lay(theirs, 'team');
      const name = world.teams.find((one) => one.id === id)?.name;
      return name ? { name, nobody, groups: groups.filter((one) => one.key === 't' + id) } : null;
    }
    case 'person':
      return only(lanes(lay(board.items, 'team').groups).find((one) => one.person === id));
    case 'place':
      return only(lanes(lay(board.items, 'place').groups).find((one) => one.place === id));
    case 'calendar':
      return only(
        lanes(
          lay(
            board.items,
            'one',
            calendars.filter((one) => one.id === id),
          ).groups,
        ).find((one) => one.key === 'c' + id),
      );
  }
}
