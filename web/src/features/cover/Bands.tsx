import {
  addDays,
  dayNumber,
  daysBetween,
  dayStart,
  nowMoment,
  shortDayText,
  weekdayText,
} from '../../shared/time';
import styles from './cover.module.css';
import type { Cover, Duty, Gap } from './queries';
import { Track } from './Track';
import { words } from './words';

const MOST_MARKS = 21;

/** The more days, the less is said of each. */
function dayMark(day: string, days: number): string {
  if (days <= 7) {
    return `${weekdayText(day)} ${dayNumber(day)}`;
  }
  return days <= MOST_MARKS ? String(dayNumber(day)) : shortDayText(day).slice(4);
}

/** A row a duty: how many are needed and how many are placed, over the days. */
export function Bands({
  cover,
  chosen,
  onChoose,
  onChange,
}: {
  cover: Cover;
  chosen: Gap | undefined;
  onChoose: (gap: Gap) => void;
  /** For who may change duties. */
  onChange?: (duty: Duty) => void;
}) {
  const from = dayStart(cover.from, cover.zone);
  const until = dayStart(cover.until, cover.zone);
  const at = (moment: number) => (100 * (moment - from)) / (until - from);
  const days = Array.from({ length: daysBetween(cover.from, cover.until) }, (_, n) =>
    addDays(cover.from, n),
  );
  const every = Math.ceil(days.length / MOST_MARKS);
  const now = nowMoment();
  return (
    <div className={styles.chart}>
      <div className={styles.marks} aria-hidden="true">
        {days.map((day, n) =>
          n % every === 0 && n + every / 2 < days.length ? (
            <span key={day} style={{ left: `${at(dayStart(day, cover.zone))}%` }}>
              {dayMark(day, days.length)}
            </span>
          ) : null,
        )}
      </div>
      {cover.duties.map((duty) => (
        <div key={duty.id} className={styles.row}>
          <div className={styles.label}>
            {onChange ? (
              <button
                type="button"
                className={styles.labelled}
                aria-label={words.changeThe(duty.name)}
                onClick={() => onChange(duty)}
              >
                {duty.name}
              </button>
            ) : (
              <strong>{duty.name}</strong>
            )}
            <span>
              {duty.most}
              {duty.skill && ` + ${duty.skill}`} · {duty.place}
            </span>
          </div>
          <div className={styles.track}>
            {days.map((day, n) =>
              n % every === 0 ? (
                <i
                  key={day}
                  className={styles.day}
                  style={{ left: `${at(dayStart(day, cover.zone))}%` }}
                />
              ) : null,
            )}
            <Track
              cover={cover}
              duty={duty}
              at={(moment) => at(Math.min(until, Math.max(from, moment)))}
              chosen={chosen}
              onChoose={onChoose}
            />
            {now > from && now < until && (
              <i className={styles.now} style={{ left: `${at(now)}%` }} />
            )}
          </div>
        </div>
      ))}
      <p className={styles.legend}>
        <i className={styles.neededKey} /> {words.legend.needed}
        <i className={styles.placedKey} /> {words.legend.placed}
        <i className={styles.shortKey} /> {words.legend.short}
        <i className={styles.maybeKey} /> {words.legend.maybe}
      </p>
    </div>
  );
}
