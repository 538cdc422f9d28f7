import { Button } from 'antd';
import { ProblemError } from '../api/client';
import styles from './ui.module.css';

/** What went wrong, in words, with the way out. */
export function Fault({ error, again }: { error: unknown; again?: () => void }) {
  const problem = error instanceof ProblemError ? error.problem : null;
  return (
    <div role="alert" className={styles.fault}>
      <div>{problem?.detail ?? 'Something failed in this window. Load the page again.'}</div>
      {problem?.request && problem.status >= 500 && (
        <div className={styles.small}>Request {problem.request}</div>
      )}
      {again && (
        <Button size="small" onClick={again}>
          Try again
        </Button>
      )}
    </div>
  );
}
