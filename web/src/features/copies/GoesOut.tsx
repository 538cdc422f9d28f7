import { Button } from 'antd';
import { Link } from 'react-router';
import styles from './copies.module.css';
import { useSendNow, useWaiting } from './queries';
import { words } from './words';

/** What goes out before long, told in the tray. */
export function useGoesOut(enabled: boolean) {
  const waiting = useWaiting(enabled).data;
  return waiting?.goesOutIn === undefined ? null : waiting;
}

/** Said in the tray: so many changes, to so many calendars, in so long. */
export function GoesOut({ waiting }: { waiting: NonNullable<ReturnType<typeof useGoesOut>> }) {
  const send = useSendNow();
  return (
    <>
      <span className={styles.onTheWay}>
        {words.goesOut(waiting.changes, waiting.calendars, waiting.goesOutIn ?? 0)}
      </span>
      <Link className={styles.look} to="/copies">
        {words.lookFirst}
      </Link>
      <Button loading={send.isPending} onClick={() => send.mutate()}>
        {words.sendNow}
      </Button>
    </>
  );
}
