import { Input, Select } from 'antd';
import { useDeferredValue, useState } from 'react';
import { ProblemError, type Schemas } from '../../shared/api/client';
import { dueText, spanText } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { reason, useFound, useShortLine } from '../records';
import { useTry, type Wish } from './queries';
import styles from './rules.module.css';
import { words } from './words';

interface Props {
  set: Wish;
  /** Where it lands and why, or how each audience reads it. */
  show: 'landings' | 'entries';
}

/** A record, a real one or one typed here, against the set as it stands on the page. */
export function TryRecord({ set, show }: Props) {
  const [find, setFind] = useState('');
  const [record, setRecord] = useState<number | null>(null);
  const [line, setLine] = useState('');
  const found = useFound(find, 'TENTATIVE,CONFIRMED');
  const typed = useShortLine(useDeferredValue(line));
  const wish = useDeferredValue(
    typed.wish ? { ...set, typed: typed.wish } : record !== null ? { ...set, record } : null,
  );
  const tried = useTry(wish);
  return (
    <section aria-label={words.tryHeading}>
      <h2>{words.tryHeading}</h2>
      <Select
        className={styles.wide}
        showSearch
        filterOption={false}
        aria-label={words.tryOn}
        placeholder={words.tryOn}
        value={line ? null : record}
        onSearch={setFind}
        onChange={(chosen: number | null) => {
          setRecord(chosen);
          setLine('');
        }}
        options={(found.data?.items ?? []).map((one) => ({
          value: one.id,
          label: [one.ref, one.title, dueText(one.due)].filter(Boolean).join(' '),
        }))}
      />
      <Input
        className={styles.typed}
        aria-label={words.tryTyped}
        placeholder={words.tryTyped}
        value={line}
        onChange={(event) => setLine(event.target.value)}
      />
      {typed.faults.map((fault) => (
        <p key={fault} className={styles.misheard} role="alert">
          {fault}
        </p>
      ))}
      {!wish && (
        <p className={styles.quiet}>{show === 'landings' ? words.tryWhy : words.tryRead}</p>
      )}
      {wish && tried.error && <NotTried error={tried.error} />}
      {wish &&
        !tried.error &&
        tried.data &&
        (show === 'landings' ? (
          <Landed landings={tried.data.landings} />
        ) : (
          <Read audiences={tried.data.sight.audiences} />
        ))}
    </section>
  );
}

/** While something is being typed it often cannot be read yet; that is told without alarm. */
function NotTried({ error }: { error: Error }) {
  const faults = error instanceof ProblemError ? error.problem.faults : undefined;
  return faults ? (
    <p className={styles.quiet} role="status">
      {words.notReadable(faults[0]?.message ?? '')}
    </p>
  ) : (
    <Fault error={error} />
  );
}

function Landed({ landings }: { landings: Schemas['LandingView'] }) {
  return (
    <ul className={styles.tried}>
      {landings.lands.map((one, i) => (
        <li key={i}>
          <strong>{one.why.map((w) => w.subject.split(':')[0]).join(', ')}</strong>
          <span>
            {one.name}
            <small>
              {one.times ? `${spanText(one.times)} · ` : ''}
              {words.seen(one.asked, one.ofDetails)}
            </small>
          </span>
        </li>
      ))}
      {absences(landings.nowhere).map(([why, names]) => (
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
  );
}

/** The entry as each audience gets it. */
function Read({ audiences }: { audiences: Schemas['SightAudience'][] }) {
  return audiences.length === 0 ? (
    <p className={styles.quiet}>{words.landsNowhere}</p>
  ) : (
    <ul className={styles.read}>
      {audiences.map((one, i) => (
        <li key={i}>
          <small title={one.readers}>{one.name}</small>
          {one.entry ? (
            <>
              <strong>{one.entry.title}</strong>
              {one.entry.place && <span>{one.entry.place}</span>}
              {one.entry.text && <p>{one.entry.text}</p>}
            </>
          ) : (
            <span className={styles.quiet}>{words.noEntry}</span>
          )}
        </li>
      ))}
    </ul>
  );
}

type Absence = Schemas['Nowhere'];

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
