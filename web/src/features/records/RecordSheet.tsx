import { Button } from 'antd';
import { ProblemError, type Schemas } from '../../shared/api/client';
import { useDetails } from '../../shared/api/house';
import { dueText, momentText, spanText, zoneMark, type Due } from '../../shared/time';
import { telOf } from '../../shared/dial';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { useKeys } from '../../shared/ui/keys';
import { useTray } from '../../shared/ui/tray';
import { Because } from '../deadlines';
import { History } from './History';
import { useCopiesOf } from './copies';
import { Landings } from './Landings';
import { draftOf, type Change, type RecordView } from './model';
import { useChangeNow, useLandings, type useRecord } from './queries';
import { NUMBERS } from './numbers';
import { SheetActions } from './SheetActions';
import { Section } from './Section';
import styles from './records.module.css';
import { words } from './words';

interface Props {
  id: number;
  query: ReturnType<typeof useRecord>;
  onClose: () => void;
  onEdit: () => void;
  onOpen: (id: number) => void;
}

export function RecordSheet({ id, query, onClose, onEdit, onOpen }: Props) {
  if (query.isPending) {
    return <Loading what={words.loadingRecord} />;
  }
  if (query.error) {
    return (
      <div className={styles.pad}>
        {query.error instanceof ProblemError && query.error.problem.status === 404 && (
          <p className={styles.quiet}>{words.noLongerYours}</p>
        )}
        <Fault error={query.error} reads />
      </div>
    );
  }
  return (
    <Sheet id={id} record={query.data.data} onClose={onClose} onEdit={onEdit} onOpen={onOpen} />
  );
}

interface SheetProps {
  id: number;
  record: RecordView;
  onClose: () => void;
  onEdit: () => void;
  onOpen: (id: number) => void;
}

function Sheet({ id, record, onClose, onEdit, onOpen }: SheetProps) {
  const change = useChangeNow();
  const landings = useLandings(id);
  const copies = useCopiesOf(id);
  const tray = useTray();
  const may = (field: string) => record.mayChange.includes(field);
  const act = (body: Change, said: string) =>
    change.mutate(
      { id, change: () => body },
      {
        onSuccess: (done) =>
          tray.tell({ text: `${record.ref ?? 'Record'} ${said}` + outcome(done), act: done.act }),
      },
    );
  const live = record.state === 'CONFIRMED' || record.state === 'TENTATIVE';
  const actions = {
    o: may('title') && (record.state === 'TENTATIVE' || record.state === 'DRAFT'),
    s: may('started') && live && !record.started,
    f: may('state') && live,
  };
  const confirm = () => act({ state: 'CONFIRMED' }, 'confirmed');
  const start = () => act({ started: true }, 'started');
  const finish = () => act({ state: 'DONE' }, 'finished');
  useKeys({
    ...(actions.o && { o: confirm }),
    ...(actions.s && { s: start }),
    ...(actions.f && { f: finish }),
    ...(record.mayChange.length > 0 && { e: onEdit }),
  });
  return (
    <div className={styles.sheet}>
      <div className={styles.kicker}>
        <span>
          {words.kinds[record.kind]} {record.ref} · {record.state && words.states[record.state]}
          {record.started && live ? ' · started' : ''}
          {record.isPrivate ? ' · private' : ''}
          {record.free ? ` · ${words.takesNoTime}` : ''}
        </span>
        <Button size="small" type="text" onClick={onClose}>
          {words.close}
        </Button>
      </div>
      <h2 className={styles.title}>{record.title ?? 'Work'}</h2>
      <div className={styles.sub}>
        {[
          record.place?.name,
          record.uses && words.using(record.uses.map((one) => one.name)),
          record.team?.name,
          due(record),
        ]
          .filter(Boolean)
          .join(' · ')}
      </div>
      <When record={record} />
      <Because record={id} />
      <div className={styles.actions}>
        {actions.f && (
          <Button type="primary" onClick={finish} loading={change.isPending}>
            {words.finish}
          </Button>
        )}
        {actions.o && <Button onClick={confirm}>{words.confirm}</Button>}
        {actions.s && <Button onClick={start}>{words.start}</Button>}
        {record.state === 'DONE' && may('state') && (
          <Button onClick={() => act({ state: 'CONFIRMED' }, 'open again')}>{words.reopen}</Button>
        )}
        {record.mayChange.length > 0 && <Button onClick={onEdit}>{words.change}</Button>}
        <SheetActions record={record} onOpen={onOpen} />
      </div>
      {change.error && <Fault error={change.error} />}
      <Section name={words.people}>
        <People record={record} />
      </Section>
      <Landings query={landings} title={words.lands} copies={copies.data} record={record} />
      <Section name={words.details}>
        <Details record={record} />
      </Section>
      <History id={id} />
    </div>
  );
}

function outcome(done: { entries?: number; calendars?: number }): string {
  return done.entries != null && done.calendars != null
    ? ': ' + words.outcome(done.entries, done.calendars)
    : '';
}

export function due(record: RecordView): string {
  const wantsOne = record.kind === 'TICKET' || record.kind === 'DEADLINE';
  return record.due ? 'due ' + dueText(record.due) : wantsOne ? words.notDue : '';
}

/** Each visit with its margins, who is on it where that differs, and the further dates. */
export function When({ record }: { record: RecordView }) {
  const visits = (record.visits ?? []).filter((v) => v.start ?? v.first);
  const several = (record.visits ?? []).length > 1;
  const dates = record.dates ?? [];
  const tags = record.tags ?? [];
  const differ = draftOf(record).ownPeople;
  return (
    <>
      {visits.length > 0 && (
        <ul className={styles.visits}>
          {visits.map((v) => {
            const margin = [
              v.marginBefore ? words.minutesBefore(v.marginBefore) : '',
              v.marginAfter ? words.minutesAfter(v.marginAfter) : '',
            ].filter(Boolean);
            const names = (record.people ?? []).filter((p) => p.visit === v.no).map((p) => p.name);
            return (
              <li key={v.no}>
                <span className="number">
                  {several ? `${v.no}. ` : ''}
                  {spanText(v)}
                  {zoneMark(v.zone, v.starts)}
                </span>
                {v.tentative && record.state !== 'TENTATIVE' && record.state !== 'DONE' && (
                  <span className={styles.quiet}> · {words.tooFew}</span>
                )}
                <div className={styles.small}>
                  {[margin.join(', '), differ ? [...new Set(names)].join(', ') : '']
                    .filter(Boolean)
                    .join(' · ')}
                </div>
              </li>
            );
          })}
        </ul>
      )}
      {dates.length > 0 && (
        <div className={styles.small}>
          {dates.map((d) => `${d.name} ${dueText(d.when as Due)}`).join(' · ')}
        </div>
      )}
      {tags.length > 0 && (
        <div className={styles.tags}>
          {tags.map((tag) => (
            <span key={tag}>{tag}</span>
          ))}
        </div>
      )}
      {NUMBERS.map(
        (field) =>
          record[field] !== undefined && (
            <div key={field} className={styles.small}>
              {words.numbers[field].said(record[field])}
            </div>
          ),
      )}
      {record.wants && (
        <div className={styles.small}>{words.wanted(record.wants.people, record.wants.skills)}</div>
      )}
      {(record.exceptions ?? []).map((e, i) => (
        <div key={i} className={styles.small}>
          {words.exceptionSaid[e.sort]} {e.calendarName ?? ''}: {e.reason}
        </div>
      ))}
    </>
  );
}

export function People({ record }: { record: RecordView }) {
  const people = record.people ?? [];
  if (people.length === 0) {
    return <em className={styles.quiet}>{words.nobody}</em>;
  }
  const seats = [
    ...new Map(people.map((p) => [`${p.role}-${p.person ?? 't' + p.team}`, p] as const)).entries(),
  ];
  return (
    <ul className={styles.people}>
      {seats.map(([seat, p]) => (
        <li key={seat}>
          <strong>{p.name}</strong> <span className={styles.quiet}>{p.roleName}</span>
          {p.given && <span className={styles.given}>given {momentText(p.given)}</span>}
        </li>
      ))}
    </ul>
  );
}

export function Details({ record }: { record: RecordView }) {
  const definitions = useDetails();
  const shown = record.details.filter((d) => d.value !== '');
  if (shown.length === 0) {
    return <em className={styles.quiet}>none</em>;
  }
  const definition = (key: string) => definitions.data?.find((d) => d.key === key);
  return (
    <>
      {record.warnings?.map((w) => (
        <p key={w.detail + w.inside} className={styles.warning} role="note">
          {words.standsInside(w.detail, w.inside, w.insideFor)}
        </p>
      ))}
      <dl className={styles.details}>
        {shown.map((d) => (
          <div key={d.key}>
            <dt>{d.label}</dt>
            <dd>
              {d.value === undefined ? (
                <span aria-label={words.kept}>••••</span>
              ) : (
                <Value definition={definition(d.key)} value={d.value} />
              )}
              <span className={styles.forWhom}>{words.forWhom(d.forWhom)}</span>
            </dd>
          </div>
        ))}
      </dl>
    </>
  );
}

/** A value as its sort is read: with its unit, as a day, or as what it leads to. */
function Value({
  definition,
  value,
}: {
  definition: Schemas['Detail'] | undefined;
  value: string;
}) {
  switch (definition?.sort) {
    case 'LINK':
      return (
        <a href={value} target="_blank" rel="noreferrer noopener">
          {value}
        </a>
      );
    case 'MAIL':
      return <a href={'mailto:' + value}>{value}</a>;
    case 'PHONE':
      return <a href={telOf(value)}>{value}</a>;
    case 'DATE':
      // Text of before stands as it was typed.
      return /^\d{4}-\d\d-\d\d$/.test(value) ? dueText({ date: value }) : value;
    case 'NUMBER':
    case 'MONEY':
      return [value, definition.unit].filter(Boolean).join(' ');
    default:
      return value;
  }
}
