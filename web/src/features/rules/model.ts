import type { Schemas } from '../../shared/api/client';
import { worded } from '../../shared/words';
import { words } from './words';

export type Rule = Schemas['Rule'];
export type Condition = Schemas['Condition'];
export type Target = Schemas['Target'];
export type Wording = Schemas['Wording'];
export type Detail = Schemas['DetailDefinition'];
export type For = Schemas['For'];
export type Reminder = Schemas['Reminder'];
type RuleSet = Schemas['RuleSet'];

/** What names the numbers in rules stand for. */
export interface Names {
  role: (id: number) => string;
  team: (id: number) => string;
  place: (id: number) => string;
  person: (id: number) => string;
  calendar: (id: number) => string;
  detail: (key: string) => string;
}

/** Which sort of condition it is: the one name it has. */
export function sortOf(condition: Condition): keyof Condition {
  return Object.keys(condition)[0] as keyof Condition;
}

export function isGroup(condition: Condition): boolean {
  return ['all', 'any', 'none'].includes(sortOf(condition));
}

/** The parts of a group. */
export function partsOf(condition: Condition): Condition[] {
  return condition.all ?? condition.any ?? condition.none ?? [];
}

/** How a detail's value is compared; what each is for, by {@link Detail.sort}. */
export const VALUE_TESTS = ['over', 'under', 'is'] as const;
export type ValueTest = (typeof VALUE_TESTS)[number];

/** A detail as it is chosen. */
export const detailChoice = (
  one: Pick<Detail, 'key' | 'label' | 'sort' | 'choices' | 'unit' | 'typed'>,
) => ({
  value: one.key,
  label: one.label,
  sort: one.sort,
  choices: one.sort === 'YES_NO' ? ['yes', 'no'] : one.choices,
  unit: one.unit,
  isWritten: one.typed && one.key !== 'title',
});

export const isOrdered = (sort: Detail['sort']) =>
  sort === 'NUMBER' || sort === 'MONEY' || sort === 'DATE';

/** A condition of a sort, as it begins. */
export function begin(sort: string): Condition {
  switch (sort) {
    case 'kind':
      return { kind: ['TICKET'] };
    case 'state':
      return { state: ['TENTATIVE', 'CONFIRMED'] };
    case 'tag':
      return { tag: '' };
    case 'team':
      return { team: 0 };
    case 'place':
      return { place: 0 };
    case 'role':
      return { role: 0 };
    case 'detail':
      return { detail: 'phone' };
    case 'over':
    case 'under':
    case 'is':
      return { [sort]: ['', ''] };
    case 'madeBy':
      return { madeBy: 0 };
    case 'startsBetween':
      return { startsBetween: ['22:00', '06:00'] };
    case 'private':
      return { private: true };
    case 'allDay':
      return { allDay: true };
    default:
      return { [sort]: [] };
  }
}

/** A rule's condition as the list of what must all hold. */
export function musts(rule: Rule): Condition[] {
  return rule.when.all ?? [rule.when];
}

export function joined(list: string[], last: string): string {
  return list.length < 2
    ? (list[0] ?? '…')
    : list.slice(0, -1).join(', ') + last + list[list.length - 1];
}

/** A condition in words. */
export function conditionText(condition: Condition, names: Names): string {
  const c = condition;
  if (c.kind) {
    return joined(
      c.kind.map((k) => worded(words.kinds, k)),
      words.or,
    );
  }
  if (c.state) {
    return (
      words.andIs +
      ' ' +
      joined(
        c.state.map((s) => worded(words.states, s)),
        words.or,
      )
    );
  }
  if (c.tag !== undefined) {
    return words.tag(c.tag || '…');
  }
  if (c.team !== undefined) {
    return words.team(names.team(c.team));
  }
  if (c.place !== undefined) {
    return words.place(names.place(c.place));
  }
  if (c.role !== undefined) {
    return words.role(names.role(c.role));
  }
  if (c.detail !== undefined) {
    return words.detail(names.detail(c.detail));
  }
  for (const test of VALUE_TESTS) {
    const [detail, than] = c[test] ?? [];
    if (detail !== undefined) {
      return words.valued[test](names.detail(detail), than || '…');
    }
  }
  if (c.madeBy !== undefined) {
    return words.madeBy(names.person(c.madeBy));
  }
  if (c.startsBetween) {
    return words.startsBetween(c.startsBetween[0] ?? '', c.startsBetween[1] ?? '');
  }
  if (c.private) {
    return words.isPrivate;
  }
  return c.allDay ? words.allDay : worded(words.groups, sortOf(c));
}

/** Where a rule lands, in words. */
export function targetsText(targets: Target[], names: Names): string {
  const roles = (ids: number[]) => joined(ids.map(names.role), words.and);
  const texts = targets.map((t) =>
    t.ownOf
      ? words.ownOf(roles(t.ownOf))
      : t.teamsOf
        ? words.teamsOf(roles(t.teamsOf))
        : t.thePlaces
          ? words.thePlaces
          : t.master
            ? words.master
            : names.calendar(t.calendar ?? 0),
  );
  return texts.length === 0 ? words.nowhere : joined(texts, words.and);
}

/** A list with one of its things moved by a step. */
export function moved<T>(list: T[], at: number, step: number): T[] {
  const to = at + step;
  if (to < 0 || to >= list.length) {
    return list;
  }
  const next = [...list];
  const [one] = next.splice(at, 1);
  next.splice(to, 0, one!);
  return next;
}

/** How many rules, wordings and details differ between two states of the set. */
export function edits(before: RuleSet, after: RuleSet): number {
  const text = (one: unknown) => JSON.stringify(one);
  const reordered = <T>(was: T[], is: T[], key: (one: T) => unknown) => {
    const known = new Set(was.map(key));
    const still = new Set(is.map(key));
    const left = was.map(key).filter((one) => still.has(one));
    return text(left) === text(is.map(key).filter((one) => known.has(one))) ? 0 : 1;
  };
  const differing = <T>(was: T[], is: T[], key: (one: T) => unknown) => {
    const known = new Map(was.map((one) => [key(one), text(one)]));
    const still = new Set(is.map(key));
    return (
      is.filter((one) => known.get(key(one)) !== text(one)).length +
      was.filter((one) => !still.has(key(one))).length
    );
  };
  return (
    differing(before.rules, after.rules, (r) => r.id) +
    reordered(before.rules, after.rules, (r) => r.id) +
    differing(before.wordings, after.wordings, (w) => w.id) +
    differing(before.details, after.details, (d) => d.key) +
    reordered(before.details, after.details, (d) => d.key) +
    differing(Object.entries(before.usual), Object.entries(after.usual), ([kind]) => kind) +
    (before.titlesFixed === after.titlesFixed ? 0 : 1)
  );
}

/** The ready sets of readers, the widest first. */
export const PRESETS: [string, For][] = [
  ['everyone', { everyone: true }],
  ['crew', { office: true, crew: true }],
  ['people on the job', { office: true, roles: [0, 1, 2] }],
  ['office', { office: true }],
];

/** Whom a detail is for, in words. */
export function forText(set: For, names: Names): string {
  const same = (other: For) => forKey(other) === forKey(set);
  const preset = PRESETS.find(([, one]) => same(one));
  if (preset) {
    return preset[0];
  }
  const parts = [
    ...(set.office ? ['office'] : []),
    ...(set.roles ?? []).map(names.role),
    ...(set.crew ? ['crew'] : []),
    ...(set.outside ? [words.outside] : []),
  ];
  return parts.length === 0 ? 'nobody' : parts.join(', ');
}

export function forKey(set: For): string {
  return set.everyone
    ? 'everyone'
    : [set.office, set.crew, set.outside, [...(set.roles ?? [])].sort()].map(String).join('|');
}

/** A number that no wording of the set has. */
export function freshNumber(wordings: Wording[]): number {
  return 1 + Math.max(1_000_000, ...wordings.map((w) => w.id));
}

/** How wordings call a detail of this name, unless one is called so already. */
export function keyOf(label: string, details: Detail[]): string {
  const plain =
    label
      .toLowerCase()
      .normalize('NFKD')
      .replace(/[^a-z0-9]+/g, ' ')
      .trim()
      .replace(/^[0-9 ]+/, '') || 'detail';
  const cut = plain.slice(0, 26).trim();
  const taken = new Set(details.map((d) => d.key));
  let key = cut;
  for (let n = 2; taken.has(key); n++) {
    key = `${cut} ${n}`;
  }
  return key;
}

/** Reminders in words, the longest before first as they ring. */
export function remindersText(reminders: Reminder[]): string {
  return reminders.length === 0
    ? words.remindsNot
    : words.before(
        joined(
          reminders.map(
            (r) => `${r.amount} ${words.units[r.unit]?.[r.amount === 1 ? 0 : 1] ?? ''}`,
          ),
          words.and,
        ),
      );
}
