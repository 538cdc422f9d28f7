import { shortSpanText } from '../../shared/time';
import styles from './cover.module.css';
import type { Answer } from './queries';
import { words } from './words';

const DAY = 86_400_000;

/** What takes somebody's time around what is asked of them. */
export function DaysAround({ one, span }: { one: Answer; span: { start: string; end: string } }) {
  const from = Date.parse(span.start) - DAY;
  const until = Date.parse(span.end) + DAY;
  const place = (part: { start: string; end: string }) => {
    const left = (100 * (Date.parse(part.start) - from)) / (until - from);
    return {
      left: `${left}%`,
      width: `${(100 * (Date.parse(part.end) - from)) / (until - from) - left}%`,
    };
  };
  const said = one.around.map(
    (time) => `${words.around[time.sort]} ${shortSpanText(time.start, time.end)}`,
  );
  return (
    <span
      className={styles.around}
      role="img"
      aria-label={said.join(', ') || words.nothingAround}
      title={said.join('\n')}
    >
      {one.around.map((time, at) => (
        <i
          key={at}
          className={`${styles[time.sort.toLowerCase()]} ${time.tentative ? styles.tentative : ''}`}
          style={place(time)}
        />
      ))}
      <b style={place(span)} />
    </span>
  );
}
