import type { ReactNode } from 'react';
import { Mark } from '../../shared/ui/Mark';
import styles from './session.module.css';

/** The quiet page before one is in. */
export function Gate({ title, children }: { title: string; children: ReactNode }) {
  return (
    <main className={styles.gate}>
      <div className={styles.card}>
        <Mark />
        <h1 className={styles.title}>{title}</h1>
        {children}
      </div>
    </main>
  );
}
