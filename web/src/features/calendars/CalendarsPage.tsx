import { Input } from 'antd';
import { useDeferredValue, useState } from 'react';
import { Link } from 'react-router';
import { useRead } from '../../shared/api/ask';
import { api, type Schemas } from '../../shared/api/client';
import { useCalendars } from '../../shared/api/house';
import { keys } from '../../shared/api/keys';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { Table } from '../../shared/ui/Table';
import styles from './calendars.module.css';
import { words } from './words';

type Calendar = Schemas['Calendar'];
type Week = Schemas['CalendarWeek'];

const SORTS = ['MASTER', 'TEAM', 'PLACE', 'NAMED', 'DATE_LIST', 'OWN'] as const;

const useWeek = () => useRead(keys.calendarWeek, () => api.GET('/api/v1/calendars/week'));

/** Every calendar that one may read: what stands on it, who reads it and what lands there. */
export function CalendarsPage() {
  const calendars = useCalendars();
  const week = useWeek();
  const [find, setFind] = useState('');
  const sought = useDeferredValue(find.trim().toLowerCase());
  const error = calendars.error ?? week.error;
  if (error) {
    return <Fault error={error} reads />;
  }
  if (!calendars.data || !week.data) {
    return <Loading what={words.loading} />;
  }
  const weeks = new Map(week.data.map((one) => [one.calendar, one]));
  const shown = calendars.data.filter((one) => one.name.toLowerCase().includes(sought));
  const office = week.data.some((one) => one.rules);
  const listed = week.data.some((one) => one.readers.length > 0);
  return (
    <section className={styles.page} aria-label={words.heading}>
      <div className={styles.bar}>
        <h1 className={styles.heading}>{words.heading}</h1>
        <Input
          className={styles.find}
          allowClear
          aria-label={words.find}
          placeholder={words.find}
          value={find}
          onChange={(event) => setFind(event.target.value)}
        />
        <span className={styles.quiet}>{words.count(shown.length)}</span>
      </div>
      {shown.length === 0 && <p className={styles.quiet}>{words.none}</p>}
      {shown.length > 0 && (
        <div className={styles.scroll} role="region" aria-label={words.heading} tabIndex={0}>
          <Table heads={[words.name, words.week, listed && words.readers, office && words.rules]}>
            {SORTS.map((sort) => (
              <Rows
                key={sort}
                sort={sort}
                all={shown.filter((one) => one.sort === sort)}
                weeks={weeks}
                office={office}
                listed={listed}
              />
            ))}
          </Table>
        </div>
      )}
    </section>
  );
}

/** Those of one sort, under what they are. */
function Rows({
  sort,
  all,
  weeks,
  office,
  listed,
}: {
  sort: (typeof SORTS)[number];
  all: Calendar[];
  weeks: Map<number, Week>;
  office: boolean;
  listed: boolean;
}) {
  if (all.length === 0) {
    return null;
  }
  return (
    <>
      <tr className={styles.sort}>
        <th scope="rowgroup" colSpan={2 + Number(listed) + Number(office)}>
          {words.sorts[sort]}
        </th>
      </tr>
      {all.map((one) => (
        <tr key={one.id}>
          <th scope="row">
            <Link to={`/board?calendars=${one.id}`}>{one.name}</Link>
          </th>
          <td className="number">{words.entries(weeks.get(one.id)?.entries ?? 0)}</td>
          {listed && <td className={styles.quiet}>{readersText(weeks.get(one.id))}</td>}
          {office && (
            <td className={styles.quiet}>{words.rulesText(weeks.get(one.id)?.rules ?? [])}</td>
          )}
        </tr>
      ))}
    </>
  );
}

function readersText(week: Week | undefined): string {
  return (week?.readers ?? [])
    .map((one) => [words.ways[one.way], one.readers].filter(Boolean).join(' '))
    .join(' · ');
}
