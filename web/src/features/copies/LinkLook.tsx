import { Button } from 'antd';
import { Fault } from '../../shared/ui/Fault';
import styles from './copies.module.css';
import { valueText, type Adding, type LookedAt } from './model';
import { words } from './words';

/** What would be sent, the nearest first, and what would be read; nothing has happened yet. */
export function LinkLook({
  look,
  add,
  onBack,
  onLink,
}: {
  look: LookedAt[];
  add: Adding;
  onBack: () => void;
  onLink: () => void;
}) {
  return (
    <>
      <ul className={styles.links}>
        {look.map((one) => (
          <li key={one.href}>
            <strong>{one.name}</strong>
            <p className={styles.quiet}>
              {[
                one.copies > 0 || one.read === 0 ? words.wouldSend(one.copies) : '',
                one.read > 0 ? words.wouldRead(one.read) : '',
              ]
                .filter(Boolean)
                .join(' ')}
            </p>
            <ul className={styles.nearest}>
              {one.nearest.map((entry, at) => (
                <li key={at}>
                  <span>{valueText('TIMES', entry.when)}</span>
                  <span>
                    {entry.title}
                    {entry.place && <small className={styles.sent}>{words.at(entry.place)}</small>}
                    {entry.text && <small className={styles.sent}>{entry.text}</small>}
                  </span>
                </li>
              ))}
              {one.copies > one.nearest.length && one.nearest.length > 0 && (
                <li className={styles.quiet}>{words.more(one.copies - one.nearest.length)}</li>
              )}
            </ul>
          </li>
        ))}
      </ul>
      {add.error && <Fault error={add.error} />}
      <div className={styles.answers}>
        <Button type="primary" autoFocus loading={add.isPending} onClick={onLink}>
          {words.save}
        </Button>
        <Button onClick={onBack}>{words.back}</Button>
      </div>
    </>
  );
}
