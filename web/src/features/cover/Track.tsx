import styles from './cover.module.css';
import type { Ask, Cover, Gap, Stretch } from './queries';
import { askName, words } from './words';

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
  const place = (one: { start: string; end: string }) => {
    const left = at(Date.parse(one.start));
    return { left: `${left}%`, width: `${at(Date.parse(one.end)) - left}%` };
  };
  return (
    <>
      {cover.stretches
        .filter((one) => one.ask === ask.key)
        .map((one) => (
          <Band key={one.start} stretch={one} ask={ask} place={place(one)} />
        ))}
      {cover.gaps
        .filter((gap) => gap.ask === ask.key)
        .map((gap) => (
          <button
            key={gap.start}
            type="button"
            className={
              chosen?.ask === gap.ask && chosen.start === gap.start ? styles.chosenGap : styles.gap
            }
            style={place(gap)}
            aria-label={`${askName(ask)}: ${words.missing(gap.shortBy)}`}
            onClick={() => onChoose(gap)}
          >
            <span className={styles.many}>{words.missing(gap.shortBy)}</span>
            <span className={styles.few}>−{gap.shortBy}</span>
          </button>
        ))}
    </>
  );
}

function Band({
  stretch,
  ask,
  place,
}: {
  stretch: Stretch;
  ask: Ask;
  place: { left: string; width: string };
}) {
  const part = (n: number) => `${(100 * n) / Math.max(1, ask.most)}%`;
  return (
    <>
      <i
        className={ask.tentative ? styles.maybe : styles.placed}
        style={{ ...place, height: part(stretch.filled) }}
      />
      {stretch.maybe > 0 && (
        <i
          className={styles.maybe}
          style={{ ...place, bottom: part(stretch.filled), height: part(stretch.maybe) }}
        />
      )}
      <i className={styles.needed} style={{ ...place, bottom: part(stretch.needed) }} />
    </>
  );
}
