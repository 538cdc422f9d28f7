import { Button } from 'antd';
import { addDays, clockOf, laterOnClock, localAt, shortDayText } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import styles from './cover.module.css';
import { useWhenCould, type Starts, type WhenAsked } from './queries';
import { words } from './words';

/** When people could do something together, a line a day; a start is taken by its button. */
export function WhenCould({
  asked,
  onPick,
}: {
  asked: WhenAsked;
  /** As 2026-11-25T08:30, at the site. */
  onPick: (start: string) => void;
}) {
  const when = useWhenCould(asked);
  if (when.isPending) {
    return <Loading what={words.whenLooking} />;
  }
  if (when.error) {
    return <Fault error={when.error} reads />;
  }
  const { zone, starts } = when.data;
  const local = (at: string) => localAt(Date.parse(at), zone);
  const days = Array.from({ length: asked.days }, (_, n) => addDays(asked.from, n));
  return (
    <table className={styles.whenCould} aria-label={words.whenCould}>
      <tbody>
        <tr>
          <th scope="row">{words.bestStarts}</th>
          <td>
            {best(days.flatMap((day) => starts.flatMap((one) => on(one, day, local)))).map(
              (one) => (
                <Button
                  key={one.day + one.from}
                  size="small"
                  type={one.verdict === 'YES' ? 'primary' : 'default'}
                  title={why(one.against)}
                  aria-label={words.startAt(shortDayText(one.day), one.from, why(one.against))}
                  onClick={() => onPick(`${one.day}T${one.from}`)}
                >
                  {shortDayText(one.day)} {one.from}
                </Button>
              ),
            )}
          </td>
        </tr>
        {days.map((day) => {
          const here = starts.flatMap((one) => on(one, day, local));
          const free = here.filter((one) => one.verdict === 'YES');
          const others = here.filter((one) => one.verdict !== 'YES');
          const offered =
            free.length > 0 ? free : joined(here.filter((one) => one.verdict === 'WITH_REASON'));
          return (
            <tr key={day}>
              <th scope="row">{shortDayText(day)}</th>
              <td>
                {offered.map((one) => (
                  <Button
                    key={one.from}
                    size="small"
                    className={one.verdict === 'YES' ? styles.fits : styles.fitsWith}
                    title={why(one.against)}
                    aria-label={words.startAt(shortDayText(day), one.from, why(one.against))}
                    onClick={() => onPick(`${day}T${one.from}`)}
                  >
                    {one.from === one.last ? one.from : `${one.from} – ${one.last}`}
                  </Button>
                ))}
                {others.length > 0 && (
                  <span className={styles.free} title={each(others)}>
                    {words.elsewhen(short(others), free.length > 0)}
                  </span>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

interface OnDay {
  day: string;
  verdict: Starts['verdict'];
  against: Starts['against'];
  from: string;
  last: string;
}

const OFFERED = 3;
/** When nobody has hours of their own, nobody is asked to begin at night. */
const DAY_BEGINS = '07:00';
const DAY_ENDS = '18:00';

/** The first start of each day within working hours: with least against it, then the soonest. */
function best(runs: OnDay[]): OnDay[] {
  const reasons = (one: OnDay) => new Set(one.against.map((a) => a.person + a.why)).size;
  const byDay = new Map<string, OnDay>();
  for (const run of runs) {
    const from = run.from < DAY_BEGINS ? DAY_BEGINS : run.from;
    const before = byDay.get(run.day);
    if (
      run.verdict !== 'NO' &&
      from <= run.last &&
      from < DAY_ENDS &&
      (!before || reasons(run) < reasons(before))
    ) {
      byDay.set(run.day, { ...run, from });
    }
  }
  return [...byDay.values()]
    .sort((a, b) => reasons(a) - reasons(b) || a.day.localeCompare(b.day, 'en'))
    .slice(0, OFFERED);
}

/** What of a run of starts lies on one day. */
function on(one: Starts, day: string, local: (at: string) => string): OnDay[] {
  const [first, last] = [local(one.first), local(one.last)];
  if (first.slice(0, 10) > day || last.slice(0, 10) < day) {
    return [];
  }
  return [
    {
      day,
      verdict: one.verdict,
      against: one.against,
      from: first.slice(0, 10) < day ? '00:00' : clockOf(first),
      last: last.slice(0, 10) > day ? '23:45' : clockOf(last),
    },
  ];
}

/** Neighbouring runs as one, with all that speaks against any of it. */
function joined(runs: OnDay[]): OnDay[] {
  const found: OnDay[] = [];
  for (const one of runs) {
    const before = found.at(-1);
    if (before && laterOnClock(`2000-01-01T${before.last}`, 0, 15).endsWith(one.from)) {
      found[found.length - 1] = {
        ...before,
        last: one.last,
        against: [...before.against, ...one.against],
      };
    } else {
      found.push(one);
    }
  }
  return found;
}

/** What speaks against the other starts, each once. */
function short(others: OnDay[]): string {
  const all = others.flatMap((one) => one.against.map((reason) => words.reasons[reason.why]));
  return [...new Set(all)].join(', ');
}

/** Every other start with what speaks against it. */
function each(others: OnDay[]): string {
  return others.map((one) => `${one.from} – ${one.last} ${why(one.against)}`).join('\n');
}

/** Each reason once, with whose it is. */
function why(against: Starts['against']): string {
  return [...new Set(against.map((one) => `${one.name}: ${words.reasons[one.why]}`))].join(', ');
}
