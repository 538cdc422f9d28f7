import { Button } from 'antd';
import type { UseQueryResult } from '@tanstack/react-query';
import { useState } from 'react';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { Table } from '../../shared/ui/Table';
import styles from './cover.module.css';
import { DaysAround } from './DaysAround';
import type { Answer } from './queries';
import { reasonText, words } from './words';

const WHERE_NOBODY_COULD = 10;

/** Everybody: who could first, each with what speaks against it; who cannot on asking. */
export function Candidates({
  who,
  span,
  pending,
  onGive,
}: {
  who: UseQueryResult<Answer[]>;
  /** Of what they would do. */
  span: { start: string; end: string };
  /** To whom it is being given. */
  pending: number | null;
  onGive: (one: Answer) => void;
}) {
  const [all, setAll] = useState(false);
  if (who.isPending) {
    return <Loading what={words.loading} />;
  }
  if (who.error) {
    return <Fault error={who.error} reads />;
  }
  const minutes = (Date.parse(span.end) - Date.parse(span.start)) / 60_000;
  const could = who.data.filter((one) => one.verdict !== 'NO');
  const cannot = who.data.filter((one) => one.verdict === 'NO');
  // Where nobody could, why is what is asked.
  const shown = all ? cannot : could.length === 0 ? cannot.slice(0, WHERE_NOBODY_COULD) : [];
  return (
    <>
      <Table
        className={`${styles.table} ${styles.candidates}`}
        heads={[
          words.whoCould(could.length, who.data.length),
          words.week,
          words.days,
          words.why,
          { unseen: words.give },
        ]}
      >
        {[...could, ...shown].map((one, at) => (
          <tr key={one.person}>
            <th scope="row">{one.name}</th>
            <td className={styles.amount}>
              {words.weekHours(one.weekMinutes, one.weekMinutes + minutes)}
            </td>
            <td className={styles.days}>
              <DaysAround one={one} span={span} />
            </td>
            <td className={one.reasons.length > 0 ? styles.against : styles.free}>
              {[
                one.reasons.length === 0
                  ? words.free
                  : one.reasons.map((why) => reasonText(why)).join(', '),
                one.hoursUnsaid && words.hoursUnsaid,
                one.wayMinutes !== undefined && words.way(one.wayMinutes),
              ]
                .filter(Boolean)
                .join(', ')}
            </td>
            <td className={styles.buttons}>
              {one.verdict === 'NO' ? (
                <span className={styles.free}>{words.cannot}</span>
              ) : (
                <Button
                  size="small"
                  type={at === 0 && one.verdict === 'YES' ? 'primary' : 'default'}
                  loading={pending === one.person}
                  aria-label={`${one.verdict === 'YES' ? words.give : words.giveAnyway}: ${one.name}`}
                  onClick={() => onGive(one)}
                >
                  {one.verdict === 'YES' ? words.give : words.giveAnyway}
                </Button>
              )}
            </td>
          </tr>
        ))}
      </Table>
      {shown.length < cannot.length && (
        <p className={styles.quiet}>
          {words.rest(cannot.length - shown.length)} ·{' '}
          <Button className={styles.inline} type="link" size="small" onClick={() => setAll(true)}>
            {words.show}
          </Button>
        </p>
      )}
    </>
  );
}
