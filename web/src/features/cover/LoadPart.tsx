import { Button } from 'antd';
import { daysBetween, daysText, addDays } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { Table } from '../../shared/ui/Table';
import styles from './cover.module.css';
import { useLoads, type Load } from './queries';
import { hours, words } from './words';

/** A bar reaches the top of its line with so many minutes. */
const FULL = 12 * 60;

/** For whom nobody has said how long their week is. */
const USUAL_WEEK = 40 * 60;

const sum = (all: number[]) => all.reduce((one, other) => one + other, 0);

/** How much each has in these days, who has most of what their contract says first. */
export function LoadPart({
  from,
  until,
  onClose,
}: {
  from: string;
  until: string;
  onClose: () => void;
}) {
  const loads = useLoads(from, until);
  const weeks = daysBetween(from, until) / 7;
  const part = (one: Load) =>
    (sum(one.work) + sum(one.given)) / ((one.contractMinutes ?? USUAL_WEEK) * weeks);
  const over = (one: Load) => one.contractMinutes !== undefined && part(one) > 1;
  return (
    <section className={styles.who} aria-label={words.hours}>
      <h2>
        {words.hours}, {daysText(from, addDays(until, -1))}
        <Button size="small" className={styles.beside} onClick={onClose}>
          {words.close}
        </Button>
      </h2>
      {loads.isPending ? (
        <Loading what={words.adding} />
      ) : loads.error ? (
        <Fault error={loads.error} reads />
      ) : (
        <Table
          className={styles.table}
          heads={[
            words.who,
            words.byDay,
            { figure: words.timed },
            { figure: words.givenWork },
            { figure: words.maybe },
            { figure: words.ofContract },
            words.besides,
          ]}
        >
          {[...loads.data]
            .sort((one, other) => part(other) - part(one) || one.name.localeCompare(other.name))
            .map((one) => (
              <tr key={one.person}>
                <th scope="row">{one.name}</th>
                <td>
                  <Days load={one} />
                </td>
                <td className={styles.figure}>{hours(sum(one.work))} h</td>
                <td className={styles.figure}>{some(sum(one.given))}</td>
                <td className={styles.figure}>{some(sum(one.maybe) + sum(one.givenMaybe))}</td>
                <td className={`${styles.figure} ${over(one) ? styles.against : ''}`}>
                  {one.contractMinutes === undefined
                    ? words.noContract
                    : words.contract(part(one), one.contractMinutes * weeks)}
                </td>
                <td>{words.beside(sum(one.wholeDays), one.unestimated)}</td>
              </tr>
            ))}
        </Table>
      )}
    </section>
  );
}

function some(minutes: number): string {
  return minutes === 0 ? '' : `${hours(minutes)} h`;
}

/** A bar a day: what is at a time below, what is to be done by a day above it. */
function Days({ load }: { load: Load }) {
  const bar = (day: number, from: number, minutes: number) =>
    minutes === 0 ? '' : `M${day} ${FULL - from}h0.8V${Math.max(0, FULL - from - minutes)}h-0.8Z`;
  return (
    <svg
      className={styles.loadDays}
      viewBox={`0 0 ${load.work.length} ${FULL}`}
      preserveAspectRatio="none"
      aria-hidden="true"
    >
      <path className={styles.loadWork} d={load.work.map((m, n) => bar(n, 0, m)).join('')} />
      <path
        className={styles.loadGiven}
        d={load.given.map((m, n) => bar(n, load.work[n] ?? 0, m)).join('')}
      />
    </svg>
  );
}
