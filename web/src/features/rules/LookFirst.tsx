import { Input, Modal } from 'antd';
import { useEffect } from 'react';
import type { Schemas } from '../../shared/api/client';
import { Fault } from '../../shared/ui/Fault';
import styles from './rules.module.css';
import { words } from './words';

interface Props {
  open: boolean;
  outlook: Schemas['SetOutlook'] | undefined;
  error: Error | null;
  taking: boolean;
  /** Work that ended before this day stays as it is. */
  from: string;
  onFrom: (day: string) => void;
  onTake: () => void;
  onLeave: () => void;
}

const TAKE = 'take-the-set';

/** What the edits would do to which calendars; set apart, what is newly shown to whom. */
export function LookFirst(props: Props) {
  const { open, outlook, error, taking, from, onFrom, onTake, onLeave } = props;
  const ready = open && outlook?.finished === true;
  const focusOnIt = () => document.getElementById(TAKE)?.focus();
  useEffect(() => {
    if (ready) {
      focusOnIt();
    }
  }, [ready]);
  const touched = outlook?.calendars.filter((c) => c.added + c.changed + c.takenOff > 0) ?? [];
  return (
    <Modal
      open={open}
      width={720}
      centered
      styles={{ body: { maxHeight: 'calc(100vh - 190px)', overflowY: 'auto' } }}
      title={words.lookHeading}
      okText={words.takeIt}
      cancelText={words.cancel}
      okButtonProps={{ id: TAKE, disabled: !outlook?.finished, loading: taking }}
      afterOpenChange={(isOpen) => isOpen && focusOnIt()}
      onOk={onTake}
      onCancel={onLeave}
    >
      {error && <Fault error={error} />}
      {outlook && (
        <>
          {!outlook.finished && (
            <div className={styles.progress} role="status">
              <progress
                aria-label={words.lookedAt(outlook.records, outlook.total)}
                value={outlook.records}
                max={outlook.total || 1}
              />
              {words.lookedAt(outlook.records, outlook.total)}
            </div>
          )}
          <Seen heading={words.shown} none={words.shownNone} all={outlook.shown} loud />
          {outlook.readers.length > 0 && (
            <section
              className={outlook.readers.some((r) => r.wider) ? styles.loud : styles.seen}
              aria-label={words.readersHeading}
            >
              <h3>{words.readersHeading}</h3>
              <ul>
                {outlook.readers.map((one) => (
                  <li key={one.detail}>
                    <strong>{one.detail}</strong>
                    <span>{words.readersOf(one.before, one.after, one.records)}</span>
                  </li>
                ))}
              </ul>
            </section>
          )}
          <Seen heading={words.hidden} none={words.hiddenNone} all={outlook.hidden} />
          {outlook.warnings.length > 0 && (
            <section className={styles.seen} aria-label={words.warningsHeading}>
              <h3>{words.warningsHeading}</h3>
              <ul>
                {outlook.warnings.map((one) => (
                  <li key={one}>
                    <span>{one}</span>
                  </li>
                ))}
              </ul>
            </section>
          )}
          {outlook.waits > 0 && <p className={styles.waits}>{words.waits(outlook.waits)}</p>}
          {touched.length === 0 ? (
            <p className={styles.quiet}>{words.nothing}</p>
          ) : (
            <div className={styles.outlook}>
              <table>
                <thead>
                  <tr>
                    <th scope="col">{words.calendar}</th>
                    <th scope="col">{words.added}</th>
                    <th scope="col">{words.changed}</th>
                    <th scope="col">{words.takenOff}</th>
                  </tr>
                </thead>
                <tbody>
                  {touched.map((one) => (
                    <tr key={one.calendar}>
                      <th scope="row">{one.name}</th>
                      <td>{number(one.added)}</td>
                      <td>{number(one.changed)}</td>
                      <td>{number(one.takenOff)}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          )}
          <label className={styles.fromDay}>
            {words.fromDay}
            <Input
              type="date"
              size="small"
              value={from}
              onChange={(event) => onFrom(event.target.value)}
            />
            <span className={styles.quiet}>{words.fromDayWhy}</span>
          </label>
        </>
      )}
    </Modal>
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
            <strong>{some.map((one) => words.to(one.detail, one.entries)).join(', ')}</strong>
            <span>{key}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
