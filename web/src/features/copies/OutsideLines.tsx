import { Link } from 'react-router';
import { isTrouble } from '../records';
import styles from './copies.module.css';
import { useCopies, useOutsideChanges, useWaiting } from './queries';
import { words } from './words';

/** What of copies wants somebody, in a line each that leads to the page of copies. */
export function OutsideLines() {
  const copies = useCopies();
  const changes = useOutsideChanges();
  const asks = (changes.data ?? []).filter((one) => one.state === 'PROPOSED').length;
  const refused = (copies.data ?? []).filter((one) => one.state === 'REFUSED').length;
  const trouble = (copies.data ?? []).filter(isTrouble).length - refused;
  const still = (copies.data ?? []).filter((one) => one.state === 'ASKED_OFF').length;
  const unknown = useWaiting(true).data?.unknownBusy ?? [];
  const lines = [
    asks > 0 && words.todayAsks(asks),
    refused > 0 && words.todayRefused(refused),
    trouble > 0 && words.todayTrouble(trouble),
    still > 0 && words.todayStill(still),
    unknown.length > 0 && words.unknownBusy(unknown),
  ].filter((line): line is string => typeof line === 'string');
  if (lines.length === 0) {
    return null;
  }
  return (
    <p className={styles.today}>
      {lines.map((line) => (
        <Link key={line} to="/copies">
          {line}
        </Link>
      ))}
    </p>
  );
}
