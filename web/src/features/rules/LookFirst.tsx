import { Modal } from 'antd';
import { useEffect } from 'react';
import type { Schemas } from '../../shared/api/client';
import { Preview } from '../../shared/look/Preview';
import { Fault } from '../../shared/ui/Fault';
import { DateField } from '../../shared/ui/Moments';
import styles from './rules.module.css';
import { words } from './words';

interface Props {
  open: boolean;
  preview: Schemas['SetPreview'] | undefined;
  error: Error | null;
  taking: boolean;
  /** Work that ended before this day stays as it is. */
  from: string;
  onFrom: (day: string) => void;
  onTake: () => void;
  onLeave: () => void;
}

const TAKE = 'take-the-set';

/** What the edits would do to which calendars; set apart, what is newly shown to whom. */
export function LookFirst(props: Props) {
  const { open, preview, error, taking, from, onFrom, onTake, onLeave } = props;
  const ready = open && preview?.finished === true;
  const focusOnIt = () => document.getElementById(TAKE)?.focus();
  useEffect(() => {
    if (ready) {
      focusOnIt();
    }
  }, [ready]);
  return (
    <Modal
      open={open}
      width={720}
      centered
      styles={{ body: { maxHeight: 'calc(100vh - 190px)', overflowY: 'auto' } }}
      title={words.lookHeading}
      okText={words.takeIt}
      cancelText={words.cancel}
      okButtonProps={{ id: TAKE, disabled: !preview?.finished, loading: taking }}
      afterOpenChange={(isOpen) => isOpen && focusOnIt()}
      onOk={onTake}
      onCancel={onLeave}
    >
      {error && <Fault error={error} />}
      {preview && (
        <>
          {!preview.finished && (
            <div className={styles.progress} role="status">
              <progress
                aria-label={words.lookedAt(preview.records, preview.total)}
                value={preview.records}
                max={preview.total || 1}
              />
              {words.lookedAt(preview.records, preview.total)}
            </div>
          )}
          <Preview preview={preview} />
          <label className={styles.fromDay}>
            {words.fromDay}
            <DateField value={from} onChange={onFrom} />
            <span className={styles.quiet}>{words.fromDayWhy}</span>
          </label>
        </>
      )}
    </Modal>
  );
}
