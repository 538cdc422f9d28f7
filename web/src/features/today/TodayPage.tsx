import { Button } from 'antd';
import type { ReactNode } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { useRead } from '../../shared/api/ask';
import { api, ProblemError, type Schemas } from '../../shared/api/client';
import { usePeople } from '../../shared/api/house';
import { keys } from '../../shared/api/keys';
import { clockOf, dueText, longDayText, shortDayText, spanText } from '../../shared/time';
import { Choice } from '../../shared/ui/Choice';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { useKeys } from '../../shared/ui/keys';
import { useTray } from '../../shared/ui/tray';
import { givenTo, RecordSide, useChangeNow, useReleases, type RecordView } from '../records';
import { OutsideLines } from '../copies';
import { useAhead, type Ahead } from '../cover';
import { FirstSteps } from './FirstSteps';
import styles from './today.module.css';
import { Waiting } from './Waiting';
import { words } from './words';

type Today = Schemas['Today'];

/** What wants the coordinator, most pressing first, each with its remedy; beside it two weeks. */
export function TodayPage() {
  const [search, setSearch] = useSearchParams();
  const today = useRead(keys.today, () => api.GET('/api/v1/today'), { refetchInterval: 60_000 });
  const ahead = useAhead();
  const chosen = search.get('record') ? Number(search.get('record')) : null;
  const open = (id: number, edit = false) =>
    setSearch({ record: String(id), ...(edit && { edit: '1' }) });
  const close = () => setSearch({});
  useKeys({ Escape: close });
  // Drawn at once, so that nothing moves under somebody's hand.
  if (today.isPending || ahead.pending) {
    return <Loading what={words.loading} />;
  }
  if (today.error) {
    return (
      <div className={styles.left}>
        <Fault error={today.error} again={() => void today.refetch()} />
      </div>
    );
  }
  return (
    <div className={styles.page}>
      <div className={styles.left}>
        <h1 className={styles.title}>{longDayText(today.data.today)}</h1>
        <FirstSteps />
        <Wants today={today.data} ahead={ahead} open={open} />
      </div>
      <aside className={styles.side} aria-label={chosen ? 'Record' : words.ahead}>
        {chosen ? (
          <RecordSide
            chosen={chosen}
            making={false}
            editing={search.get('edit') === '1'}
            onClose={close}
            onEdit={() => open(chosen, true)}
            onOpen={open}
          />
        ) : (
          <Ahead records={today.data.ahead} open={open} />
        )}
      </aside>
    </div>
  );
}

type Open = (id: number) => void;

const MOST_AHEAD = 4;

/** How much wants somebody, but for what waits for a yes. */
const count = (today: Today, ahead: ReturnType<typeof useAhead>) =>
  ahead.short.length +
  ahead.clashes.length +
  ahead.pileUps.length +
  today.cant.length +
  today.overdue.length +
  today.dueToday.length +
  today.nobody.length +
  today.nowhere.length +
  today.unseen.length;

function Calm() {
  return (
    <div className={styles.calm}>
      <strong>{words.calm}</strong>
      <p>{words.calmWhy}</p>
    </div>
  );
}

function Wants({
  today,
  ahead,
  open,
}: {
  today: Today;
  ahead: ReturnType<typeof useAhead>;
  open: Open;
}) {
  const remedies = useRemedies();
  const waiting = useReleases(true).data?.length ?? 0;
  if (count(today, ahead) + waiting === 0) {
    return <Calm />;
  }
  return (
    <>
      <Part name={words.cant} count={today.cant.length} wrong>
        {today.cant.map((r) => (
          <Line key={r.id} record={r} open={open}>
            {r.mayChange.includes('cant') && (
              <Button size="small" onClick={() => remedies.settle(r)}>
                {words.settled}
              </Button>
            )}
          </Line>
        ))}
      </Part>
      <Part name={words.overdue} count={today.overdue.length} wrong>
        {today.overdue.map((r) => (
          <Line key={r.id} record={r} open={open}>
            {r.mayChange.includes('state') && (
              <Button size="small" onClick={() => remedies.finish(r)}>
                {words.finish}
              </Button>
            )}
          </Line>
        ))}
      </Part>
      <AheadPart name={words.short} of={ahead.short} remedy={words.whoCould} />
      <AheadPart name={words.clashes} of={ahead.clashes} remedy={words.look} />
      <AheadPart name={words.pileUps} of={ahead.pileUps} remedy={words.look} />
      <Part name={words.nobody} count={today.nobody.length} wrong>
        {today.nobody.map((r) => (
          <Line key={r.id} record={r} open={open}>
            {r.mayChange.includes('people') && (
              <Choice
                size="small"
                className={styles.give}
                placeholder={words.give}
                aria-label={words.giveTo(r.ref ?? words.work)}
                value={null}
                options={remedies.people}
                onChange={(person) => remedies.give(r, person)}
              />
            )}
          </Line>
        ))}
      </Part>
      <Part name={words.dueToday} count={today.dueToday.length}>
        {today.dueToday.map((r) => (
          <Line key={r.id} record={r} open={open} />
        ))}
      </Part>
      <OutsideLines />
      <Waiting open={open} />
      <Part name={words.nowhere} count={today.nowhere.length}>
        {today.nowhere.map((r) => (
          <Line key={r.id} record={r} open={open}>
            <Button size="small" onClick={() => open(r.id)}>
              {words.why}
            </Button>
          </Line>
        ))}
      </Part>
      <Part name={words.unseen} count={today.unseen.length}>
        {today.unseen.map((u) => (
          <Line key={`${u.record.id}:${u.person}`} record={u.record} open={open}>
            <span className={styles.note}>
              {words.notSeenBy(u.name)}
              {u.change ? ': ' + changes(u.change) : ''}
            </span>
          </Line>
        ))}
      </Part>
    </>
  );
}

export function changes(view: Schemas['HistoryView']): string {
  const told = view.changes
    .filter((c) => c.before !== '' && c.label !== 'People')
    .map((c) => `${c.label} ${c.before} → ${c.after || '–'}`);
  return told.length > 0 ? told.join('; ') : words.made;
}

function Part({
  name,
  count,
  wrong = false,
  children,
}: {
  name: string;
  count: number;
  wrong?: boolean;
  children: ReactNode;
}) {
  return count === 0 ? null : (
    <section className={styles.part} aria-label={name}>
      <h2 className={wrong ? styles.wrong : ''}>
        {name} <span className="number">{words.of(count)}</span>
      </h2>
      <ul>{children}</ul>
    </section>
  );
}

/** The nearest of what is wrong ahead, each led to its remedy; the rest where they all are. */
function AheadPart({ name, of, remedy }: { name: string; of: Ahead[]; remedy: string }) {
  const first = of[MOST_AHEAD];
  return (
    <Part name={name} count={of.length} wrong>
      {of.slice(0, MOST_AHEAD).map((one) => (
        <li key={one.key} className={styles.line}>
          <span className={styles.coming}>
            <span className={styles.name}>{one.what}</span>
            <span className={styles.when}>{one.when}</span>
            {one.never && <span className={styles.never}>{words.never}</span>}
          </span>
          <span className={styles.remedy}>
            <Link className={styles.leads} to={one.to} aria-label={`${remedy}: ${one.what}`}>
              {remedy}
            </Link>
          </span>
        </li>
      ))}
      {first && (
        <li className={styles.more}>
          <Link to={first.to}>{words.more(of.length - MOST_AHEAD)}</Link>
        </li>
      )}
    </Part>
  );
}

function Line({
  record,
  open,
  children,
}: {
  record: RecordView;
  open: Open;
  children?: ReactNode;
}) {
  const people = [...new Set((record.people ?? []).map((p) => p.name))].join(', ');
  return (
    <li className={styles.line}>
      <button type="button" className={styles.what} onClick={() => open(record.id)}>
        <span className={styles.ref}>{record.ref}</span>
        <span className={styles.name}>{record.title ?? words.work}</span>
        <span className={styles.where}>{record.place?.name}</span>
        <span className={styles.when}>{when(record)}</span>
        <span className={styles.who}>{people}</span>
      </button>
      <span className={styles.remedy}>{children}</span>
    </li>
  );
}

function when(record: RecordView): string {
  const span = (record.visits ?? []).find((v) => v.start ?? v.first);
  return record.due ? `${words.due} ${dueText(record.due)}` : span ? spanText(span) : '';
}

function useRemedies() {
  const change = useChangeNow();
  const people = usePeople();
  const tray = useTray();
  const crew = (people.data ?? [])
    .filter((p) => p.standing === 'HOUSE' || p.standing === 'AGENCY')
    .map((p) => ({ value: p.id, label: p.name }));
  const act = (id: number, how: Parameters<typeof change.mutate>[0]['change'], said: string) =>
    change.mutate(
      { id, change: how },
      {
        onSuccess: (done) => tray.tell({ text: said, act: done.act }),
        onError: (error) =>
          tray.tell({ text: error instanceof ProblemError ? error.message : words.failed }),
      },
    );
  return {
    people: crew,
    finish: (r: RecordView) => act(r.id, () => ({ state: 'DONE' }), words.finished(r.ref ?? '')),
    settle: (r: RecordView) => act(r.id, () => ({ cant: false }), words.done(r.ref ?? '')),
    give: (r: RecordView, person: number) =>
      act(
        r.id,
        (now) => givenTo(now, person),
        words.given(r.ref ?? '', crew.find((p) => p.value === person)?.label ?? ''),
      ),
  };
}

/** The next two weeks by day, without shifts, which the board shows better. */
function Ahead({ records, open }: { records: RecordView[]; open: Open }) {
  const navigate = useNavigate();
  const byDay = new Map<string, { key: string; clock: string; record: RecordView }[]>();
  for (const record of records.filter((r) => r.kind !== 'SHIFT')) {
    const spans = (record.visits ?? []).flatMap((visit) => visit.start ?? visit.first ?? []);
    const due = record.due?.at ?? record.due?.date ?? [];
    for (const moment of spans.length > 0 ? spans : [due].flat()) {
      const day = moment.slice(0, 10);
      const list = byDay.get(day) ?? [];
      list.push({
        key: record.id + moment,
        clock: moment.length > 10 ? clockOf(moment) : '',
        record,
      });
      byDay.set(day, list);
    }
  }
  const days = [...byDay.keys()].sort();
  return (
    <div className={styles.ahead}>
      <h2>{words.ahead}</h2>
      {days.length === 0 && <p className={styles.note}>{words.nothingAhead}</p>}
      {days.map((day) => (
        <section key={day}>
          <h3>
            <button type="button" onClick={() => void navigate(`/board?zoom=day&from=${day}`)}>
              {shortDayText(day)}
            </button>
          </h3>
          <ul>
            {byDay
              .get(day)!
              .sort((a, b) => a.clock.localeCompare(b.clock, 'en'))
              .map(({ key, clock, record }) => (
                <li key={key}>
                  <button type="button" onClick={() => open(record.id)}>
                    <span className="number">{clock}</span>
                    <span>
                      {record.title ?? words.work}
                      {record.place ? ` · ${record.place.name}` : ''}
                    </span>
                  </button>
                </li>
              ))}
          </ul>
        </section>
      ))}
    </div>
  );
}
