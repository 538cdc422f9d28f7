import { useSearchParams } from 'react-router';
import {
  addDays,
  dayNumber,
  daysText,
  dayStart,
  hoursText,
  mondayOf,
  today,
  weekdayText,
} from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { Paper } from '../../shared/ui/Paper';
import paper from '../../shared/ui/paper.module.css';
import styles from './cover.module.css';
import { CoverSummary } from './CoverSummary';
import { useCover, type Ask, type Cover } from './queries';
import { askName, words } from './words';

const WEEK = 7;
const MOST_DAYS = 91;

/** What must be stood day by day, how many are there, and all that is short, on paper. */
export function CoverPaper() {
  const [search] = useSearchParams();
  const from = search.get('from') ?? mondayOf(today());
  const days = Math.min(MOST_DAYS, Math.max(1, Math.trunc(Number(search.get('days'))) || WEEK));
  const until = addDays(from, days);
  const cover = useCover(from, until);
  if (cover.error) {
    return <Fault error={cover.error} reads />;
  }
  if (!cover.data || cover.data.from !== from || cover.data.until !== until) {
    return <Loading what={words.loading} />;
  }
  const weeks = Array.from({ length: Math.ceil(days / WEEK) }, (_, n) => addDays(from, n * WEEK));
  return (
    <Paper
      back={{ to: `/cover?from=${from}`, name: words.backToCover }}
      title={words.coverOf}
      about={daysText(from, addDays(until, -1))}
      across
    >
      <CoverSummary from={from} until={until} />
      {weeks.map((first) => (
        <Week key={first} cover={cover.data} first={first} />
      ))}
    </Paper>
  );
}

function Week({ cover, first }: { cover: Cover; first: string }) {
  const days = Array.from({ length: WEEK }, (_, n) => addDays(first, n)).filter(
    (day) => day < cover.until,
  );
  const asks = cover.asks.filter((ask) => days.some((day) => partsOf(cover, ask, day).length > 0));
  return (
    <table className={paper.cells}>
      <thead>
        <tr>
          <th scope="col">{words.duty}</th>
          {days.map((day) => (
            <th key={day} scope="col">
              {weekdayText(day)} {dayNumber(day)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {asks.map((ask) => (
          <tr key={ask.key}>
            <th scope="row">
              {askName(ask)}
              <span>{[ask.place, ...ask.skills].filter(Boolean).join(', ')}</span>
            </th>
            {days.map((day) => (
              <td key={day}>
                {partsOf(cover, ask, day).map((part) => (
                  <div key={part.when} className={part.short > 0 ? styles.shortOnPaper : undefined}>
                    {part.when} {words.ofNeeded(part.filled, part.needed)}
                    {part.short > 0 && ` · ${words.missing(part.short)}`}
                  </div>
                ))}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** What is required within a day of the duty's zone, in its order. */
function partsOf(cover: Cover, ask: Ask, day: string) {
  const [from, until] = [dayStart(day, ask.zone), dayStart(day, ask.zone, 1)];
  return cover.stretches
    .filter((one) => one.ask === ask.key && one.needed > 0)
    .map((one) => ({
      ...one,
      begins: Math.max(from, Date.parse(one.start)),
      ends: Math.min(until, Date.parse(one.end)),
    }))
    .filter((one) => one.begins < one.ends)
    .map(({ begins, ends, filled, needed }) => ({
      when: hoursText(begins, ends, ask.zone),
      filled: Math.min(filled, needed),
      needed,
      short: ask.tentative ? 0 : Math.max(0, needed - filled),
    }));
}
