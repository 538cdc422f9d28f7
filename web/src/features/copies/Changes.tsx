import { Button } from 'antd';
import { Link } from 'react-router';
import { errorText } from '../../shared/api/client';
import { momentText } from '../../shared/time';
import { useTray } from '../../shared/ui/tray';
import styles from './copies.module.css';
import { valueText, type Change } from './model';
import { useDecide } from './queries';
import { words } from './words';

/** What was changed there and asks, side by side with what we sent; below it what is settled. */
export function Changes({ changes }: { changes: Change[] }) {
  const decide = useDecide();
  const tray = useTray();
  const asks = changes.filter((one) => one.state === 'PROPOSED');
  const settled = changes.filter((one) => one.state !== 'PROPOSED').slice(0, 20);
  const say = (id: number, taken: boolean) =>
    decide.mutate(
      { id, taken },
      {
        onSuccess: () => tray.tell({ text: taken ? words.taken : words.wasPutBack }),
        onError: (error) => tray.tell({ text: errorText(error) }),
      },
    );
  if (changes.length === 0) {
    return null;
  }
  return (
    <section className={styles.part} aria-label={words.changed}>
      <h2>
        {words.changed} {asks.length > 0 && <span className="number">{asks.length}</span>}
      </h2>
      {asks.length > 0 && <p className={styles.quiet}>{words.changedWhy}</p>}
      <ul className={styles.changes}>
        {asks.map((one) => (
          <li key={one.id}>
            <div className={styles.what}>
              <Link to={`/records/${one.record}`}>{one.title}</Link>
              <span className={styles.quiet}>
                {one.owner}
                {one.there && ` · ${one.there}`} · {momentText(one.at)}
              </span>
            </div>
            <dl className={styles.sides}>
              <div>
                <dt>
                  {words.parts[one.part] ?? one.part}: {words.sent}
                </dt>
                <dd>{valueText(one.part, one.sent)}</dd>
              </div>
              <div>
                <dt>{words.theirs}</dt>
                <dd className={styles.theirs}>{valueText(one.part, one.theirs)}</dd>
              </div>
            </dl>
            {one.words && <p className={styles.quiet}>{one.words}</p>}
            <div className={styles.answers}>
              <Button
                size="small"
                type="primary"
                loading={decide.isPending}
                onClick={() => say(one.id, true)}
              >
                {one.part === 'DELETED' ? words.letOff : words.take}
              </Button>
              <Button size="small" loading={decide.isPending} onClick={() => say(one.id, false)}>
                {words.putBack}
              </Button>
            </div>
          </li>
        ))}
      </ul>
      {settled.length > 0 && (
        <details>
          <summary>
            {words.earlier} ({settled.length})
          </summary>
          <ul className={styles.settled}>
            {settled.map((one) => (
              <li key={one.id}>
                <Link to={`/records/${one.record}`}>{one.title}</Link>
                <span>
                  {words.parts[one.part] ?? one.part}: {valueText(one.part, one.theirs)}
                </span>
                <span className={styles.quiet}>
                  {words.states[one.state]} · {one.owner} · {momentText(one.at)}
                  {one.words && ` · ${one.words}`}
                </span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}
