import { Button, Input } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { telOf } from '../../shared/dial';
import { clockOf, isOverdue, nowMoment, shortDayText, zoneMark } from '../../shared/time';
import { INFORMED, LEAD } from '../records';
import type { Mark } from './kept';
import styles from './myday.module.css';
import type { Piece, RecordView, Visit } from './pieces';
import type { useMyDay } from './useMyDay';
import { words } from './words';

type My = ReturnType<typeof useMyDay>;

/** One piece of their day, with all they may tell of it. */
export function Work({ piece, my, person }: { piece: Piece; my: My; person: number }) {
  const { record, visit } = piece;
  const [asking, setAsking] = useState<Asking | null>(null);
  const [text, setText] = useState('');
  const done = record.state === 'DONE';
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
            <Link to={`/records/${record.id}`}>{record.title ?? words.work}</Link>
          </strong>
          <span className={styles.small}>{state(piece)}</span>
        </div>
        <div className={styles.small}>
          {[record.place?.name, record.place?.address, others(record, visit, person)]
            .filter(Boolean)
            .join(' · ')}
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
          <Buttons piece={piece} mark={mark} ask={setAsking} phone={phone} />
        )}
      </div>
    </article>
  );
}

type Asking = 'cant' | 'note';

/** What can be told of it at a touch, who can be called, and how one gets there. */
function Buttons({
  piece: { record },
  mark,
  ask,
  phone,
}: {
  piece: Piece;
  mark: (change: Mark) => void;
  ask: (what: Asking) => void;
  phone: string;
}) {
  const done = record.state === 'DONE';
  const may = (field: string) => record.mayChange.includes(field);
  const way = wayTo(record.place);
  return (
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
        <Button size="large" onClick={() => ask('cant')}>
          {words.cant}
        </Button>
      )}
      {may('note') && (
        <Button size="large" onClick={() => ask('note')}>
          {words.note}
        </Button>
      )}
      {way && !done && (
        <Button size="large" href={way}>
          {words.wayThere}
        </Button>
      )}
      {phone && !done && (
        <Button size="large" href={telOf(phone)}>
          {words.call}
        </Button>
      )}
    </div>
  );
}

/** Where a phone's map shows the place (RFC 5870). */
function wayTo(place: RecordView['place']): string | undefined {
  return place?.latitude !== undefined && place.longitude !== undefined
    ? `geo:${place.latitude},${place.longitude}`
    : undefined;
}

export function clock({ visit, record }: Piece): string {
  if (visit?.start) {
    return clockOf(visit.start) + zoneMark(visit.zone, visit.starts);
  }
  return record.due?.at && !visit
    ? clockOf(record.due.at) + zoneMark(record.due.zone, record.due.instant)
    : words.allDay;
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
