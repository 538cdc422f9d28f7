import { useParams } from 'react-router';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { Paper } from '../../shared/ui/Paper';
import { History } from './History';
import { Landings } from './Landings';
import { useLandings, useRecord } from './queries';
import { Details, due, People, When } from './RecordSheet';
import { Section } from './Section';
import styles from './records.module.css';
import { words } from './words';

/** A record with where it lands and its history, on paper. */
export function RecordPaper() {
  const id = Number(useParams().id);
  const query = useRecord(id);
  const landings = useLandings(id);
  if (query.error) {
    return <Fault error={query.error} reads />;
  }
  if (query.isPending || landings.isPending) {
    return <Loading what={words.loadingRecord} />;
  }
  const record = query.data.data;
  return (
    <Paper
      back={{ to: `/records/${id}`, name: words.backToRecord }}
      title={[record.ref, record.title ?? words.work].filter(Boolean).join(' ')}
      about={[
        words.kinds[record.kind],
        record.state && words.states[record.state],
        record.place?.name,
        record.team?.name,
        due(record),
      ]
        .filter(Boolean)
        .join(' · ')}
    >
      <div className={styles.recordOnPaper}>
        <When record={record} />
        <Section name={words.people}>
          <People record={record} />
        </Section>
        <Section name={words.details}>
          <Details record={record} />
        </Section>
        <Landings query={landings} title={words.lands} record={record} />
        <History id={id} />
      </div>
    </Paper>
  );
}
