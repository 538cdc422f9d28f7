import { Link } from 'react-router';
import { dueText } from '../../shared/time';
import styles from './deadlines.module.css';
import { useSetsAround, type DeadlineSet } from './queries';
import { words } from './words';

/** From a deadline to its key date, from work to the deadlines that hang on it. */
export function Because({ record }: { record: number }) {
  const sets = useSetsAround(record).data ?? [];
  return (
    <>
      {sets.map((set) => (
        <p key={set.id} className={styles.because}>
          <span>{set.work?.id === record ? words.hangOn : words.because}</span>{' '}
          {set.work?.id === record ? <Hanging set={set} /> : <KeyDate set={set} />}
        </p>
      ))}
    </>
  );
}

function KeyDate({ set }: { set: DeadlineSet }) {
  const date = set.keyDateName && words.keyIs(set.keyDateName, set.keyDate);
  const work = set.work && [set.work.ref, set.work.title].filter(Boolean).join(' ');
  return (
    <>
      {set.name ? (
        <Link to={`/deadlines/${set.id}`}>{[date, set.name].filter(Boolean).join(' · ')}</Link>
      ) : (
        date
      )}
      {set.work && (
        <>
          {' · '}
          <Link to={`/records/${set.work.id}`}>{work}</Link>
        </>
      )}
    </>
  );
}

function Hanging({ set }: { set: DeadlineSet }) {
  return (
    <>
      {set.name ? (
        <Link to={`/deadlines/${set.id}`}>
          {set.name} · {words.stepsIn(set.steps.length)}
        </Link>
      ) : (
        set.steps.map((step) => `${step.name ?? ''} ${dueText(step.date)}`).join(', ')
      )}
      {set.offer && <em className={styles.offer}> {words.offer(set.offer)}</em>}
    </>
  );
}
