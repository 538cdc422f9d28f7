import { useNavigate } from 'react-router';
import styles from './cover.module.css';
import { useCover } from './queries';
import { Track } from './Track';
import { askName, gapKey, words } from './words';

/** What must be stood in these days, and what work is short of people, in rows over another calendar of the same days. */
export function CoverRows({
  from,
  until,
  at,
}: {
  from: string;
  until: string;
  /** Where a moment lies across the days, from 0 to 1. */
  at: (moment: number) => number;
}) {
  const cover = useCover(from, until).data;
  const navigate = useNavigate();
  // What is shown until the next days are there belongs to others.
  if (!cover || cover.from !== from || cover.until !== until) {
    return null;
  }
  return (
    <section className={styles.rows} aria-label={words.heading}>
      {cover.asks
        .filter((one) => one.duty || cover.gaps.some((gap) => gap.ask === one.key))
        .map((ask) => (
          <div key={ask.key} className={styles.boardRow}>
            <span className={styles.boardLabel}>
              <strong title={askName(ask)}>{askName(ask)}</strong>
              <span title={words.asks(ask.most, ask.skills)}>{ask.most}</span>
            </span>
            <div className={styles.boardTrack}>
              <Track
                cover={cover}
                ask={ask}
                at={(moment) => 100 * at(moment)}
                onChoose={(gap) =>
                  void navigate(
                    `/cover?from=${from}&zoom=weeks&on=${encodeURIComponent(gapKey(gap))}`,
                  )
                }
              />
            </div>
          </div>
        ))}
    </section>
  );
}
