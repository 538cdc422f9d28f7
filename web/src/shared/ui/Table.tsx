import type { ReactNode } from 'react';
import styles from './ui.module.css';

interface Props {
  /** A text; a name that nobody sees, for buttons; a figure, to the right; or no column. */
  heads: (string | { unseen: string } | { figure: string } | false | undefined)[];
  className?: string;
  children: ReactNode;
}

/** Rows under heads that stay while they scroll. */
export function Table({ heads, className, children }: Props) {
  return (
    <table className={`${styles.table} ${className ?? ''}`}>
      <thead>
        <tr>
          {heads.map((head, at) =>
            !head ? null : typeof head === 'string' ? (
              <th key={at} scope="col">
                {head}
              </th>
            ) : 'figure' in head ? (
              <th key={at} scope="col" className={styles.figure}>
                {head.figure}
              </th>
            ) : (
              <th key={at} scope="col" aria-label={head.unseen} />
            ),
          )}
        </tr>
      </thead>
      <tbody>{children}</tbody>
    </table>
  );
}
