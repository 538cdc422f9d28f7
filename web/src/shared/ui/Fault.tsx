import { useQueryClient } from '@tanstack/react-query';
import { Button } from 'antd';
import { ProblemError } from '../api/client';
import { words } from '../words';
import styles from './ui.module.css';

/** What went wrong, in words, with the way out: another try of it, or of all reading that failed. */
export function Fault({
  error,
  again,
  reads = false,
}: {
  error: unknown;
  again?: () => void;
  reads?: boolean;
}) {
  const queries = useQueryClient();
  const readAgain = () =>
    void queries.refetchQueries({ type: 'active', predicate: (one) => one.state.error !== null });
  const way = reads ? readAgain : again;
  const problem = error instanceof ProblemError ? error.problem : null;
  return (
    <div role="alert" className={styles.fault}>
      <div>{problem?.detail ?? words.failedHere}</div>
      {problem?.request && problem.status >= 500 && (
        <div className={styles.small}>{words.request(problem.request)}</div>
      )}
      {way && (
        <Button size="small" onClick={way}>
          {words.again}
        </Button>
      )}
    </div>
  );
}
