import { Button } from 'antd';
import { useState, type ReactNode } from 'react';
import { words } from '../words';
import styles from './ui.module.css';

/** The first lines of a list, and the rest on asking. */
export function First<One>({
  of: all,
  most,
  line,
}: {
  of: One[];
  most: number;
  line: (one: One) => ReactNode;
}) {
  const [whole, setWhole] = useState(false);
  const isCut = !whole && all.length > most;
  return (
    <>
      {(isCut ? all.slice(0, most) : all).map(line)}
      {isCut && (
        <li className={styles.rest}>
          <Button type="link" size="small" onClick={() => setWhole(true)}>
            {words.showAll(all.length)}
          </Button>
        </li>
      )}
    </>
  );
}
