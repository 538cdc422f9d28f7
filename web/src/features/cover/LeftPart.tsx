import { Link } from 'react-router';
import { daysText, shortSpanText } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import styles from './cover.module.css';
import { Proposals, type Proposal } from './Proposals';
import { useCoverDeeds, useLeft } from './queries';
import { words } from './words';

/** What somebody who is away leaves, each with who could take it. */
export function LeftPart({
  person,
  name,
  from,
  last,
  until,
  hours,
  onClose,
}: {
  person: number;
  name: string;
  from: string;
  last: string;
  /** The day after the last. */
  until: string;
  /** Of that day, where it is not all of it. */
  hours: string | null;
  onClose: () => void;
}) {
  const left = useLeft(person, from, until, hours);
  const { handOver } = useCoverDeeds();
  if (left.isPending) {
    return <Loading what={words.leaving} />;
  }
  if (left.error) {
    return <Fault error={left.error} reads />;
  }
  const proposals = left.data.map(({ record, visit, person: to, ...one }): Proposal => {
    const label = [one.ref, one.title].filter(Boolean).join(' ') || words.work;
    return {
      label,
      what: record ? <Link to={`/records/${record}`}>{label}</Link> : label,
      when: shortSpanText(one.start, one.end),
      name: one.name,
      nearest: one.nearest,
      reasons: one.reasons,
      ...(record !== undefined &&
        visit !== undefined &&
        to !== undefined && {
          give: async () => (await handOver.mutateAsync({ record, visit, from: person, to })).act,
        }),
    };
  });
  return (
    <section className={styles.who} aria-label={words.leaves(name)}>
      <h2>
        {words.leaves(name)}, {daysText(from, last)} {hours?.replace('-', '–')}{' '}
        <span>{words.fillWhy}</span>
      </h2>
      {proposals.length === 0 && <p className={styles.quiet}>{words.leavesNothing}</p>}
      <Proposals all={proposals} give={words.handAll} done={words.handedAll} onClose={onClose} />
    </section>
  );
}
