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
  children: ReactNode;
}

/** A page that is made to be printed: no frame, ink on white, its sheets numbered. */
export function Paper({ back, title, about, children }: Props) {
  return (
    <main className={styles.paper}>
      <div className={styles.bar}>
        <Link to={back.to}>{back.name}</Link>
        <Button type="primary" onClick={() => window.print()}>
          {text.print}
        </Button>
      </div>
      <h1>
        {title} <span>{about}</span>
      </h1>
      {children}
    </main>
  );
}
