import styles from './cover.module.css';
import type { Ask, Cover, Gap, Stretch } from './queries';
import { askName, words } from './words';

const CROWDED = 200;

/** What asks for people over time: how many are needed, placed and short. */
export function Track({
  cover,
  ask,
  at,
  chosen,
  onChoose,
}: {
  cover: Cover;
  ask: Ask;
  /** Where a moment lies, from 0 to 100, also one that lies outside. */
  at: (moment: number) => number;
  chosen?: Gap;
  onChoose: (gap: Gap) => void;
}) {
  const bands = cover.stretches.filter((one) => one.ask === ask.key);
  // So many are too narrow for words, and each one that measures itself costs.
  const crowded = cover.gaps.length > CROWDED;
  return (
    <>
      <Bands bands={bands} ask={ask} at={at} />
      {cover.gaps
        .filter((gap) => gap.ask === ask.key)
        .map((gap) => {
          const left = at(Date.parse(gap.start));
          const isChosen = chosen?.ask === gap.ask && chosen.start === gap.start;
          return (
            <button
              key={gap.start}
              type="button"
              className={`${isChosen ? styles.chosenGap : styles.gap} ${crowded ? '' : styles.told}`}
              style={{ left: `${left}%`, width: `${at(Date.parse(gap.end)) - left}%` }}
              aria-label={`${askName(ask)}: ${words.missing(gap.shortBy)}`}
              onClick={() => onChoose(gap)}
            >
              {!crowded && (
                <>
                  <span className={styles.many}>{words.missing(gap.shortBy)}</span>
                  <span className={styles.few}>{gap.shortBy}</span>
                </>
              )}
            </button>
          );
        })}
    </>
  );
}

/** How many are placed, might be and are needed, as three shapes however long the time is. */
function Bands({ bands, ask, at }: { bands: Stretch[]; ask: Ask; at: (moment: number) => number }) {
  const most = Math.max(1, ask.most);
  const box = (one: Stretch, from: number, until: number) => {
    const [left, right] = [at(Date.parse(one.start)), at(Date.parse(one.end))];
    return until > from ? `M${left} ${most - from}H${right}V${most - until}H${left}Z` : '';
  };
  const line = (one: Stretch) =>
    `M${at(Date.parse(one.start))} ${most - one.needed}H${at(Date.parse(one.end))}`;
  const placed = bands.map((one) => box(one, 0, one.filled)).join('');
  const maybe = bands.map((one) => box(one, one.filled, one.filled + one.maybe)).join('');
  return (
    <svg
      className={styles.bands}
      viewBox={`0 0 100 ${most}`}
      preserveAspectRatio="none"
      aria-hidden="true"
    >
      <path className={ask.tentative ? styles.maybe : styles.placed} d={placed} />
      <path className={styles.maybe} d={maybe} />
      <path className={styles.needed} d={bands.map(line).join('')} />
    </svg>
  );
}
