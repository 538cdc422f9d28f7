import { Button, Checkbox } from 'antd';
import { useState } from 'react';
import { ProblemError } from '../../shared/api/client';
import { gapText } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { useTray } from '../../shared/ui/tray';
import styles from './cover.module.css';
import { useCoverDeeds, useFill, type Ask, type Suggestion } from './queries';
import { askName, reasonText, words } from './words';

/** A fill for all that is short: looked at, edited, taken whole or in part. */
export function FillPart({
  from,
  until,
  asks,
  onClose,
}: {
  from: string;
  until: string;
  asks: Ask[];
  onClose: () => void;
}) {
  const fill = useFill(from, until, true);
  const { give } = useCoverDeeds();
  const tray = useTray();
  const [left, setLeft] = useState<Set<number>>(new Set());
  const [doing, setDoing] = useState(false);
  if (fill.isPending) {
    return <Loading what={words.filling} />;
  }
  if (fill.error) {
    return <Fault error={fill.error} again={() => void fill.refetch()} />;
  }
  const all = fill.data;
  // Who only could with a reason is looked at by somebody before it is given.
  const taken = (one: Suggestion, at: number) =>
    one.person !== undefined && (one.reasons.length === 0) !== left.has(at);
  const chosen = all.filter(taken);
  const turn = (at: number) =>
    setLeft((now) => {
      const next = new Set(now);
      if (!next.delete(at)) {
        next.add(at);
      }
      return next;
    });
  const take = async () => {
    setDoing(true);
    const acts: number[] = [];
    try {
      for (const { ask, start, end, person } of chosen) {
        acts.push((await give.mutateAsync({ ask, start, end, person: person ?? 0 })).act);
      }
      onClose();
      tray.tell({ text: words.filled(acts.length), acts });
    } catch (error) {
      const why = error instanceof ProblemError ? error.message : String(error);
      tray.tell({ text: words.filledInPart(acts.length, chosen.length, why), acts });
    } finally {
      setDoing(false);
    }
  };
  return (
    <section className={styles.who} aria-label={words.fill}>
      <h2>
        {words.fill} <span>{words.fillWhy}</span>
      </h2>
      <table className={styles.table}>
        <thead>
          <tr>
            <th scope="col" aria-label={words.give} />
            <th scope="col">{words.what}</th>
            <th scope="col">{words.when}</th>
            <th scope="col">{words.to}</th>
            <th scope="col">{words.why}</th>
          </tr>
        </thead>
        <tbody>
          {all.map((one, at) => {
            const ask = asks.find((each) => each.key === one.ask);
            return (
              <tr key={at}>
                <td>
                  {one.person !== undefined && (
                    <Checkbox
                      aria-label={`${words.give}: ${askName(ask)} ${one.name ?? ''}`}
                      checked={taken(one, at)}
                      onChange={() => turn(at)}
                    />
                  )}
                </td>
                <th scope="row">{askName(ask)}</th>
                <td>{gapText(one.start, one.end, ask?.zone ?? 'UTC')}</td>
                <td>{one.name ?? <span className={styles.against}>{words.nobody}</span>}</td>
                <td className={one.reasons.length > 0 ? styles.against : styles.free}>
                  {one.reasons.length === 0 ? words.free : one.reasons.map(reasonText).join(', ')}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <div className={styles.foot}>
        <Button
          type="primary"
          loading={doing}
          disabled={chosen.length === 0}
          onClick={() => void take()}
        >
          {words.giveAll(chosen.length)}
        </Button>
        <Button onClick={onClose}>{words.leaveIt}</Button>
      </div>
    </section>
  );
}
