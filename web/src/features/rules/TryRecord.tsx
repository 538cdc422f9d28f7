import { useState } from 'react';
import { Select } from 'antd';
import { dueText, spanText } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { reason, useFound } from '../records';
import { useTry, type Wish } from './queries';
import styles from './rules.module.css';
import { words } from './words';

/** A real record against the rules as they stand on the page: every landing, every absence. */
export function TryRecord({ set }: { set: Wish }) {
  const [find, setFind] = useState('');
  const [record, setRecord] = useState<number | null>(null);
  const found = useFound(find, 'TENTATIVE,CONFIRMED');
  const tried = useTry(record === null ? null : { ...set, record });
  return (
    <section aria-label={words.tryHeading}>
      <h2>{words.tryHeading}</h2>
      <Select
        className={styles.wide}
        showSearch
        filterOption={false}
        aria-label={words.tryOn}
        placeholder={words.tryOn}
        value={record}
        onSearch={setFind}
        onChange={setRecord}
        options={(found.data?.items ?? []).map((one) => ({
          value: one.id,
          label: [one.ref, one.title, dueText(one.due)].filter(Boolean).join(' '),
        }))}
      />
      {record === null && <p className={styles.quiet}>{words.tryWhy}</p>}
      {tried.error && <Fault error={tried.error} />}
      <ul className={styles.tried}>
        {(tried.data?.lands ?? []).map((one, i) => (
          <li key={i}>
            <strong>{one.why.map((w) => w.subject.split(':')[0]).join(', ')}</strong>
            <span>
              {one.name}
              <small>
                {spanText(one.times)} · {words.seen(one.asked, one.ofDetails)}
              </small>
            </span>
          </li>
        ))}
        {absences(tried.data?.nowhere ?? []).map(([why, names]) => (
          <li key={why} className={styles.absent}>
            <strong>{words.noRule}</strong>
            <span>
              {names.slice(0, 3).join(', ')}
              {names.length > 3 && ` and ${names.length - 3} more`}
              <small>{why}</small>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

type Absence = { name: string; why: { code: string; subject: string } };

/** Calendars it stays off for the same reason, together. */
function absences(all: Absence[]): [string, string[]][] {
  const found = new Map<string, string[]>();
  for (const one of all) {
    // A rule's note would say again what stands beside it.
    const why = reason({ code: one.why.code, subject: one.why.subject.split(':')[0] ?? '' });
    found.set(why, [...(found.get(why) ?? []), one.name]);
  }
  return [...found];
}
