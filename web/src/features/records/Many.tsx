import { Button, Checkbox, Dropdown, Input, InputNumber, Modal, Popover, Progress } from 'antd';
import { useState } from 'react';
import { takesWork, usePeople } from '../../shared/api/house';
import { Preview } from '../../shared/look/Preview';
import { Choice } from '../../shared/ui/Choice';
import { Fault } from '../../shared/ui/Fault';
import { Table } from '../../shared/ui/Table';
import type { Deed } from './many';
import styles from './records.module.css';
import { useMany } from './useMany';
import { words } from './words';

interface Props {
  chosen: number[];
  onNone: () => void;
  /** Where how many they are is said beside it. */
  bare?: boolean;
}

/** What can be done to many records at once; each time with a look at old and new first. */
export function Many({ chosen: picked, onNone, bare = false }: Props) {
  const chosen = [...new Set(picked)];
  const people = usePeople();
  const many = useMany(chosen, onNone);
  const crew = (people.data ?? []).filter(takesWork).map((p) => ({ value: p.id, label: p.name }));
  const nameOf = (id: number) => crew.find((p) => p.value === id)?.label ?? '';
  const look = (deed: Deed, said: string) => void many.look(deed, said);
  const to = (state: 'CONFIRMED' | 'DONE' | 'CANCELLED') => ({
    key: state,
    label: words.manyStates[state],
    onClick: () => look({ do: 'state', state }, words.manyStates[state]),
  });
  return (
    <div className={bare ? styles.manyBare : styles.many} role="group" aria-label={words.many}>
      {!bare && <strong>{words.chosen(chosen.length)}</strong>}
      <Choice
        size="small"
        className={styles.facet}
        placeholder={words.giveAll}
        aria-label={words.giveAll}
        value={null}
        options={crew}
        onChange={(person) => look({ do: 'assign', person }, words.gaveAll(nameOf(person)))}
      />
      <Asked label={words.handOver}>
        {(close) => (
          <HandOver
            crew={crew}
            onDone={(from, person) => {
              close();
              look(
                { do: 'handOver', from, person },
                words.handedFrom(nameOf(from), nameOf(person)),
              );
            }}
          />
        )}
      </Asked>
      <Asked label={words.moveDays}>
        {(close) => (
          <Days
            onDone={(days) => {
              close();
              look({ do: 'move', days }, words.moved(days));
            }}
          />
        )}
      </Asked>
      <Asked label={words.tagAll}>
        {(close) => (
          <Tag
            onDone={(tag) => {
              close();
              look({ do: 'tag', tag }, words.taggedAll(tag));
            }}
          />
        )}
      </Asked>
      <Dropdown
        trigger={['click']}
        menu={{ items: [to('CONFIRMED'), to('DONE'), to('CANCELLED')] }}
      >
        <Button size="small">{words.setState}</Button>
      </Dropdown>
      {!bare && (
        <Button size="small" type="text" onClick={onNone}>
          {words.chooseNone}
        </Button>
      )}
      {many.plan && <Look many={many} />}
    </div>
  );
}

/** What it makes of each record; any part of it is taken. */
function Look({ many }: { many: ReturnType<typeof useMany> }) {
  const { rows, left, said } = many.plan!;
  const goesOn = many.done > 0 || many.error !== null;
  return (
    <Modal
      open
      centered
      width={760}
      title={said}
      onCancel={many.running ? many.stop : many.close}
      styles={{ body: { maxHeight: 'calc(100vh - 200px)', overflowY: 'auto' } }}
      footer={
        many.running ? (
          <Button onClick={many.stop}>{words.stop}</Button>
        ) : (
          <>
            <Button onClick={many.close}>{many.done > 0 ? words.close : words.cancel}</Button>
            <Button
              type="primary"
              autoFocus
              disabled={many.count === many.done}
              onClick={() => void many.run()}
            >
              {goesOn ? words.goOn(many.count - many.done) : words.applyTo(many.count)}
            </Button>
          </>
        )
      }
    >
      {(many.running || many.done > 0) && (
        <Progress
          percent={Math.round((100 * many.done) / Math.max(1, many.count))}
          format={() => words.doneOf(many.done, many.count)}
        />
      )}
      {many.error && <Fault error={many.error} />}
      {rows.length === 0 ? (
        <p className={styles.quiet}>{words.nothingToChange}</p>
      ) : (
        <Table heads={[words.record, words.now, words.then]}>
          {rows.map(({ record, before, after }) => (
            <tr key={record.id}>
              <th scope="row">
                <Checkbox
                  checked={!many.without.has(record.id)}
                  disabled={many.running || many.isDone(record.id)}
                  onChange={() => many.turn(record.id)}
                >
                  {record.ref} {record.title}
                </Checkbox>
              </th>
              <td>{before}</td>
              <td>{many.isDone(record.id) ? `✓ ${after}` : after}</td>
            </tr>
          ))}
        </Table>
      )}
      {left.length > 0 && (
        <ul className={styles.leftOut}>
          {left.map(({ record, why }) => (
            <li key={record.id}>
              {record.ref} {record.title}: {why}
            </li>
          ))}
        </ul>
      )}
      {many.effect.error && !many.error && <Fault error={many.effect.error} />}
      {many.effect.data && (
        <>
          <h3 className={styles.onCalendars}>
            {many.inPart ? words.onCalendarsFirst : words.onCalendars}
          </h3>
          <Preview preview={many.effect.data} />
        </>
      )}
    </Modal>
  );
}

/** A button that first asks something. */
function Asked({
  label,
  children,
}: {
  label: string;
  children: (close: () => void) => React.ReactNode;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Popover
      open={open}
      trigger="click"
      destroyOnHidden
      onOpenChange={setOpen}
      content={<div className={styles.asked}>{children(() => setOpen(false))}</div>}
    >
      <Button size="small">{label}</Button>
    </Popover>
  );
}

interface Person {
  value: number;
  label: string;
}

function HandOver({
  crew,
  onDone,
}: {
  crew: Person[];
  onDone: (from: number, to: number) => void;
}) {
  const [from, setFrom] = useState<number | null>(null);
  const [to, setTo] = useState<number | null>(null);
  return (
    <>
      <Choice
        autoFocus
        aria-label={words.handFrom}
        placeholder={words.handFrom}
        value={from}
        options={crew}
        onChange={setFrom}
      />
      <Choice
        aria-label={words.handTo}
        placeholder={words.handTo}
        value={to}
        options={crew.filter((one) => one.value !== from)}
        onChange={setTo}
      />
      <Button
        disabled={from === null || to === null}
        onClick={() => from !== null && to !== null && onDone(from, to)}
      >
        {words.preview}
      </Button>
    </>
  );
}

function Days({ onDone }: { onDone: (days: number) => void }) {
  const [days, setDays] = useState(1);
  return (
    <>
      <InputNumber
        autoFocus
        aria-label={words.daysLater}
        min={-366}
        max={366}
        value={days}
        suffix={words.daysLater}
        onChange={(value) => setDays(value ?? 0)}
        onPressEnter={() => days !== 0 && onDone(days)}
      />
      <Button disabled={days === 0} onClick={() => onDone(days)}>
        {words.preview}
      </Button>
    </>
  );
}

function Tag({ onDone }: { onDone: (tag: string) => void }) {
  const [tag, setTag] = useState('');
  return (
    <>
      <Input
        autoFocus
        aria-label={words.tag}
        placeholder={words.tag}
        maxLength={60}
        value={tag}
        onChange={(event) => setTag(event.target.value)}
        onPressEnter={() => tag.trim() && onDone(tag)}
      />
      <Button disabled={!tag.trim()} onClick={() => onDone(tag)}>
        {words.preview}
      </Button>
    </>
  );
}
