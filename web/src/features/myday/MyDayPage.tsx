import { Button, Input } from 'antd';
import { lazy, Suspense, useEffect, useState, type ReactNode } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { Schemas } from '../../shared/api/client';
import {
  clockOf,
  isOverdue,
  leaveText,
  longDayText,
  momentText,
  nowMoment,
  shortDayText,
} from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { INFORMED, LEAD } from '../records';
import type { Mark } from './kept';
import styles from './myday.module.css';
import { useMyDay, useMyLeave, useMyTimes } from './useMyDay';
import { words } from './words';

type RecordView = Schemas['RecordView'];
type Visit = Schemas['VisitView'];

/** A worker's own day on a phone; opens without network and keeps ticks until it returns. */
export function MyDayPage({ person, name }: { person: number; name: string }) {
  const [search, setSearch] = useSearchParams();
  const tab = search.get('tab') ?? 'day';
  const my = useMyDay(person);
  useEffect(() => {
    // Keeps the page itself for when there is no network.
    void navigator.serviceWorker?.register('/sw.js');
  }, []);
  if (my.pending) {
    return <Loading what={words.loading} />;
  }
  return (
    <div className={styles.page}>
      <header className={styles.head}>
        <h1>{my.day ? longDayText(my.day.today) : words.tabs[0].label}</h1>
        <Link to="/account">{name.split(' ')[0]}</Link>
      </header>
      {my.without && my.at !== null && (
        <p className={styles.without} role="status">
          {words.without(momentText(isoOf(my.at)))}
        </p>
      )}
      <Waits my={my} />
      <div className={styles.body}>
        {my.error && <Fault error={my.error} again={my.again} />}
        {tab === 'times' ? (
          <Times person={person} />
        ) : (
          my.day && (tab === 'weeks' ? <Weeks my={my} /> : <Day my={my} person={person} />)
        )}
      </div>
      <nav className={styles.tabs} aria-label="My pages">
        {words.tabs.map((t) => (
          <button
            key={t.key}
            type="button"
            aria-current={tab === t.key ? 'page' : undefined}
            onClick={() => setSearch(t.key === 'day' ? {} : { tab: t.key })}
          >
            {t.label}
          </button>
        ))}
      </nav>
    </div>
  );
}

const isoOf = (moment: number) => new Date(moment).toISOString();

type My = ReturnType<typeof useMyDay>;

function Waits({ my }: { my: My }) {
  const refused = my.waiting.filter((w) => w.refused);
  const open = my.waiting.length - refused.length;
  return (
    <>
      {open > 0 && <p className={styles.waits}>{words.waits(open)}</p>}
      {refused.map((w) => (
        <p key={w.key} className={styles.refused} role="alert">
          <span>
            <strong>{words.refused}:</strong> {w.refused}
          </span>
          <Button size="small" onClick={() => my.forget(w.key)}>
            {words.forget}
          </Button>
        </p>
      ))}
    </>
  );
}

/** One visit of a record, or the record by its due time. */
interface Piece {
  key: string;
  record: RecordView;
  visit?: Visit;
  day: string;
  sort: string;
}

function piecesOf(work: RecordView[]): Piece[] {
  const found: Piece[] = [];
  for (const record of work) {
    const spans = (record.visits ?? []).flatMap((visit) => {
      const at = visit.start ?? visit.first;
      return at ? [{ visit, at }] : [];
    });
    for (const { visit, at } of spans) {
      found.push({
        key: `${record.id}:${visit.no}`,
        record,
        visit,
        day: at.slice(0, 10),
        sort: at,
      });
    }
    const due = record.due?.at ?? record.due?.date;
    if (spans.length === 0 && due) {
      found.push({ key: String(record.id), record, day: due.slice(0, 10), sort: due });
    }
  }
  return found.sort((a, b) => a.sort.localeCompare(b.sort, 'en'));
}

function isToday(piece: Piece, today: string): boolean {
  const { visit, record } = piece;
  const last = visit?.last ?? visit?.end?.slice(0, 10) ?? piece.day;
  const late = !visit && record.state !== 'DONE' && piece.day < today;
  return late || (piece.day <= today && last >= today);
}

function Day({ my, person }: { my: My; person: number }) {
  const day = my.day!;
  const pieces = piecesOf(day.work);
  const now = pieces.filter((p) => isToday(p, day.today));
  const next = pieces.filter((p) => p.day > day.today).slice(0, 3);
  const places = new Set(now.map((p) => p.record.place?.id).filter(Boolean)).size;
  return (
    <>
      {day.changed.length > 0 && (
        <Section name={words.changed(day.changed.length)}>
          {day.changed.map((c) => (
            <div key={c.record.id} className={styles.changed}>
              <div>
                <strong>{c.record.title ?? words.work}</strong>
                <div className={styles.small}>{what(c)}</div>
              </div>
              <Button disabled={my.without} onClick={() => void my.seen(c.record.id)}>
                {words.seen}
              </Button>
            </div>
          ))}
        </Section>
      )}
      <Lost my={my} />
      <Section name={words.today} aside={places > 0 ? words.places(places) : undefined}>
        {now.length === 0 && <p className={styles.none}>{words.nothing}</p>}
        {now.map((p) => (
          <Work key={p.key} piece={p} my={my} person={person} />
        ))}
      </Section>
      <Section name={words.next}>
        {next.length === 0 && <p className={styles.none}>{words.nothingNext}</p>}
        {next.map((p) => (
          <Short key={p.key} piece={p} />
        ))}
      </Section>
    </>
  );
}

/** What is no longer theirs, as they knew it. */
function Lost({ my }: { my: My }) {
  const lost = my.day!.lost;
  if (lost.length === 0) {
    return null;
  }
  return (
    <Section name={words.lost}>
      {lost.map((one) => {
        const known = [one.day && shortDayText(one.day), one.place].filter(Boolean).join(' · ');
        return (
          <div key={one.record} className={styles.changed}>
            <div>
              <strong>{known || words.work}</strong>
              <div className={styles.small}>{one.cancelled ? words.cancelled : words.another}</div>
            </div>
            <Button
              aria-label={`${words.seen}: ${known || words.work}`}
              disabled={my.without}
              onClick={() => void my.lostSeen(one.record)}
            >
              {words.seen}
            </Button>
          </div>
        );
      })}
    </Section>
  );
}

function what(change: Schemas['UnseenChange']): string {
  const told = (change.change?.changes ?? [])
    .filter((c) => c.before !== '' && c.label !== 'People')
    .map((c) => `${c.label.toLowerCase()} ${c.before} → ${c.after || '–'}`);
  const by = change.change ? `, by ${change.change.who.split(' ')[0]}` : '';
  return (told.length > 0 ? told.join('; ') : words.isNew) + by;
}

function Work({ piece, my, person }: { piece: Piece; my: My; person: number }) {
  const { record, visit } = piece;
  const [asking, setAsking] = useState<'cant' | 'note' | null>(null);
  const [text, setText] = useState('');
  const done = record.state === 'DONE';
  const may = (field: string) => record.mayChange.includes(field);
  const mark = (change: Mark) => my.mark(record.id, change);
  const detail = (key: string) => record.details.find((d) => d.key === key)?.value ?? '';
  const phone = detail('phone');
  const told = [
    [detail('contact'), phone].filter(Boolean).join(', '),
    detail('gate code') && `gate ${detail('gate code')}`,
    detail('parts'),
    detail('notes'),
  ].filter(Boolean);
  return (
    <article className={`${styles.work} ${record.started && !done ? styles.running : ''}`}>
      <div className={styles.clock}>
        <strong className="number">{clock(piece)}</strong>
        <span className="number">{until(piece, my.day!.today)}</span>
      </div>
      <div>
        <div className={styles.top}>
          <strong>
            {done ? '✓ ' : ''}
            {record.title ?? words.work}
          </strong>
          <span className={styles.small}>{state(piece)}</span>
        </div>
        <div className={styles.small}>
          {[record.place?.name, others(record, visit, person)].filter(Boolean).join(' · ')}
        </div>
        {told.map((line) => (
          <div key={line} className={styles.told}>
            {line}
          </div>
        ))}
        {asking ? (
          <form
            className={styles.ask}
            onSubmit={(event) => {
              event.preventDefault();
              mark(asking === 'cant' ? { cant: true, note: text } : { note: text });
              setAsking(null);
              setText('');
            }}
          >
            <Input.TextArea
              autoFocus
              aria-label={asking === 'cant' ? words.why : words.noteHint}
              placeholder={asking === 'cant' ? words.why : words.noteHint}
              maxLength={1000}
              autoSize={{ minRows: 2, maxRows: 6 }}
              value={text}
              onChange={(e) => setText(e.target.value)}
            />
            <Button type="primary" htmlType="submit" size="large" disabled={text.trim() === ''}>
              {words.send}
            </Button>
            <Button size="large" onClick={() => setAsking(null)}>
              {words.cancel}
            </Button>
          </form>
        ) : (
          <div className={styles.buttons}>
            {!done && may('started') && !record.started && (
              <Button size="large" onClick={() => mark({ started: true })}>
                {words.start}
              </Button>
            )}
            {!done && may('state') && (
              <Button
                size="large"
                type={record.started ? 'primary' : 'default'}
                onClick={() => mark({ state: 'DONE' })}
              >
                {words.finish}
              </Button>
            )}
            {!done && may('cant') && !record.cant && (
              <Button size="large" onClick={() => setAsking('cant')}>
                {words.cant}
              </Button>
            )}
            {may('note') && (
              <Button size="large" onClick={() => setAsking('note')}>
                {words.note}
              </Button>
            )}
            {phone && !done && (
              <Button size="large" href={'tel:' + phone.replace(/[^+\d]/g, '')}>
                {words.call}
              </Button>
            )}
          </div>
        )}
      </div>
    </article>
  );
}

function clock({ visit, record }: Piece): string {
  if (visit?.start) {
    return clockOf(visit.start);
  }
  return record.due?.at && !visit ? clockOf(record.due.at) : 'all day';
}

function until(piece: Piece, today: string): string {
  const { visit } = piece;
  if (visit?.end) {
    return `${words.to} ${clockOf(visit.end)}`;
  }
  if (visit) {
    return '';
  }
  return piece.day < today ? shortDayText(piece.day) : words.due;
}

function state({ record, visit }: Piece): string {
  if (record.state === 'DONE') {
    return words.done;
  }
  if (record.cant) {
    return words.cantSaid;
  }
  if (record.started) {
    return words.started;
  }
  if (!visit && isOverdue(record.due)) {
    return words.overdue;
  }
  if (!visit && record.due?.instant) {
    return words.left((Date.parse(record.due.instant) - nowMoment()) / 3_600_000);
  }
  return '';
}

function others(record: RecordView, visit: Visit | undefined, person: number): string {
  const on = (record.people ?? []).filter(
    (p) => p.person !== person && p.role !== INFORMED && (p.visit == null || p.visit === visit?.no),
  );
  const names = [...new Set(on.map((p) => (p.role === LEAD ? words.leads(p.name) : p.name)))];
  return names.length > 0 ? words.with(names.join(', ')) : '';
}

function Short({ piece }: { piece: Piece }) {
  return (
    <div className={styles.short}>
      <div className={styles.clock}>
        <strong>{shortDayText(piece.day).replace(/ \w+$/, '')}</strong>
        <span className="number">
          {clock(piece)}
          {piece.visit?.end ? '–' + clockOf(piece.visit.end) : ''}
        </span>
      </div>
      <div>
        <strong>{piece.record.title ?? words.work}</strong>
        <div className={styles.small}>{piece.record.place?.name}</div>
      </div>
    </div>
  );
}

function Weeks({ my }: { my: My }) {
  const pieces = piecesOf(my.day!.work).filter((p) => p.day >= my.day!.today);
  return (
    <Section name={words.tabs[1].label}>
      {pieces.length === 0 && <p className={styles.none}>{words.nothingNext}</p>}
      {pieces.map((p) => (
        <Short key={p.key} piece={p} />
      ))}
    </Section>
  );
}

/** It comes with what picks days, which nobody needs who only reads their day. */
const AskLeave = lazy(() =>
  import('./AskLeave').catch(() => ({ default: () => <p>{words.leaveNeedsNetwork}</p> })),
);

function Times({ person }: { person: number }) {
  const times = useMyTimes(person);
  const { back } = useMyLeave(person);
  if (times.error) {
    return <Fault error={times.error} again={() => void times.refetch()} />;
  }
  return (
    <>
      <Section name={words.hours}>
        {times.data?.hours.length === 0 && <p className={styles.none}>{words.hoursUnknown}</p>}
        {times.data?.hours.map((h) => (
          <div
            key={`${h.weekday} ${h.from} ${h.place ?? ''} ${h.first ?? ''}`}
            className={styles.row}
          >
            <span>{words.weekdays[h.weekday]}</span>
            <span className="number">
              {h.from} – {h.until}
            </span>
          </div>
        ))}
      </Section>
      <Section name={words.leave}>
        {times.data?.leave.length === 0 && <p className={styles.none}>{words.noLeave}</p>}
        {times.data?.leave.map((l) => (
          <div key={l.id} className={styles.row}>
            <span>{leaveText(l)}</span>
            <span>{l.agreed ? l.sick && words.sick : words.askedFor}</span>
            {!l.agreed && (
              <Button size="small" onClick={() => back.mutate(l.id)}>
                {words.takeBack}
              </Button>
            )}
          </div>
        ))}
        {back.error && <Fault error={back.error} />}
        <Suspense fallback={null}>
          <AskLeave person={person} />
        </Suspense>
      </Section>
    </>
  );
}

function Section({ name, aside, children }: { name: string; aside?: string; children: ReactNode }) {
  return (
    <section aria-label={name}>
      <h2 className={styles.section}>
        <span>{name}</span>
        <span>{aside}</span>
      </h2>
      {children}
    </section>
  );
}
