import { Button, Popover } from 'antd';
import { useState } from 'react';
import { Many, type RecordView } from '../records';
import styles from './today.module.css';
import { words } from './words';

/** What can be done with a whole list, each time with a look first that leaves out any of it. */
export function All({ of: records, name }: { of: RecordView[]; name: string }) {
  const [open, setOpen] = useState(false);
  if (records.length < 2) {
    return null;
  }
  return (
    <Popover
      open={open}
      trigger="click"
      placement="bottomRight"
      onOpenChange={setOpen}
      content={<Many bare chosen={records.map((one) => one.id)} onNone={() => setOpen(false)} />}
    >
      <Button size="small" type="text" className={styles.all} aria-label={words.allOf(name)}>
        {words.all}
      </Button>
    </Popover>
  );
}
