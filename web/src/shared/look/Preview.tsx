import type { Schemas } from '../api/client';
import { Table } from '../ui/Table';
import styles from './look.module.css';
import { words } from './words';

/** What a change does to which calendars; set apart, what is newly shown to whom. */
export function Preview({ preview }: { preview: Schemas['SetPreview'] }) {
  const touched = preview.calendars.filter((c) => c.added + c.changed + c.takenOff > 0);
  return (
    <>
      <Seen heading={words.shown} none={words.shownNone} all={preview.shown} loud />
      {preview.readers.length > 0 && (
        <section
          className={preview.readers.some((r) => r.wider) ? styles.loud : styles.seen}
          aria-label={words.readersHeading}
        >
          <h3>{words.readersHeading}</h3>
          <ul>
            {preview.readers.map((one) => (
              <li key={one.detail}>
                <strong>{one.detail}</strong>
                <span>{words.readersOf(one.before, one.after, one.records)}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      <Seen heading={words.hidden} none={words.hiddenNone} all={preview.hidden} />
      {preview.warnings.length > 0 && (
        <section className={styles.seen} aria-label={words.warningsHeading}>
          <h3>{words.warningsHeading}</h3>
          <ul>
            {preview.warnings.map((one) => (
              <li key={one}>
                <span>{one}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {preview.waits > 0 && <p className={styles.waits}>{words.waits(preview.waits)}</p>}
      {touched.length === 0 ? (
        <p className={styles.quiet}>{words.nothing}</p>
      ) : (
        <div className={styles.preview}>
          <Table heads={[words.calendar, words.added, words.changed, words.takenOff]}>
            {touched.map((one) => (
              <tr key={one.calendar}>
                <th scope="row">{one.name}</th>
                <td>{number(one.added)}</td>
                <td>{number(one.changed)}</td>
                <td>{number(one.takenOff)}</td>
              </tr>
            ))}
          </Table>
        </div>
      )}
    </>
  );
}

function number(n: number): string {
  return n === 0 ? '' : n.toLocaleString('en-GB');
}

function Seen({
  heading,
  none,
  all,
  loud = false,
}: {
  heading: string;
  none: string;
  all: Schemas['SightChange'][];
  loud?: boolean;
}) {
  if (all.length === 0) {
    return <p className={styles.quiet}>{none}</p>;
  }
  const byCalendar = new Map<string, Schemas['SightChange'][]>();
  for (const one of all) {
    const key = `${one.name}: ${one.readers}`;
    byCalendar.set(key, [...(byCalendar.get(key) ?? []), one]);
  }
  return (
    <section className={loud ? styles.loud : styles.seen} aria-label={heading}>
      <h3>{heading}</h3>
      <ul>
        {[...byCalendar].map(([key, some]) => (
          <li key={key}>
            <strong>
              {[...new Set(some.map((one) => words.to(one.detail, one.entries)))].join(', ')}
            </strong>
            <span>{key}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
