import {
  addDays,
  dayNumber,
  daysBetween,
  dayStart,
  nowMoment,
  shortDayText,
  weekdayText,
} from '../../shared/time';
import { Link } from 'react-router';
import { Fault } from '../../shared/ui/Fault';
import styles from './cover.module.css';
import { useDaysOff, type Ask, type Cover, type Gap } from './queries';
import { Track } from './Track';
import { askName, dayOffText, words } from './words';

const MOST_MARKS = 21;
const MOST_DAYS_OFF = 5;

/** The more days, the less is said of each. */
function dayMark(day: string, days: number): string {
  if (days <= 7) {
    return `${weekdayText(day)} ${dayNumber(day)}`;
  }
  return days <= MOST_MARKS ? String(dayNumber(day)) : shortDayText(day).slice(4);
}

/** A row a duty, and a row a visit that wants people: how many are needed and how many are placed, over the days. */
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
  onChange?: (duty: number) => void;
}) {
  const from = dayStart(cover.from, cover.zone);
  const until = dayStart(cover.until, cover.zone);
  const at = (moment: number) => (100 * (moment - from)) / (until - from);
  const days = Array.from({ length: daysBetween(cover.from, cover.until) }, (_, n) =>
    addDays(cover.from, n),
  );
  const every = Math.ceil(days.length / MOST_MARKS);
  const now = nowMoment();
  const daysOff = useDaysOff(cover.from, cover.until);
  const offOn = (day: string) =>
    (daysOff.data ?? []).filter((one) => one.first <= day && day <= one.last);
  return (
    <div className={styles.chart}>
      <div className={styles.marks} aria-hidden="true">
        {days.map((day, n) =>
          n % every === 0 && n + every / 2 < days.length ? (
            <span
              key={day}
              className={offOn(day).length > 0 ? styles.off : undefined}
              style={{ left: `${at(dayStart(day, cover.zone))}%` }}
            >
              {dayMark(day, days.length)}
            </span>
          ) : null,
        )}
      </div>
      {cover.asks.map((ask) => (
        <div key={ask.key} className={styles.row}>
          <div className={styles.label}>
            <AskLabel ask={ask} onChange={onChange} />
            <span>
              {[words.asks(ask.most, ask.skills), ask.place, ask.tentative && words.legend.maybe]
                .filter(Boolean)
                .join(' · ')}
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
              ask={ask}
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
      {daysOff.error && <Fault error={daysOff.error} reads />}
      {daysOff.data && daysOff.data.length > 0 && (
        <p className={styles.daysOff}>
          {words.daysOff}{' '}
          {[
            ...daysOff.data.slice(0, MOST_DAYS_OFF).map(dayOffText),
            daysOff.data.length > MOST_DAYS_OFF &&
              words.further(daysOff.data.length - MOST_DAYS_OFF),
          ]
            .filter(Boolean)
            .join('; ')}
        </p>
      )}
    </div>
  );
}

/** A record opens; a duty is changed by who may. */
function AskLabel({ ask, onChange }: { ask: Ask; onChange?: (duty: number) => void }) {
  const { record, duty } = ask;
  if (record) {
    return (
      <Link className={styles.labelled} title={askName(ask)} to={`/records/${record}`}>
        {askName(ask)}
      </Link>
    );
  }
  return onChange && duty ? (
    <button
      type="button"
      className={styles.labelled}
      aria-label={words.changeThe(ask.name)}
      onClick={() => onChange(duty)}
    >
      {ask.name}
    </button>
  ) : (
    <strong>{ask.name}</strong>
  );
}
