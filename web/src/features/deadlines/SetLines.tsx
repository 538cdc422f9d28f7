import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, type KeyboardEvent } from 'react';
import { dueText, monthText, today } from '../../shared/time';
import styles from './deadlines.module.css';
import { at, inTime, isLate, months, next, undated, type Folded, type Stretch } from './model';
import type { DeadlineSet, Step } from './queries';
import { words } from './words';

const ROW = 52;
const HEAD = 30;
/** What is nearer to today, in hundredths, would stand in its word. */
const CLOSE = 8;
/** What begins later would be cut off. */
const LAST = 94;

interface Props {
  groups: Folded[];
  isFolded: boolean;
  stretch: Stretch;
  chosen: number | null;
  onOpen: (id: number) => void;
}

type Row = { group: string; count: number } | { set: DeadlineSet };

/** One set a row: its key date, its deadlines as pennants, today; what is off to the side is told. */
export function SetLines({ groups, isFolded, stretch, chosen, onOpen }: Props) {
  const scroll = useRef<HTMLDivElement>(null);
  const rows: Row[] = groups.flatMap((group) => [
    ...(isFolded ? [{ group: group.name || '–', count: group.sets.length }] : []),
    ...group.sets.map((set) => ({ set })),
  ]);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroll.current,
    estimateSize: (index) => ('group' in rows[index]! ? HEAD : ROW),
    overscan: 12,
  });
  const step = (event: KeyboardEvent, by: number) => {
    event.preventDefault();
    const all = [...(scroll.current?.querySelectorAll<HTMLButtonElement>('[data-set]') ?? [])];
    all[all.indexOf(document.activeElement as HTMLButtonElement) + by]?.focus();
  };
  return (
    <div
      className={styles.lines}
      ref={scroll}
      onKeyDown={(event) =>
        event.key === 'ArrowDown'
          ? step(event, 1)
          : event.key === 'ArrowUp'
            ? step(event, -1)
            : undefined
      }
    >
      <Axis stretch={stretch} />
      <div className={styles.rows} style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map((item) => {
          const row = rows[item.index]!;
          return (
            <div
              key={item.key}
              className={styles.row}
              style={{ top: item.start, height: item.size }}
            >
              {'group' in row ? (
                <h2 className={styles.group}>
                  {row.group} <span>{words.sets(row.count)}</span>
                </h2>
              ) : (
                <SetLine
                  set={row.set}
                  stretch={stretch}
                  isChosen={chosen === row.set.id}
                  onOpen={onOpen}
                />
              )}
            </div>
          );
        })}
      </div>
    </div>
  );
}

function Axis({ stretch }: { stretch: Stretch }) {
  const now = at(stretch, { date: today() });
  return (
    <div className={styles.axis}>
      <span />
      <div className={styles.scale} aria-hidden="true">
        {months(stretch)
          .map((day) => ({ day, left: at(stretch, { date: day })! }))
          .filter(({ left }) => left < LAST && (now === undefined || Math.abs(left - now) > CLOSE))
          .map(({ day, left }) => (
            <span key={day} style={{ left: left + '%' }}>
              {monthText(day)}
            </span>
          ))}
        {now !== undefined && now > 0 && now < 100 && (
          <b style={{ left: now + '%' }}>{words.today}</b>
        )}
      </div>
    </div>
  );
}

interface LineProps {
  set: DeadlineSet;
  stretch: Stretch;
  isChosen: boolean;
  onOpen: (id: number) => void;
}

function SetLine({ set, stretch, isChosen, onOpen }: LineProps) {
  const todo = next(set);
  const without = undated(set).length;
  return (
    <button
      type="button"
      data-set={set.id}
      className={styles.line}
      aria-pressed={isChosen}
      onClick={() => onOpen(set.id)}
    >
      <span className={styles.name}>
        <strong>{set.name}</strong>
        <span className={styles.of}>{set.work?.title ?? set.place?.name ?? ''}</span>
        <span className={isLate(set) ? styles.late : styles.next}>
          {todo ? words.nextIs(todo) : without > 0 ? words.waits : words.nothingLeft}
        </span>
      </span>
      <span className={styles.track}>
        {months(stretch).map((day) => (
          <i
            key={day}
            className={styles.month}
            style={{ left: at(stretch, { date: day }) + '%' }}
          />
        ))}
        <Now stretch={stretch} />
        <KeyDate set={set} stretch={stretch} />
        {inTime(set.steps).map((step, index) => (
          <Pennant key={index} step={step} stretch={stretch} isNext={step === todo} />
        ))}
        <Beyond set={set} stretch={stretch} />
      </span>
      <span className={styles.rest}>
        {without > 0 && <span>{words.noDates(without)}</span>}
        {set.offer && <span className={styles.offer}>{words.which.offered}</span>}
      </span>
    </button>
  );
}

function Now({ stretch }: { stretch: Stretch }) {
  const now = at(stretch, { date: today() });
  return now !== undefined && now > 0 && now < 100 ? (
    <i className={styles.now} style={{ left: now + '%' }} />
  ) : null;
}

function KeyDate({ set, stretch }: { set: DeadlineSet; stretch: Stretch }) {
  const left = at(stretch, set.keyDate);
  return left !== undefined && left > 0 && left < 100 ? (
    <i
      className={styles.key}
      style={{ left: left + '%' }}
      title={words.keyIs(set.keyDateName ?? '', set.keyDate)}
    />
  ) : null;
}

function Pennant({ step, stretch, isNext }: { step: Step; stretch: Stretch; isNext: boolean }) {
  const left = at(stretch, step.date);
  if (left === undefined || left < 0 || left > 100) {
    return null;
  }
  const how = step.late
    ? styles.isLate
    : step.standing === 'DONE'
      ? styles.isDone
      : isNext
        ? styles.isNext
        : '';
  return (
    <i
      className={`${styles.pennant} ${how} ${step.standing === 'BY_HAND' ? styles.byHand : ''}`}
      style={{ left: left + '%' }}
      title={`${dueText(step.date)} · ${step.name ?? ''}`}
    />
  );
}

/** How much lies before and after what is drawn. */
function Beyond({ set, stretch }: { set: DeadlineSet; stretch: Stretch }) {
  const places = set.steps
    .map((step) => at(stretch, step.date))
    .filter((place) => place !== undefined);
  const before = places.filter((place) => place < 0).length;
  const after = places.filter((place) => place > 100).length;
  return (
    <>
      {before > 0 && <em className={styles.before}>‹ {before}</em>}
      {after > 0 && <em className={styles.after}>{after} ›</em>}
    </>
  );
}
