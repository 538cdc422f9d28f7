import { addDays, gapText, today } from '../../shared/time';
import { useCover, type Clash } from './queries';
import { askName, clashText, gapKey, words } from './words';

const TWO_WEEKS = 14;

/** One thing that is wrong before long, and where it is mended. */
export interface Ahead {
  key: string;
  what: string;
  when: string;
  never: boolean;
  to: string;
}

/** What is short, clashes or is due on top of each other in the next two weeks. */
export function useAhead() {
  const from = today();
  const asked = useCover(from, addDays(from, TWO_WEEKS));
  const cover = asked.data;
  const to = (on: string) => `/cover?from=${from}&zoom=weeks&on=${encodeURIComponent(on)}`;
  const clash = (one: Clash): Ahead => ({
    key: one.key,
    what: one.name ?? words.aPlace,
    when: clashText(one),
    never: one.never,
    to: to(one.key),
  });
  const ask = (key: string) => cover?.asks.find((one) => one.key === key);
  return {
    pending: asked.isPending,
    short: (cover?.gaps ?? []).map((gap) => ({
      key: gapKey(gap),
      what: askName(ask(gap.ask)),
      when: `${gapText(gap.start, gap.end, ask(gap.ask)?.zone ?? 'UTC')}, ${words.missing(gap.shortBy)}`,
      never: false,
      to: to(gapKey(gap)),
    })),
    // What must never be stands first.
    clashes: (cover?.clashes ?? [])
      .filter((one) => !one.letStand)
      .map(clash)
      .sort((a, b) => Number(b.never) - Number(a.never)),
    pileUps: (cover?.pileUps ?? []).map(clash),
  };
}
