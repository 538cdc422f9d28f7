import { useNavigate } from 'react-router';
import { addDays, dayNumber, dayStart, nowMoment, today, weekdayText } from '../../shared/time';
import { onCover } from './ahead';
import styles from './cover.module.css';
import { useCover } from './queries';
import { Track } from './Track';
import { askName, gapKey, words } from './words';

const LOOKED_AT = 14;
const HOURS = 48;

/** What is needed and covered in the next two days, a line each. */
export function CoverSoon() {
  const navigate = useNavigate();
  const from = today();
  const cover = useCover(from, addDays(from, LOOKED_AT)).data;
  const begins = nowMoment();
  const ends = begins + HOURS * 3_600_000;
  const at = (moment: number) =>
    (100 * (Math.min(ends, Math.max(begins, moment)) - begins)) / (ends - begins);
  const asks = (cover?.asks ?? []).filter((ask) =>
    cover!.stretches.some(
      (one) => one.ask === ask.key && Date.parse(one.start) < ends && Date.parse(one.end) > begins,
    ),
  );
  if (!cover || asks.length === 0) {
    return null;
  }
  const days = [addDays(from, 1), addDays(from, 2)];
  const near = {
    ...cover,
    gaps: cover.gaps.filter((gap) => Date.parse(gap.start) < ends && Date.parse(gap.end) > begins),
  };
  return (
    <section className={styles.soon} aria-label={words.soon}>
      <h2>{words.soon}</h2>
      <div className={styles.marks} aria-hidden="true">
        {days.map((day) => (
          <span key={day} style={{ left: `${at(dayStart(day, cover.zone))}%` }}>
            {`${weekdayText(day)} ${dayNumber(day)}`}
          </span>
        ))}
      </div>
      {asks.map((ask) => (
        <div key={ask.key} className={styles.row}>
          <span className={styles.soonName} title={askName(ask)}>
            {askName(ask)}
          </span>
          <div className={styles.track}>
            {days.map((day) => (
              <i
                key={day}
                className={styles.day}
                style={{ left: `${at(dayStart(day, cover.zone))}%` }}
              />
            ))}
            <Track
              cover={near}
              ask={ask}
              at={at}
              onChoose={(gap) => void navigate(onCover(gapKey(gap)))}
            />
          </div>
        </div>
      ))}
    </section>
  );
}
