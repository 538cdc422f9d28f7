import { Link, useNavigate } from 'react-router';
import { clockOf, shortDayText, today } from '../../shared/time';
import { CoverSoon } from '../cover';
import type { RecordView } from '../records';
import styles from './today.module.css';
import { words } from './words';

/** Cover of the next two days, and two weeks by day without shifts, which the board shows better. */
export function NextDays({ records, open }: { records: RecordView[]; open: (id: number) => void }) {
  const navigate = useNavigate();
  const byDay = new Map<string, { key: string; clock: string; record: RecordView }[]>();
  for (const record of records.filter((r) => r.kind !== 'SHIFT')) {
    const spans = (record.visits ?? []).flatMap((visit) => visit.start ?? visit.first ?? []);
    const due = record.due?.at ?? record.due?.date ?? [];
    for (const moment of spans.length > 0 ? spans : [due].flat()) {
      const day = moment.slice(0, 10);
      const list = byDay.get(day) ?? [];
      list.push({
        key: record.id + moment,
        clock: moment.length > 10 ? clockOf(moment) : '',
        record,
      });
      byDay.set(day, list);
    }
  }
  const days = [...byDay.keys()].sort();
  return (
    <>
      <CoverSoon />
      <div className={styles.ahead}>
        <h2>
          {words.ahead}
          <Link to={`/board/paper?from=${today()}&days=14`}>{words.onPaper}</Link>
        </h2>
        {days.length === 0 && <p className={styles.note}>{words.nothingAhead}</p>}
        {days.map((day) => (
          <section key={day}>
            <h3>
              <button type="button" onClick={() => void navigate(`/board?zoom=day&from=${day}`)}>
                {shortDayText(day)}
              </button>
            </h3>
            <ul>
              {byDay
                .get(day)!
                .sort((a, b) => a.clock.localeCompare(b.clock, 'en'))
                .map(({ key, clock, record }) => (
                  <li key={key}>
                    <button type="button" onClick={() => open(record.id)}>
                      <span className="number">{clock}</span>
                      <span>
                        {record.title ?? words.work}
                        {record.place ? ` · ${record.place.name}` : ''}
                      </span>
                    </button>
                  </li>
                ))}
            </ul>
          </section>
        ))}
      </div>
    </>
  );
}
