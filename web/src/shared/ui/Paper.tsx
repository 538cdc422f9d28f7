import { Button } from 'antd';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import styles from './paper.module.css';
import text from '../words.json';

interface Props {
  /** Where it came from, and what that is called. */
  back: { to: string; name: string };
  title: string;
  /** What of it is told. */
  about: string;
  /** On sheets that lie across. */
  across?: boolean;
  /** What can be chosen of it. */
  controls?: ReactNode;
  children: ReactNode;
}

/** A page that is made to be printed: no frame, ink on white, its sheets numbered. */
export function Paper({ back, title, about, across, controls, children }: Props) {
  return (
    <main className={`${styles.paper} ${across ? styles.across : ''}`}>
      <div className={styles.bar}>
        <Link to={back.to}>{back.name}</Link>
        {controls}
        <span className={styles.grow} />
        {/* It is what is wanted here: Enter does it. */}
        <Button type="primary" autoFocus onClick={() => window.print()}>
          {text.print}
        </Button>
      </div>
      <title>{`${title} · ${about}`}</title>
      <h1>
        {title} <span>{about}</span>
      </h1>
      {children}
    </main>
  );
}
