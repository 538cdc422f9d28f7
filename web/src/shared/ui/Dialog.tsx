import { Button, Form, Modal, type FormListFieldData } from 'antd';
import type { ReactNode } from 'react';
import { words } from '../words';
import { Fault } from './Fault';
import { Loading } from './Loading';
import styles from './ui.module.css';

interface Reading {
  isPending: boolean;
  error: Error | null;
  refetch: () => unknown;
}

interface DialogProps {
  title: string;
  width?: number;
  /** What has to be read before there is anything to show. */
  reads?: Reading[];
  loading?: string;
  /** The id of the field that is typed into first; else the dialog itself has the focus. */
  focus?: string;
  onClose: () => void;
  children: ReactNode;
}

/** A dialog whose form brings its own answers; it scrolls within the window. */
export function Dialog({
  title,
  width,
  reads = [],
  loading,
  focus,
  onClose,
  children,
}: DialogProps) {
  return (
    <Modal
      open
      centered
      width={width}
      title={title}
      footer={null}
      afterOpenChange={(isOpen) =>
        isOpen && focus !== undefined && document.getElementById(focus)?.focus()
      }
      onCancel={onClose}
      styles={{ body: { maxHeight: 'calc(100vh - 150px)', overflowY: 'auto' } }}
    >
      {loading && reads.some((one) => one.isPending) && <Loading what={loading} />}
      {reads.map((one, at) => one.error && <Fault key={at} error={one.error} reads />)}
      {children}
    </Modal>
  );
}

interface AnswersProps {
  pending: boolean;
  error: Error | null;
  onClose: () => void;
  /** What saving is called where it does more. */
  save?: string;
  /** What else can be done, at the far end. */
  children?: ReactNode;
}

/** What ends a form: saves it, or leaves it; what failed stands above. */
export function Answers({ pending, error, onClose, save = words.save, children }: AnswersProps) {
  return (
    <>
      {error && <Fault error={error} />}
      <div className={styles.answers}>
        <Button type="primary" htmlType="submit" loading={pending}>
          {save}
        </Button>
        <Button onClick={onClose}>{words.cancel}</Button>
        <span className={styles.grow} />
        {children}
      </div>
    </>
  );
}

interface RowsProps {
  name: string;
  className?: string;
  /** What another one begins with. */
  fresh: (count: number) => object;
  add: string;
  remove: string;
  /** How many there are at least. */
  least?: number;
  children: (field: FormListFieldData, at: number) => ReactNode;
}

/** A list within a form, of which rows are added and removed. */
export function Rows({ name, className, fresh, add, remove, least = 0, children }: RowsProps) {
  return (
    <Form.List name={name}>
      {(fields, list) => (
        <>
          {fields.map((field, at) => (
            <div key={field.key} className={className}>
              {children(field, at)}
              <Button
                size="small"
                aria-label={remove}
                disabled={fields.length <= least}
                onClick={() => list.remove(field.name)}
              >
                −
              </Button>
            </div>
          ))}
          <Button size="small" onClick={() => list.add(fresh(fields.length))}>
            {add}
          </Button>
        </>
      )}
    </Form.List>
  );
}
