import { Popover } from 'antd';
import { useState, type ReactNode } from 'react';
import styles from './rules.module.css';

interface Props {
  text: string;
  /** What it is, for readers of screens. */
  label: string;
  boxed: boolean;
  children: ReactNode;
}

/** A word of the sentence that opens where it stands. */
export function Token({ text, label, boxed, children }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <Popover
      trigger="click"
      placement="bottomLeft"
      arrow={false}
      open={open}
      onOpenChange={setOpen}
      destroyOnHidden
      content={
        <div
          className={styles.picker}
          onKeyDown={(event) => {
            event.stopPropagation();
            if (event.key === 'Escape') {
              setOpen(false);
            }
          }}
        >
          {children}
        </div>
      }
    >
      {/* No button: those never break over two lines of a sentence. */}
      <span
        role="button"
        tabIndex={0}
        className={boxed ? styles.boxed : styles.token}
        aria-label={`${label}: ${text}`}
        aria-expanded={open}
        onKeyDown={(event) => {
          if (event.key === 'Enter' || event.key === ' ') {
            event.preventDefault();
            setOpen(!open);
          }
        }}
      >
        {text}
      </span>
    </Popover>
  );
}
