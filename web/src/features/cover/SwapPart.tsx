import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { errorText } from '../../shared/api/client';
import { shortSpanText } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { useTray } from '../../shared/ui/tray';
import { Table } from '../../shared/ui/Table';
import styles from './cover.module.css';
import { useCoverDeeds, useSwaps, type Held, type Swap } from './queries';
import { againstText, words } from './words';

const FIRST = 8;

/** What somebody could change a visit of theirs for: what both could first. */
export function SwapPart({ held, name, what }: { held: Held; name: string; what: string }) {
  const swaps = useSwaps(held);
  const { swap } = useCoverDeeds();
  const tray = useTray();
  const [most, setMost] = useState(FIRST);
  if (swaps.isPending) {
    return <Loading what={words.swapping} />;
  }
  if (swaps.error) {
    return <Fault error={swaps.error} reads />;
  }
  const could = swaps.data.filter((one) => one.verdict !== 'NO');
  const cannot = swaps.data.length - could.length;
  const theirs = (one: Swap) => [one.ref, one.title].filter(Boolean).join(' ') || words.work;
  const change = (one: Swap) =>
    swap.mutate(
      {
        sides: [
          { record: held.record, visit: held.visit, person: held.from },
          { record: one.record, visit: one.visit, person: one.person },
        ],
      },
      {
        onSuccess: (done) =>
          tray.tell({ text: words.swapped(what, one.name, theirs(one), name), act: done.act }),
        onError: (error) => tray.tell({ text: errorText(error) }),
      },
    );
  return (
    <>
      <h3>{words.swaps(what)}</h3>
      {could.length === 0 ? (
        <p className={styles.quiet}>{words.noSwap}</p>
      ) : (
        <Table
          className={styles.table}
          heads={[words.swapWith, words.swapFor, words.when, words.why, { unseen: words.swap }]}
        >
          {could.slice(0, most).map((one, at) => {
            const against = againstText(one, name);
            const label = one.verdict === 'YES' ? words.swap : words.swapAnyway;
            const busy =
              swap.isPending &&
              swap.variables.sides[1]?.record === one.record &&
              swap.variables.sides[1].person === one.person;
            return (
              <tr key={`${one.record}/${one.visit}/${one.person}`}>
                <th scope="row">{one.name}</th>
                <td>
                  <Link to={`/records/${one.record}`}>{theirs(one)}</Link>
                </td>
                <td>{shortSpanText(one.start, one.end)}</td>
                <td className={against ? styles.against : styles.free}>
                  {against || words.bothCould}
                </td>
                <td className={styles.buttons}>
                  <Button
                    size="small"
                    type={at === 0 ? 'primary' : 'default'}
                    loading={busy}
                    aria-label={`${label}: ${one.name}, ${theirs(one)}`}
                    onClick={() => change(one)}
                  >
                    {label}
                  </Button>
                </td>
              </tr>
            );
          })}
        </Table>
      )}
      <p className={styles.quiet}>
        {could.length > most && (
          <>
            {words.moreSwaps(could.length - most)} ·{' '}
            <Button
              className={styles.inline}
              type="link"
              size="small"
              onClick={() => setMost(could.length)}
            >
              {words.show}
            </Button>{' '}
          </>
        )}
        {cannot > 0 && words.noSwaps(cannot)}
      </p>
    </>
  );
}
