import { Button } from 'antd';
import type { ReactNode } from 'react';
import styles from './crew.module.css';
import { words } from './words';

/** All that is settled of one of a list, beside that list. */
export function Sheet({
  name,
  about,
  links,
  onClose,
  children,
}: {
  name: string;
  about: string;
  /** What changes it, and where more of it stands. */
  links: ReactNode;
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <aside className={styles.sheet} aria-label={name}>
      <div className={styles.sheetHead}>
        <h2>{name}</h2>
        <Button size="small" type="text" onClick={onClose}>
          {words.close}
        </Button>
      </div>
      <p className={styles.quiet}>{about}</p>
      <p className={styles.sheetLinks}>{links}</p>
      {children}
    </aside>
  );
}

/** A part of it, with what changes that. */
export function Part({
  name,
  aside,
  children,
}: {
  name: string;
  aside?: ReactNode;
  children: ReactNode;
}) {
  return (
    <section className={styles.sheetPart} aria-label={name}>
      <div className={styles.sheetHead}>
        <h3>{name}</h3>
        {aside}
      </div>
      {children}
    </section>
  );
}

/** The list, and beside it the sheet of the one that was chosen. */
export function Beside({ list, children }: { list: ReactNode; children: ReactNode }) {
  return children ? (
    <div className={styles.beside}>
      <div className={styles.besideList}>{list}</div>
      {children}
    </div>
  ) : (
    list
  );
}
