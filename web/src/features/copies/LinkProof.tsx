import { Button } from 'antd';
import { useEffect, useRef } from 'react';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import styles from './copies.module.css';
import type { Proved } from './model';
import { useLinkDeeds, useLinks } from './queries';
import { words } from './words';

/** A test entry written to the calendar that was just linked, as it was sent and as it came back. */
export function LinkProof({ link, onDone }: { link: number; onDone: () => void }) {
  const links = useLinks();
  const { prove } = useLinkDeeds();
  const begun = useRef(false);
  const known = links.data?.find((one) => one.id === link);
  const written = known?.calendars.find((one) => one.writes !== undefined);
  const { mutate } = prove;
  useEffect(() => {
    if (written && !begun.current) {
      begun.current = true;
      mutate({ id: link, calendar: written.id });
    }
  }, [link, written, mutate]);
  const nothing = known && !written;
  return (
    <>
      {nothing && <p className={styles.good}>{words.onlyRead}</p>}
      {!nothing && prove.isPending && <Loading what={words.proving} />}
      {prove.error && <Fault error={prove.error} />}
      {prove.data && <Proof proof={prove.data} />}
      <div className={styles.answers}>
        <Button type="primary" autoFocus onClick={onDone}>
          {words.done}
        </Button>
        {prove.data && !prove.data.good && written && (
          <Button onClick={() => mutate({ id: link, calendar: written.id })}>{words.prove}</Button>
        )}
      </div>
    </>
  );
}

/** What was sent and what was read back, side by side. */
export function Proof({ proof }: { proof: Proved }) {
  return (
    <div className={styles.proof} role="status">
      <p className={proof.good ? styles.good : styles.bad}>{proof.words}</p>
      {proof.steps
        .filter((step) => step.sent)
        .map((step) => (
          <dl key={step.what} className={styles.sides}>
            <div>
              <dt>
                {step.what}: {words.sent.toLowerCase()}
              </dt>
              <dd>{step.sent}</dd>
            </div>
            <div>
              <dt>
                {words.theirs.toLowerCase()}, {words.proven(step.good)}
              </dt>
              <dd>{step.read}</dd>
            </div>
          </dl>
        ))}
    </div>
  );
}
