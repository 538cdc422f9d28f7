import type { ReactNode } from 'react';
import styles from './records.module.css';

/** A part of the sheet, under its name. */
export function Section({
  name,
  aside,
  children,
}: {
  name: string;
  aside?: ReactNode;
  children: ReactNode;
}) {
  return (
    <section className={styles.section}>
      <div className={styles.sectionHead}>
        <h3>{name}</h3>
        {aside}
      </div>
      {children}
    </section>
  );
}
