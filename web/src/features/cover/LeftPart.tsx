import { Button, Checkbox } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { ProblemError } from '../../shared/api/client';
import { daysText, shortSpanText } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { useTray } from '../../shared/ui/tray';
import styles from './cover.module.css';
import { useCoverDeeds, useLeft, type Left } from './queries';
import { reasonText, words } from './words';

/** What somebody who is away leaves, each with who could take it: looked at, then handed over. */
export function LeftPart({
  person,
  name,
  from,
  last,
  until,
  onClose,
}: {
  person: number;
  name: string;
  from: string;
  last: string;
  /** The day after the last. */
  until: string;
  onClose: () => void;
}) {
  const left = useLeft(person, from, until);
  const { handOver } = useCoverDeeds();
  const tray = useTray();
  const [turned, setTurned] = useState<Set<number>>(new Set());
  const [doing, setDoing] = useState(false);
  if (left.isPending) {
    return <Loading what={words.leaving} />;
  }
  if (left.error) {
    return <Fault error={left.error} again={() => void left.refetch()} />;
  }
  const all = left.data;
  // Who only could with a reason is looked at by somebody before it is given.
  const taken = (one: Left, at: number) =>
    one.person !== undefined &&
    one.record !== undefined &&
    (one.reasons.length === 0) !== turned.has(at);
  const chosen = all.filter(taken);
  const turn = (at: number) =>
    setTurned((now) => {
      const next = new Set(now);
      if (!next.delete(at)) {
        next.add(at);
      }
      return next;
    });
  const give = async () => {
    setDoing(true);
    const acts: number[] = [];
    try {
      for (const one of chosen) {
        const { act } = await handOver.mutateAsync({
          record: one.record ?? 0,
          visit: one.visit ?? 1,
          from: person,
          to: one.person ?? 0,
        });
        acts.push(act);
      }
      onClose();
      tray.tell({ text: words.handedAll(acts.length), acts });
    } catch (error) {
      const why = error instanceof ProblemError ? error.message : String(error);
      tray.tell({ text: words.filledInPart(acts.length, chosen.length, why), acts });
    } finally {
      setDoing(false);
    }
  };
  return (
    <section className={styles.who} aria-label={words.leaves(name)}>
      <h2>
        {words.leaves(name)}, {daysText(from, last)} <span>{words.fillWhy}</span>
      </h2>
      {all.length === 0 ? (
        <p className={styles.quiet}>{words.leavesNothing}</p>
      ) : (
        <table className={styles.table}>
          <thead>
            <tr>
              <th scope="col" aria-label={words.handOver} />
              <th scope="col">{words.what}</th>
              <th scope="col">{words.when}</th>
              <th scope="col">{words.to}</th>
              <th scope="col">{words.why}</th>
            </tr>
          </thead>
          <tbody>
            {all.map((one, at) => {
              const what = [one.ref, one.title].filter(Boolean).join(' ') || words.work;
              return (
                <tr key={at}>
                  <td>
                    {one.person !== undefined && one.record !== undefined && (
                      <Checkbox
                        aria-label={`${words.handOver}: ${what}`}
                        checked={taken(one, at)}
                        onChange={() => turn(at)}
                      />
                    )}
                  </td>
                  <th scope="row">
                    {one.record ? <Link to={`/records/${one.record}`}>{what}</Link> : what}
                  </th>
                  <td>{shortSpanText(one.start, one.end)}</td>
                  <td>{one.name ?? <span className={styles.against}>{words.nobody}</span>}</td>
                  <td className={one.reasons.length > 0 ? styles.against : styles.free}>
                    {one.reasons.length === 0 ? words.free : one.reasons.map(reasonText).join(', ')}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
      <div className={styles.foot}>
        {all.length > 0 && (
          <Button
            type="primary"
            loading={doing}
            disabled={chosen.length === 0}
            onClick={() => void give()}
          >
            {words.handAll(chosen.length)}
          </Button>
        )}
        <Button onClick={onClose}>{words.leaveIt}</Button>
      </div>
    </section>
  );
}
