import { Button } from 'antd';
import { momentText } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { useTray } from '../../shared/ui/tray';
import { settledSaid } from '../../shared/words';
import { useUndo } from '../records';
import { Table } from '../../shared/ui/Table';
import styles from './crew.module.css';
import { useChangeLog, type LoggedChange } from './queries';
import { words } from './words';

/** So many lines of what one act changed are shown. */
const SHOWN = 4;

/** What it was; of one that took another back, what that was. */
function said(one: LoggedChange) {
  return one.undoes ? words.tookBack(settledSaid(one.undoes)) : settledSaid(one.kind);
}

/** What was settled for the crew and the house, by whom, and the way back. */
export function ChangeLog() {
  const settled = useChangeLog();
  const undo = useUndo();
  const tray = useTray();
  if (settled.error) {
    return <Fault error={settled.error} reads />;
  }
  if (!settled.data) {
    return <Loading what={words.loading} />;
  }
  const all = settled.data.pages.flatMap((page) => page.items);
  if (all.length === 0) {
    return <p className={styles.teach}>{words.noChanges}</p>;
  }
  const takeBack = (one: LoggedChange) =>
    undo.mutate(one.act, {
      onSuccess: (done) => tray.tell({ text: settledSaid('settled.undo'), act: done.act }),
    });
  return (
    <>
      {undo.error && <Fault error={undo.error} />}
      <div className={styles.scroll}>
        <Table
          className={styles.told}
          heads={[words.when, words.who, words.whatChanged, words.about, { unseen: words.undo }]}
        >
          {all.map((one) => (
            <tr key={one.act} className={one.undone ? styles.faded : undefined}>
              <td className="number">{momentText(one.at)}</td>
              <td>{one.who}</td>
              <td>
                {said(one)}
                {one.lines.slice(0, SHOWN).map((line) => (
                  <div key={line.label} className={styles.quiet}>
                    {line.label}: {line.before && <s>{line.before}</s>}
                    {line.before && line.after && ' → '}
                    {line.after}
                  </div>
                ))}
                {one.lines.length > SHOWN && (
                  <div className={styles.quiet}>{words.more(one.lines.length - SHOWN)}</div>
                )}
              </td>
              <td title={one.about.join(', ')}>{words.aboutMore(one.about)}</td>
              <td className={styles.buttons}>
                {one.undone ? (
                  <span className={styles.wasUndone}>{words.wasUndone}</span>
                ) : (
                  <Button
                    size="small"
                    loading={undo.isPending && undo.variables === one.act}
                    aria-label={`${words.undo}: ${said(one)}, ${one.who}, ${momentText(one.at)}`}
                    onClick={() => takeBack(one)}
                  >
                    {words.undo}
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </Table>
      </div>
      {settled.hasNextPage && (
        <Button
          className={styles.earlier}
          loading={settled.isFetchingNextPage}
          onClick={() => void settled.fetchNextPage()}
        >
          {words.earlier}
        </Button>
      )}
    </>
  );
}
