import { useEffect } from 'react';
import { useDetails, usePeople, usePlaces } from '../../shared/api/house';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { Paper } from '../../shared/ui/Paper';
import { isOverdue } from '../../shared/time';
import { namesOf, whenText } from './RecordList';
import { columnsOf, type Column } from './columns';
import type { RecordView } from './model';
import { useReading, useRecords } from './queries';
import styles from './records.module.css';
import { useRecordsPage } from './useRecordsPage';
import { words } from './words';

/** More than these are no list that anybody reads on paper. */
const MOST = 2_000;

/** The list that stands there, all of it, on paper. */
export function RecordsPaper() {
  const page = useRecordsPage();
  const list = useRecords(page.wish);
  const reading = useReading(page.find);
  const people = usePeople();
  const places = usePlaces();
  const details = useDetails();
  const extra = columnsOf(details.data ?? []).filter((one) => page.columns.includes(one.key));
  const rows = list.data?.pages.flatMap((one) => one.items) ?? [];
  const { hasNextPage, isFetching, fetchNextPage } = list;
  const whole = list.data !== undefined && (!hasNextPage || rows.length >= MOST);
  useEffect(() => {
    if (hasNextPage && !isFetching && !whole) {
      void fetchNextPage();
    }
  }, [hasNextPage, isFetching, whole, fetchNextPage]);
  if (list.error) {
    return <Fault error={list.error} reads />;
  }
  if (!whole) {
    return <Loading what={words.readSoFar(rows.length)} />;
  }
  const named = (all: { id: number; name: string }[] | undefined, id: number) =>
    all?.find((one) => one.id === id)?.name;
  const said = [
    words.kindChoices.find((one) => one.value === page.kind)?.label,
    named(people.data, page.person),
    named(places.data, page.place),
    ...(reading.data?.pieces ?? []).map((piece) => piece.said),
  ];
  return (
    <Paper
      back={{ to: '/records' + (page.query ? '?' + page.query : ''), name: words.backToList }}
      title={words.title}
      about={[words.stateOfList[page.state], ...said, words.count(rows.length, hasNextPage)]
        .filter(Boolean)
        .join(' · ')}
    >
      <table className={styles.onPaper}>
        <thead>
          <tr>
            {[...words.columns, ...extra.map((one) => one.label)].map((name) => (
              <th key={name} scope="col">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <Row key={row.id} row={row} extra={extra} />
          ))}
        </tbody>
      </table>
    </Paper>
  );
}

function Row({ row, extra }: { row: RecordView; extra: Column[] }) {
  const open = row.state !== 'DONE' && row.state !== 'CANCELLED';
  return (
    <tr>
      <td>{row.ref}</td>
      <td>{row.title ?? words.work}</td>
      <td>{row.place?.name}</td>
      <td>{namesOf(row).join(', ') || words.nobody}</td>
      <td>{whenText(row)}</td>
      <td>{open && isOverdue(row.due) ? words.overdue : row.state && words.states[row.state]}</td>
      {extra.map((one) => (
        <td key={one.key}>{one.text(row)}</td>
      ))}
    </tr>
  );
}
