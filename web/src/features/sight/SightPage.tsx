import { Segmented, Select } from 'antd';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { lookWith, type Schemas } from '../../shared/api/client';
import { usePeople } from '../../shared/api/house';
import { dueText, spanText } from '../../shared/time';
import { Choice } from '../../shared/ui/Choice';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { useFound, useRecord } from '../records';
import { AuditChoice, AuditTable } from './AuditTable';
import { HouseMap } from './HouseMap';
import { useSight } from './queries';
import styles from './sight.module.css';
import { words } from './words';

type Audience = Schemas['SightAudience'];
type Cell = Schemas['SightCell'];

/** Details by audiences for a real record, and below them the entry as each of them gets it. */
export function SightPage() {
  const [search, setSearch] = useSearchParams();
  const record = search.get('record') ? Number(search.get('record')) : null;
  const by = search.get('by');
  const audited = by === 'detail' || by === 'person' ? by : null;
  const of = search.get('of');
  const sight = useSight(audited ? null : record);
  const view = audited ?? (by === 'record' || record !== null ? 'record' : 'house');
  return (
    <section className={styles.page} aria-label={words.heading}>
      <div className={styles.bar}>
        <h1 className={styles.heading}>{words.heading}</h1>
        <Segmented
          value={view}
          options={words.bys}
          onChange={(value) => setSearch(value === 'house' ? {} : { by: value })}
        />
        {view === 'house' ? null : audited ? (
          <AuditChoice
            by={audited}
            value={of}
            onChoose={(chosen) => setSearch({ by: audited, of: chosen })}
          />
        ) : (
          <Records record={record} onChoose={(id) => setSearch({ record: String(id) })} />
        )}
        <span className={styles.grow} />
        <Eyes />
      </div>
      {!audited && sight.data && sight.data.audiences.length > 0 && (
        <p className={styles.legend}>
          <i className={styles.shown} /> {words.legend.shown}
          <i className={styles.notAsked} /> {words.legend.notAsked}
          <i className={styles.keptBack} /> {words.legend.keptBack}
        </p>
      )}
      {audited && <AuditTable by={audited} value={of} />}
      {view === 'house' && <HouseMap />}
      {view === 'record' && record === null && <p className={styles.quiet}>{words.why}</p>}
      {sight.isLoading && <Loading what={words.loading} />}
      {sight.error && <Fault error={sight.error} reads />}
      {!audited &&
        sight.data &&
        (sight.data.audiences.length === 0 ? (
          <p className={styles.quiet}>{words.nowhere}</p>
        ) : (
          <Table details={sight.data.details} audiences={ordered(sight.data.audiences)} />
        ))}
    </section>
  );
}

/** Any page as somebody else gets it. */
function Eyes() {
  const people = usePeople();
  const others = (people.data ?? []).filter((p) => p.standing !== 'LEFT');
  return (
    <Choice
      className={styles.eyes}
      aria-label={words.eyes}
      placeholder={words.eyes}
      value={null}
      options={others.map((p) => ({ value: p.id, label: p.name }))}
      onChange={(id) => {
        const other = others.find((p) => p.id === id);
        if (other) {
          lookWith({ id, name: other.name, right: other.right ?? 'WORKER' });
        }
      }}
    />
  );
}

function Records({ record, onChoose }: { record: number | null; onChoose: (id: number) => void }) {
  const [find, setFind] = useState('');
  const found = useFound(find);
  const chosen = useRecord(record);
  const items = found.data?.items ?? [];
  const all =
    chosen.data && !items.some((one) => one.id === record) ? [chosen.data.data, ...items] : items;
  return (
    <Select
      className={styles.records}
      showSearch
      filterOption={false}
      aria-label={words.record}
      placeholder={words.record}
      value={record}
      onSearch={setFind}
      onChange={(id: number | null) => id !== null && onChoose(id)}
      options={all.map((one) => ({
        value: one.id,
        label: [one.ref, one.title, one.place?.name, dueText(one.due)].filter(Boolean).join(' · '),
      }))}
    />
  );
}

const SORTS = ['OWN', 'TEAM', 'PLACE', 'DATE_LIST', 'NAMED', 'MASTER'];

/** By visit, and first those whom the work is most about. */
function ordered(audiences: Audience[]): Audience[] {
  const rank = (one: Audience) => (one.visit ?? 0) * SORTS.length + SORTS.indexOf(one.sort);
  return [...audiences].sort((a, b) => rank(a) - rank(b));
}

function Table({
  details,
  audiences,
}: {
  details: Schemas['SightDetail'][];
  audiences: Audience[];
}) {
  return (
    <div className={styles.scroll} role="region" aria-label={words.table} tabIndex={0}>
      <table className={styles.table}>
        <thead>
          <tr>
            <th scope="col">{words.detail}</th>
            <th scope="col">
              {words.here}
              <small>{words.hereWhy}</small>
            </th>
            {audiences.map((one, i) => (
              <th scope="col" key={i}>
                <span title={one.readers}>{one.name}</span>
                <small title={one.readers}>{who(one)}</small>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {details.map((detail, row) => (
            <tr key={detail.key}>
              <th scope="row">{detail.label}</th>
              <td className={styles.value}>
                {value(detail)} <small>{detail.forWhom}</small>
              </td>
              {audiences.map((one, i) => (
                <td key={i} className={styles.cell}>
                  <Seen cell={one.cells[row]!} />
                </td>
              ))}
            </tr>
          ))}
          <tr className={styles.entries}>
            <th scope="row" colSpan={2}>
              {words.stands}
              <small>{words.standsWhy}</small>
            </th>
            {audiences.map((one, i) => (
              <td key={i}>
                <Entry one={one} />
              </td>
            ))}
          </tr>
        </tbody>
      </table>
    </div>
  );
}

function who(one: Audience): string {
  return [
    words.sorts[one.sort],
    one.visit === undefined ? '' : words.visit(one.visit),
    one.way === 'MEMBERS' ? one.readers : words.ways[one.way] + ' ' + one.readers,
  ]
    .filter(Boolean)
    .join(' · ');
}

/** What is computed from the record's structure has no text of its own to show here. */
function value(detail: Schemas['SightDetail']): string {
  const structure = ['ref', 'place', 'times', 'margins', 'people'].includes(detail.key);
  if (detail.value === undefined) {
    return structure ? '' : words.covered;
  }
  return detail.value || words.empty;
}

function Seen({ cell }: { cell: Cell }) {
  switch (cell.status) {
    case 'SHOWN':
      return <i className={styles.shown} role="img" aria-label={words.legend.shown} />;
    case 'NOT_ASKED':
      return <i className={styles.notAsked} role="img" aria-label={words.legend.notAsked} />;
    case 'EMPTY':
      return <span className={styles.quiet}>{words.empty}</span>;
    case 'DOES_NOT_APPLY':
      return <span className={styles.quiet}>{words.notApplying}</span>;
    default:
      return (
        <span className={styles.back} title={`${words.legend.keptBack} ${cell.reader ?? ''}`}>
          {cell.reader ?? 'outside'}
        </span>
      );
  }
}

function Entry({ one }: { one: Audience }) {
  if (!one.entry) {
    return (
      <span className={styles.quiet}>{one.waits ? words.waits[one.waits] : words.noEntry}</span>
    );
  }
  const { entry } = one;
  return (
    <div className={styles.entry}>
      <strong>{entry.title}</strong>
      <span>
        {spanText(entry.times)}, {entry.busy ? words.busy : words.free}
      </span>
      {entry.place && <span>{entry.place}</span>}
      {entry.text && <p>{entry.text}</p>}
      {entry.invited.length > 0 && <span>{words.invited(entry.invited.join(', '))}</span>}
      {entry.reminders.length > 0 && <span>{words.reminds(entry.reminders.join(', '))}</span>}
      {one.waits && <span className={styles.amber}>{words.waits[one.waits]}</span>}
    </div>
  );
}
