import { Button } from 'antd';
import { useState } from 'react';
import { ProblemError, type Schemas } from '../../shared/api/client';
import { spanText } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { useTray } from '../../shared/ui/tray';
import { useReleases, useYes } from '../records';
import { Part } from './Part';
import styles from './today.module.css';
import { words } from './words';

type One = Schemas['WaitingEntry'];
type Entry = Schemas['SightEntry'];

/** What waits for a yes: said to one, or to all that stand here. */
export function Waiting({ open }: { open: (id: number) => void }) {
  const waiting = useReleases(true);
  const yes = useYes();
  const tray = useTray();
  const [shown, setShown] = useState<number | null>(null);
  if (waiting.error) {
    return <Fault error={waiting.error} reads />;
  }
  const all = waiting.data ?? [];
  const say = (some: One[]) =>
    yes.mutate(
      some.map(({ entry, as }) => ({ entry, as })),
      {
        onSuccess: (done) => tray.tell({ text: words.released(some.length), act: done.act }),
        onError: (error) =>
          tray.tell({ text: error instanceof ProblemError ? error.message : words.failed }),
      },
    );
  return (
    <Part
      name={words.waiting}
      count={all.length}
      asks
      folds="waiting"
      extra={
        all.length > 1 && (
          <Button size="small" loading={yes.isPending} onClick={() => say(all)}>
            {words.yesToAll(all.length)}
          </Button>
        )
      }
    >
      {all.map((one) => (
        <li key={one.entry}>
          <div className={styles.line}>
            <button
              type="button"
              className={`${styles.what} ${styles.asks}`}
              onClick={() => open(one.record)}
            >
              <span className={styles.ref}>{one.ref}</span>
              <span className={styles.name}>{one.title || words.work}</span>
              <span className={styles.where}>{one.name}</span>
              <span className={styles.when}>{told(one)}</span>
            </button>
            <span className={styles.answers}>
              <Button
                size="small"
                type="text"
                aria-expanded={shown === one.entry}
                onClick={() => setShown(shown === one.entry ? null : one.entry)}
              >
                {words.look}
              </Button>
              <Button size="small" loading={yes.isPending} onClick={() => say([one])}>
                {words.yes}
              </Button>
            </span>
          </div>
          {shown === one.entry && (
            <div className={styles.compared}>
              <Side heading={words.theyHave(one.readers)} entry={one.before} />
              <Side heading={words.theyWouldGet} entry={one.after} />
            </div>
          )}
        </li>
      ))}
    </Part>
  );
}

/** What is new about it, in a few words. */
function told({ before, after }: One): string {
  if (!before || !after) {
    return after ? words.isNew(spanText(after.times)) : words.hidden;
  }
  const was = spanText(before.times);
  const is = spanText(after.times);
  const parts = (['title', 'place', 'text', 'busy', 'invited', 'reminders'] as const).filter(
    (part) => JSON.stringify(before[part]) !== JSON.stringify(after[part]),
  );
  return [...(was === is ? [] : [is]), ...parts.map((p) => words.parts[p])].join(', ');
}

function Side({ heading, entry }: { heading: string; entry?: Entry }) {
  return (
    <section>
      <h3>{heading}</h3>
      {entry ? (
        <>
          <strong>{entry.title}</strong>
          <span>{spanText(entry.times)}</span>
          {entry.place && <span>{entry.place}</span>}
          {entry.text && <p>{entry.text}</p>}
        </>
      ) : (
        <span className={styles.note}>{words.nothingYet}</span>
      )}
    </section>
  );
}
