import { useIsFetching } from '@tanstack/react-query';
import { Button } from 'antd';
import { useEffect, useState, type ReactNode } from 'react';
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
  // What has not come yet would be missing on it.
  const coming = useIsFetching() > 0;
  const [wanted, setWanted] = useState(false);
  const now = wanted && !coming;
  useEffect(() => {
    if (now) {
      window.print();
      setWanted(false);
    }
  }, [now]);
  return (
    <main className={`${styles.paper} ${across ? styles.across : ''}`}>
      <div className={styles.bar}>
        <Link to={back.to}>{back.name}</Link>
        {controls}
        <span className={styles.grow} />
        {/* It is what is wanted here: Enter does it. */}
        <Button type="primary" autoFocus loading={wanted && coming} onClick={() => setWanted(true)}>
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
