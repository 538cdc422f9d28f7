import { Button } from 'antd';
import { momentText } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { useTray } from '../../shared/ui/tray';
import { Section } from './Section';
import { useHistory, useUndo } from './queries';
import styles from './records.module.css';
import { words } from './words';

export function History({ id }: { id: number }) {
  const history = useHistory(id);
  const undo = useUndo();
  const tray = useTray();
  const takeBack = (act: number) =>
    undo.mutate(act, {
      onSuccess: (done) =>
        tray.tell({
          text: done.leaves ? words.left(done.leaves.join(', ')) : 'Taken back',
          act: done.act,
        }),
    });
  return (
    <Section name={words.history}>
      {history.error && <Fault error={history.error} reads />}
      {undo.error && <Fault error={undo.error} />}
      <ol className={styles.history}>
        {history.data?.map((act) => (
          <li key={act.act}>
            <div className={styles.actLine}>
              <span>
                <strong>{act.who}</strong> {words.acts[act.kind] ?? 'changed'}
                {act.undone ? ` (${words.undone})` : ''}
              </span>
              <span className={`${styles.quiet} number`}>{momentText(act.at)}</span>
              {act.mayUndo && (
                <Button
                  size="small"
                  onClick={() => takeBack(act.act)}
                  loading={undo.isPending && undo.variables === act.act}
                  aria-label={`${words.undo}: ${act.who}, ${momentText(act.at)}`}
                >
                  {words.undo}
                </Button>
              )}
            </div>
            {act.reason && <div className={styles.small}>“{act.reason}”</div>}
            {act.kind !== 'record.create' &&
              act.changes.map((c) => (
                <div key={c.label} className={styles.small}>
                  {c.label}: <s>{c.before || words.nothing}</s> → {c.after || words.nothing}
                </div>
              ))}
          </li>
        ))}
      </ol>
    </Section>
  );
}
