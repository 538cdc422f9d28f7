import { Button, Checkbox } from 'antd';
import { useState, type ReactNode } from 'react';
import { errorText } from '../../shared/api/client';
import { useTray } from '../../shared/ui/tray';
import { Table } from '../../shared/ui/Table';
import styles from './cover.module.css';
import type { Reason } from './queries';
import { reasonText, words } from './words';

/** Something for somebody, not done yet. */
export interface Proposal {
  /** For who only hears it. */
  label: string;
  what: ReactNode;
  when: string;
  /** To whom; nobody could where it is not there. */
  name?: string;
  /** Who would be the best of those who may not. */
  nearest?: string;
  /** What only warns of them, or what speaks against the best. */
  reasons: Reason[];
  /** The act it takes; nothing where it is not for this person to do. */
  give?: () => Promise<number>;
}

/** Proposals: looked at, edited, taken whole or in part. */
export function Proposals({
  all,
  give,
  done,
  onClose,
}: {
  all: Proposal[];
  /** What the button says. */
  give: (count: number) => string;
  done: (count: number) => string;
  onClose: () => void;
}) {
  const tray = useTray();
  const [turned, setTurned] = useState<Set<number>>(new Set());
  const [doing, setDoing] = useState(false);
  // Who only could with a reason is looked at by somebody before it is given.
  const taken = (one: Proposal, at: number) =>
    one.give !== undefined && (one.reasons.length === 0) !== turned.has(at);
  const chosen = all.filter(taken);
  const turn = (at: number) =>
    setTurned((now) => {
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
      for (const one of chosen) {
        acts.push(await one.give!());
      }
      onClose();
      tray.tell({ text: done(acts.length), acts });
    } catch (error) {
      const text = words.filledInPart(acts.length, chosen.length, errorText(error));
      tray.tell({ text, acts });
    } finally {
      setDoing(false);
    }
  };
  return (
    <>
      {all.length > 0 && (
        <Table
          className={styles.table}
          heads={[{ unseen: words.give }, words.what, words.when, words.to, words.why]}
        >
          {all.map((one, at) => (
            <tr key={at}>
              <td>
                {one.give && (
                  <Checkbox
                    aria-label={`${words.give}: ${one.label} ${one.name ?? ''}`}
                    checked={taken(one, at)}
                    onChange={() => turn(at)}
                  />
                )}
              </td>
              <th scope="row">{one.what}</th>
              <td>{one.when}</td>
              <td>{one.name ?? <span className={styles.against}>{words.nobody}</span>}</td>
              <td className={one.reasons.length > 0 ? styles.against : styles.free}>
                {one.nearest && `${one.nearest}: `}
                {one.reasons.length === 0
                  ? words.free
                  : one.reasons.map((why) => reasonText(why)).join(', ')}
              </td>
            </tr>
          ))}
        </Table>
      )}
      <div className={styles.foot}>
        {all.length > 0 && (
          <Button
            type="primary"
            loading={doing}
            disabled={chosen.length === 0}
            onClick={() => void take()}
          >
            {give(chosen.length)}
          </Button>
        )}
        <Button onClick={onClose}>{words.leaveIt}</Button>
      </div>
    </>
  );
}
