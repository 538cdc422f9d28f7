import { AutoComplete, Button, Input } from 'antd';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, useState } from 'react';
import styles from './incoming.module.css';
import type { Mend } from './model';
import { words } from './words';

const ROW = 40;

interface Props {
  mends: Mend[];
  columns: { name: string }[];
  /** The names a column's cells may hold. */
  names: (column: number) => string[];
  onMend: (mend: Mend, text: string) => void;
}

/** Every fault on a line: in which rows, which cell, what to do, done right here. */
export function Mends({ mends, columns, names, onMend }: Props) {
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: mends.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 10,
  });
  return (
    <div
      ref={scroller}
      className={styles.mends}
      style={{ height: virtual.getTotalSize() + 2 }}
      role="list"
      aria-label={words.mendHeading}
    >
      <div style={{ height: virtual.getTotalSize(), position: 'relative' }}>
        {virtual.getVirtualItems().map((item) => {
          const mend = mends[item.index]!;
          return (
            <div
              // A cell that is written anew is another fault.
              key={`${mend.at[0]} ${mend.column} ${mend.text} ${mend.message}`}
              className={styles.mend}
              role="listitem"
              style={{ transform: `translateY(${item.start}px)`, height: ROW }}
            >
              <span className={styles.number}>{words.rows(mend.row, mend.at.length)}</span>
              <Cell
                mend={mend}
                name={mend.column === null ? '' : (columns[mend.column]?.name ?? '')}
                names={mend.column === null ? [] : names(mend.column)}
                onMend={onMend}
              />
            </div>
          );
        })}
      </div>
    </div>
  );
}

function Cell({
  mend,
  name,
  names,
  onMend,
}: {
  mend: Mend;
  name: string;
  names: string[];
  onMend: Props['onMend'];
}) {
  const [text, setText] = useState(mend.text);
  if (mend.column === null) {
    return (
      <>
        <span className={styles.column}>{words.wholeRow}</span>
        <span />
        <span className={styles.message}>{mend.message}</span>
      </>
    );
  }
  const differs = text !== mend.text;
  const keep = () => differs && onMend(mend, text);
  const near = mend.near;
  const input = (
    <Input
      aria-label={words.cell(mend.row, name)}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onPressEnter={keep}
      onBlur={keep}
    />
  );
  return (
    <>
      <span className={styles.column}>{name}</span>
      {names.length > 0 ? (
        <AutoComplete
          value={text}
          options={suggestions(names, differs ? text : '')}
          onChange={setText}
          onSelect={(chosen: string) => onMend(mend, chosen)}
        >
          {input}
        </AutoComplete>
      ) : (
        input
      )}
      <span className={styles.message} title={mend.message}>
        {mend.message}
      </span>
      {near && !differs ? (
        <Button size="small" onClick={() => onMend(mend, near)}>
          {words.useNear(near)}
        </Button>
      ) : (
        <span />
      )}
    </>
  );
}

function suggestions(names: string[], typed: string) {
  const wanted = typed.toLowerCase();
  return names
    .filter((name) => name.toLowerCase().includes(wanted))
    .slice(0, 30)
    .map((name) => ({ value: name }));
}
