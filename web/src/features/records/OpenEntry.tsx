import { Link, Navigate, useParams } from 'react-router';
import { ProblemError } from '../../shared/api/client';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { useEntryHome } from './queries';
import styles from './records.module.css';
import { words } from './words';

/** Where the address leads that an entry of a calendar carries: to its record. */
export function OpenEntry() {
  const home = useEntryHome(useParams().entry ?? '');
  if (home.isPending) {
    return <Loading what={words.loadingRecord} />;
  }
  if (home.error) {
    return (
      <div className={styles.pad}>
        {home.error instanceof ProblemError && home.error.problem.status === 404 ? (
          <p>
            {words.noEntryHere} <Link to="/records">{words.backToList}</Link>
          </p>
        ) : (
          <Fault error={home.error} reads />
        )}
      </div>
    );
  }
  return <Navigate to={`/records/${home.data.record}`} replace />;
}
