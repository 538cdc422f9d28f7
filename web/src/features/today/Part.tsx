import { createContext, useContext, type ReactNode } from 'react';
import styles from './today.module.css';
import { words } from './words';

/** Which folded parts are open, and what folds one. */
export interface Folds {
  open: string[];
  turn: (part: string) => void;
}

export const FoldsContext = createContext<Folds>({ open: [], turn: () => undefined });

/** What wants somebody, of one sort; what can wait is folded under its count. */
export function Part({
  name,
  count,
  wrong = false,
  asks = false,
  folds,
  extra,
  children,
}: {
  name: string;
  count: number;
  wrong?: boolean;
  /** It waits for a yes. */
  asks?: boolean;
  /** Under which name it is folded; without one it always stands open. */
  folds?: string;
  /** What can be done with all of it. */
  extra?: ReactNode;
  children: ReactNode;
}) {
  const { open, turn } = useContext(FoldsContext);
  if (count === 0) {
    return null;
  }
  const isOpen = folds === undefined || open.includes(folds);
  const heading = (
    <>
      {name} <span className="number">{words.of(count)}</span>
    </>
  );
  const look = wrong ? styles.wrong : asks ? styles.waiting : '';
  return (
    <section
      id={folds}
      className={`${styles.part} ${isOpen ? '' : styles.folded}`}
      aria-label={name}
    >
      <h2 className={look}>
        {folds === undefined ? (
          heading
        ) : (
          <button type="button" aria-expanded={isOpen} onClick={() => turn(folds)}>
            <i aria-hidden="true" className={isOpen ? styles.down : styles.right} />
            {heading}
          </button>
        )}
        {isOpen && extra}
      </h2>
      {isOpen && <ul>{children}</ul>}
    </section>
  );
}
