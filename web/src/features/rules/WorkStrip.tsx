import { Button } from 'antd';
import { Fault } from '../../shared/ui/Fault';
import { useTurnWork, useWork } from './queries';
import styles from './rules.module.css';
import { words } from './words';

/** How far the last change has come through the records, while it goes on. */
export function WorkStrip() {
  const work = useWork();
  const turn = useTurnWork();
  const one = work.data?.[0];
  if (!one) {
    return null;
  }
  const runs = one.state === 'RUNNING';
  return (
    <div className={styles.work} role="status">
      <strong>{runs ? words.workGoesOn : words.workStopped}</strong>
      <progress aria-label={words.workDone(one.done, one.total)} value={one.done} max={one.total} />
      <span>
        {words.workDone(one.done, one.total)}, {words.workEntries(one.entries)}
      </span>
      <span className={styles.grow} />
      {turn.error && <Fault error={turn.error} />}
      <Button
        size="small"
        loading={turn.isPending}
        onClick={() => turn.mutate({ act: one.act, on: !runs })}
      >
        {runs ? words.stop : words.goOn}
      </Button>
    </div>
  );
}
