import { useEffect, useState } from 'react';
import styles from './ui.module.css';

/** Says what is being done once it has taken a moment. */
export function Loading({ what }: { what: string }) {
  const [shown, setShown] = useState(false);
  useEffect(() => {
    const timer = window.setTimeout(() => setShown(true), 200);
    return () => window.clearTimeout(timer);
  }, []);
  return (
    <div className={styles.loading} role="status">
      {shown ? what : ''}
    </div>
  );
}
