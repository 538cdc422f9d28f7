import { Popover } from 'antd';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import styles from './rules.module.css';

interface Props {
  text: string;
  /** What it is, for readers of screens. */
  label: string;
  boxed: boolean;
  /** The next thing to say of a sentence just begun. */
  begin?: boolean;
  children: ReactNode;
}

/** A word of the sentence that opens where it stands. */
export function Token({ text, label, boxed, begin = false, children }: Props) {
  const [open, setOpen] = useState(false);
  const token = useRef<HTMLSpanElement>(null);
  const picker = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (begin) {
      token.current?.focus();
    }
  }, [begin]);
  const enter = () => {
    if (picker.current?.contains(document.activeElement)) {
      return;
    }
    const inside = (which: string) => picker.current?.querySelector<HTMLElement>(which);
    (inside('input:checked') ?? inside('input, textarea, [tabindex="0"]'))?.focus();
  };
  const close = () => {
    setOpen(false);
    token.current?.focus();
  };
  return (
    <Popover
      trigger="click"
      placement="bottomLeft"
      arrow={false}
      open={open}
      onOpenChange={setOpen}
      // What it offers stands at the end of the page; the keyboard goes there with it.
      afterOpenChange={(isOpen) => isOpen && enter()}
      destroyOnHidden
      content={
        <div
          ref={picker}
          className={styles.picker}
          onKeyDown={(event) => {
            event.stopPropagation();
            if (event.key === 'Escape') {
              close();
            }
          }}
        >
          {children}
        </div>
      }
    >
      {/* No button: those never break over two lines of a sentence. */}
      <span
        ref={token}
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
