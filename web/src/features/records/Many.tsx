import { Button, InputNumber } from 'antd';
import { useState } from 'react';
import { ProblemError } from '../../shared/api/client';
import { usePeople } from '../../shared/api/house';
import { Choice } from '../../shared/ui/Choice';
import { Fault } from '../../shared/ui/Fault';
import { useTray } from '../../shared/ui/tray';
import { givenTo, type Change, type RecordView } from './model';
import { fetchRecord, useSeveralLookedAt } from './queries';
import styles from './records.module.css';
import { dueLater, sentVisits, visitLater } from './times';
import { words } from './words';

interface Props {
  chosen: number[];
  onNone: () => void;
}

/** What can be done to many records at once; each time with a look first. */
export function Many({ chosen, onNone }: Props) {
  const people = usePeople();
  const several = useSeveralLookedAt();
  const tray = useTray();
  const [days, setDays] = useState(1);
  const plan = async (what: string, change: (record: RecordView) => Change) => {
    try {
      const fresh = await Promise.all(chosen.map(fetchRecord));
      const items = fresh.map(({ data, tag }) => ({
        record: data.id,
        ifMatch: tag,
        change: change(data),
      }));
      several.mutate(items, {
        onSuccess: (done) => {
          tray.tell({
            text: `${what}: ${words.outcome(done.entries ?? 0, done.calendars ?? 0)}`,
            act: done.act,
          });
          onNone();
        },
      });
    } catch (error) {
      tray.tell({ text: error instanceof ProblemError ? error.message : words.failed });
    }
  };
  const crew = (people.data ?? [])
    .filter((p) => p.standing === 'HOUSE' || p.standing === 'AGENCY')
    .map((p) => ({ value: p.id, label: p.name }));
  const nameOf = (id: number) => crew.find((p) => p.value === id)?.label ?? '';
  return (
    <div className={styles.many} role="group" aria-label={words.many}>
      <strong>{words.chosen(chosen.length)}</strong>
      <Choice
        className={styles.facet}
        placeholder={words.giveAll}
        aria-label={words.giveAll}
        value={null}
        options={crew}
        onChange={(person) =>
          void plan(words.gaveAll(chosen.length, nameOf(person)), (r) => givenTo(r, person))
        }
      />
      <InputNumber
        aria-label={words.daysLater}
        min={-366}
        max={366}
        value={days}
        onChange={(value) => setDays(value ?? 0)}
        style={{ width: 70 }}
      />
      <Button
        disabled={days === 0}
        onClick={() => void plan(words.moved(chosen.length, days), (r) => later(r, days))}
      >
        {words.daysLater}
      </Button>
      <Button
        onClick={() => void plan(words.finishedAll(chosen.length), () => ({ state: 'DONE' }))}
      >
        {words.finish}
      </Button>
      <Button type="text" onClick={onNone}>
        {words.chooseNone}
      </Button>
      {several.error && <Fault error={several.error} />}
    </div>
  );
}

/** The record with all its times so many days later on the clock. */
function later(record: RecordView, days: number): Change {
  const visits = record.visits ?? [];
  const shift = { days, minutes: 0 };
  return {
    ...(visits.some((v) => v.start ?? v.first) && {
      visits: sentVisits(visits.map((v) => visitLater(v, shift))),
    }),
    ...(record.due && { due: dueLater(record.due, shift) }),
  };
}
