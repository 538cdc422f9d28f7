import { Button } from 'antd';
import { lazy, Suspense, useEffect, type ReactNode } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { Schemas } from '../../shared/api/client';
import {
  clockOf,
  leaveText,
  longDayText,
  momentText,
  shortDayText,
  today,
} from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import styles from './myday.module.css';
import { isToday, piecesOf, type Piece, type RecordView } from './pieces';
import { useMyDay, useMyLeave, useMyTimes } from './useMyDay';
import { clock, Work } from './Work';
import { words } from './words';

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
        {my.day && !my.without && (
          <Link to={`/board/paper?of=person-${person}&from=${my.day.today}&days=14`}>
            {words.onPaper}
          </Link>
        )}
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

function Day({ my, person }: { my: My; person: number }) {
  const day = my.day!;
  const pieces = piecesOf(day.work);
  const now = pieces.filter((p) => isToday(p, day.today));
  const next = pieces.filter((p) => p.day > day.today).slice(0, 3);
  const places = new Set(now.map((p) => p.record.place?.id).filter(Boolean)).size;
  return (
    <>
      {day.changed.length > 0 && (
        <Section
          name={words.changed(day.changed.length)}
          aside={
            day.changed.length > 1 && (
              <Button
                size="small"
                disabled={my.without}
                onClick={() => void my.seen(...day.changed.map((c) => c.record.id))}
              >
                {words.seenAll}
              </Button>
            )
          }
        >
          {day.changed.map((c) => (
            <div key={c.record.id} className={styles.changed}>
              <div>
                <Link to={`/records/${c.record.id}`}>{c.record.title ?? words.work}</Link>
                <div className={styles.small}>{whenAndWhere(c.record)}</div>
                <div className={styles.small}>{what(c)}</div>
              </div>
              <Button
                aria-label={`${words.seen}: ${c.record.title ?? words.work}`}
                disabled={my.without}
                onClick={() => void my.seen(c.record.id)}
              >
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

/** The day of its first piece that is not over, and the place. */
function whenAndWhere(record: RecordView): string {
  const pieces = piecesOf([record]);
  const [next] = [...pieces.filter((piece) => piece.day >= today()), ...pieces.slice(-1)];
  return [next && shortDayText(next.day), record.place?.name].filter(Boolean).join(' · ');
}

function what(change: Schemas['UnseenChange']): string {
  const told = (change.change?.changes ?? [])
    .filter((c) => c.before !== '' && c.label !== 'People')
    .map((c) => `${c.label.toLowerCase()} ${c.before} → ${c.after || '–'}`);
  const by = change.change ? `, by ${change.change.who.split(' ')[0]}` : '';
  return (told.length > 0 ? told.join('; ') : words.isNew) + by;
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
    return <Fault error={times.error} reads />;
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

function Section({
  name,
  aside,
  children,
}: {
  name: string;
  aside?: ReactNode;
  children: ReactNode;
}) {
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
