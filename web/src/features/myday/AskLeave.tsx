import { Button } from 'antd';
import { useState } from 'react';

import { Fault } from '../../shared/ui/Fault';
import { ClockField, DateField } from '../../shared/ui/Moments';
import styles from './myday.module.css';
import { useMyLeave } from './useMyDay';
import { words } from './words';

/** Asks for days of leave. */
export default function AskLeave({ person }: { person: number }) {
  const { ask } = useMyLeave(person);
  const [first, setFirst] = useState('');
  const [last, setLast] = useState('');
  const [from, setFrom] = useState('');
  const [until, setUntil] = useState('');
  return (
    <>
      <form
        className={styles.asks}
        onSubmit={(event) => {
          event.preventDefault();
          ask.mutate(
            {
              first,
              ...(last && { last }),
              ...(from && { from }),
              ...(until && { until }),
            },
            {
              onSuccess: () => {
                setFirst('');
                setLast('');
                setFrom('');
                setUntil('');
              },
            },
          );
        }}
      >
        <label>
          {words.leaveFirst}
          <DateField short value={first} onChange={setFirst} />
        </label>
        <label>
          {words.leaveLast}
          <DateField short value={last} onChange={setLast} />
        </label>
        <label>
          {words.leaveFrom}
          <ClockField value={from} onChange={setFrom} />
        </label>
        <label>
          {words.leaveUntil}
          <ClockField value={until} onChange={setUntil} />
        </label>
        <Button htmlType="submit" disabled={first === ''} loading={ask.isPending}>
          {words.askLeave}
        </Button>
      </form>
      {ask.error && <Fault error={ask.error} />}
    </>
  );
}
