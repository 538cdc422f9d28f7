import { Button, Input } from 'antd';
import { useState } from 'react';
import { Fault } from '../../shared/ui/Fault';
import styles from './crew.module.css';

/** One line that adds something by name, and for places by code. */
export function AddLine({
  label,
  code,
  pending,
  error,
  begins = false,
  onAdd,
}: {
  label: string;
  code?: string;
  pending: boolean;
  error: unknown;
  /** Whether this is the first thing to do here. */
  begins?: boolean;
  onAdd: (name: string, code: string, done: () => void) => void;
}) {
  const [name, setName] = useState('');
  const [short, setShort] = useState('');
  const complete = name.trim() !== '' && (!code || short.trim() !== '');
  return (
    <form
      className={styles.add}
      onSubmit={(event) => {
        event.preventDefault();
        if (complete) {
          onAdd(name, short, () => {
            setName('');
            setShort('');
          });
        }
      }}
    >
      {code && (
        <Input
          aria-label={code}
          placeholder={code}
          value={short}
          maxLength={12}
          autoFocus={begins}
          className={styles.code}
          onChange={(e) => setShort(e.target.value)}
        />
      )}
      <Input
        aria-label={label}
        placeholder={label}
        value={name}
        maxLength={80}
        autoFocus={begins && !code}
        className={styles.name}
        onChange={(e) => setName(e.target.value)}
      />
      <Button htmlType="submit" disabled={!complete} loading={pending}>
        Add
      </Button>
      {error != null && <Fault error={error} />}
    </form>
  );
}
