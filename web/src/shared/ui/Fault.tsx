import { Button } from 'antd';
import { ProblemError } from '../api/client';
import { words } from '../words';
import styles from './ui.module.css';

/** What went wrong, in words, with the way out. */
export function Fault({ error, again }: { error: unknown; again?: () => void }) {
  const problem = error instanceof ProblemError ? error.problem : null;
  return (
    <div role="alert" className={styles.fault}>
      <div>{problem?.detail ?? words.failedHere}</div>
      {problem?.request && problem.status >= 500 && (
        <div className={styles.small}>{words.request(problem.request)}</div>
      )}
      {again && (
        <Button size="small" onClick={again}>
          {words.again}
        </Button>
      )}
    </div>
  );
}
