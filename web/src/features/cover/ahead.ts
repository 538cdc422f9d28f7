import { addDays, localAt, mondayOf, nowMoment, today } from '../../shared/time';
import { useCover, type Clash, type Gap } from './queries';
import { askName, clashText, gapKey, gapWhen, words } from './words';

const TWO_WEEKS = 14;
const SOON = 48 * 3_600_000;

/** Where stands what somebody leaves who is away. */
export const leftBy = ({
  person,
  name,
  first,
  last,
  hours,
}: {
  person: number;
  name: string;
  first: string;
  last: string;
  hours?: { from: string; until: string };
}) =>
  '/cover?' +
  new URLSearchParams({
    away: String(person),
    who: name,
    first,
    last,
    from: mondayOf(first),
    ...(hours && { hours: `${hours.from}-${hours.until}` }),
  }).toString();

/** One thing that is wrong before long, and where it is mended. */
export interface Ahead {
  key: string;
  what: string;
  when: string;
  to: string;
}

/** Where a gap or clash of the coming weeks stands on Cover, by its key. */
export const onCover = (on: string) =>
  `/cover?from=${today()}&zoom=weeks&on=${encodeURIComponent(on)}`;

const clashOf = (one: Clash): Ahead => ({
  key: one.key,
  what: one.name ?? words.aPlace,
  when: clashText(one),
  to: onCover(one.key),
});

/** What only warns, one line a person, led to the first. */
function byPerson(clashes: Clash[]): Ahead[] {
  const lines = new Map<string, Clash[]>();
  for (const one of clashes) {
    const name = one.name ?? words.aPlace;
    lines.set(name, [...(lines.get(name) ?? []), one]);
  }
  return [...lines.values()].map((some) => ({
    ...clashOf(some[0]!),
    when: some.map(clashText).join('; '),
  }));
}

/** What is short, clashes or is due on top of each other in the next two weeks. */
export function useAhead() {
  const from = today();
  const asked = useCover(from, addDays(from, TWO_WEEKS));
  const cover = asked.data;
  const ask = (key: string) => cover?.asks.find((one) => one.key === key);
  const short = (gap: Gap): Ahead => ({
    key: gapKey(gap),
    what: askName(ask(gap.ask)),
    when: `${gapWhen(gap, ask(gap.ask)?.zone ?? 'UTC')}, ${words.missing(gap.shortBy)}`,
    to: onCover(gapKey(gap)),
  });
  const now = nowMoment();
  const isSoon = (gap: Gap) => Date.parse(gap.start) < now + SOON;
  // What is over can no longer be covered.
  const gaps = (cover?.gaps ?? []).filter((gap) => Date.parse(gap.end) > now);
  const open = (cover?.clashes ?? []).filter((one) => !one.letStand);
  return {
    pending: asked.isPending,
    short: gaps.filter(isSoon).map(short),
    /** Whether what begins there then is told as a gap already. */
    isShort: (place: string | undefined, start: string | undefined) =>
      gaps.some((gap) => {
        const of = ask(gap.ask);
        const [first, last] = [gap.start, gap.end].map((moment) =>
          localAt(Date.parse(moment), of?.zone ?? 'UTC'),
        );
        return of?.place === place && start !== undefined && first! <= start && start < last!;
      }),
    shortLater: gaps.filter((gap) => !isSoon(gap)).map(short),
    never: open.filter((one) => one.never).map(clashOf),
    warns: byPerson([...open.filter((one) => !one.never), ...(cover?.pileUps ?? [])]),
  };
}
