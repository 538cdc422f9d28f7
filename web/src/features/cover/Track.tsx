import styles from './cover.module.css';
import type { Cover, Duty, Gap, Stretch } from './queries';
import { words } from './words';

/** One duty over time: how many are needed, placed and short. */
export function Track({
  cover,
  duty,
  at,
  chosen,
  onChoose,
}: {
  cover: Cover;
  duty: Duty;
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
        .filter((one) => one.duty === duty.id)
        .map((one) => (
          <Band key={one.start} stretch={one} duty={duty} place={place(one)} />
        ))}
      {cover.gaps
        .filter((gap) => gap.duty === duty.id)
        .map((gap) => (
          <button
            key={gap.start}
            type="button"
            className={
              chosen?.duty === gap.duty && chosen.start === gap.start
                ? styles.chosenGap
                : styles.gap
            }
            style={place(gap)}
            aria-label={`${duty.name}: ${words.missing(gap.shortBy)}`}
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
  duty,
  place,
}: {
  stretch: Stretch;
  duty: Duty;
  place: { left: string; width: string };
}) {
  const part = (n: number) => `${(100 * n) / Math.max(1, duty.most)}%`;
  return (
    <>
      <i className={styles.placed} style={{ ...place, height: part(stretch.filled) }} />
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
