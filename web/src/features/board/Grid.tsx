import { useVirtualizer, type Virtualizer } from '@tanstack/react-virtual';
import {
  useCallback,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type MouseEvent,
  type ReactNode,
} from 'react';
import { dayNumber, nowMoment, shortDayText, weekdayText } from '../../shared/time';
import { typing } from '../../shared/ui/keys';
import type { Taker } from '../cover';
import { placeOf, type Days } from './days';
import type { Piece } from './lanes';
import { LaneRow } from './LaneRow';
import type { Row } from './rows';
import { offsetsOf } from './rows';
import styles from './board.module.css';
import { useDrag, type Spot } from './useDrag';
import { words } from './words';

/** Which cell has the keyboard, and which piece in it; -1 is the cell itself. */
export interface Focus {
  lane: string;
  day: number;
  piece: number;
  /** The lane's group comes to the top. */
  top?: boolean;
}

interface Props {
  rows: Row[];
  days: Days;
  codes: Map<number, string>;
  corner: string;
  todayAt: number;
  open: number | null;
  chosen: ReadonlySet<string>;
  focus: Focus | null;
  onFocus: (focus: Focus) => void;
  onOpen: (piece: Piece) => void;
  onChoose: (piece: Piece) => void;
  onMake: (spot: { lane: string; day: number }) => void;
  onEnter: () => void;
  mayMove: (piece: Piece) => boolean;
  mayDraw: boolean;
  /** Rows above the lanes. */
  over?: ReactNode;
  tell: (piece: Piece | null, from: Spot, to: Spot, edge: boolean) => string;
  onHold: (held: { piece: Piece; from: Spot; to: Spot } | null) => void;
  /** While something is held: whether each could take it. */
  takers?: Map<number, Taker>;
  onDrop: (piece: Piece, from: Spot, to: Spot, edge: boolean) => void;
  onDraw: (from: Spot, to: Spot) => void;
}

const HEAD = 168;

/** The lanes: only those in sight are on the page. */
export function Grid(props: Props) {
  const { rows, days, focus, onFocus } = props;
  const scroller = useRef<HTMLDivElement>(null);
  const ghost = useRef<HTMLDivElement>(null);
  const offsets = useMemo(() => offsetsOf(rows), [rows]);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => rows[i]?.height ?? 54,
    getItemKey: (i) => rows[i]?.key ?? i,
    overscan: 6,
  });
  useLayoutEffect(() => virtual.measure(), [virtual, rows]);
  useKeepsPlace(scroller, rows, offsets);

  const find = useCallback(
    (laneKey: string, key: string) => {
      const row = rows.find((r) => r.type === 'lane' && r.key === laneKey);
      return row?.type === 'lane' ? row.lane.pieces.find((p) => p.key === key) : undefined;
    },
    [rows],
  );
  const drag = useDrag({
    rows,
    offsets,
    days,
    head: HEAD,
    scroller,
    ghost,
    find,
    mayMove: props.mayMove,
    tell: props.tell,
    onHold: props.onHold,
    onDrop: props.onDrop,
    onDraw: (from, to) => props.mayDraw && props.onDraw(from, to),
  });

  const clicked = (event: MouseEvent) => {
    if (!drag.wasDragged.current) {
      click(props, find, event);
    }
  };
  const lanes = useMemo(() => rows.flatMap((r, i) => (r.type === 'lane' ? [i] : [])), [rows]);
  const move = (event: KeyboardEvent) => {
    if (!focus || event.ctrlKey || event.metaKey || event.altKey || event.shiftKey) {
      return;
    }
    if (event.key === 'Enter') {
      event.preventDefault();
      props.onEnter();
      return;
    }
    const next = stepped(rows, lanes, focus, event.key, days.dates.length);
    if (next) {
      event.preventDefault();
      onFocus(next);
    }
  };

  useFollows(focus, rows, scroller, virtual);
  const now = nowMoment();
  const nowAt = placeOf(days, now);
  return (
    <div className={styles.board}>
      <Heads days={days} todayAt={props.todayAt} corner={props.corner} />
      {props.over}
      <div
        className={styles.scroll}
        ref={scroller}
        role="grid"
        aria-label={words.board}
        aria-rowcount={rows.length}
        aria-colcount={days.dates.length + 1}
        aria-multiselectable="true"
        onPointerDown={drag.onPointerDown}
        onClick={clicked}
        onKeyDown={move}
        onDoubleClick={(event) => {
          const cell = (event.target as Element).closest<HTMLElement>('[data-cell]');
          if (cell && props.mayDraw && !(event.target as Element).closest('[data-piece]')) {
            props.onMake({ lane: cell.dataset.lane ?? '', day: Number(cell.dataset.cell) });
          }
        }}
      >
        <div style={{ height: virtual.getTotalSize(), position: 'relative' }} role="presentation">
          {virtual.getVirtualItems().map((item) => {
            const row = rows[item.index];
            return row && <GridRow key={row.key} {...props} row={row} item={item} />;
          })}
          {nowAt > 0 && nowAt < 1 && (
            <div
              className={styles.now}
              style={{ left: `calc(${HEAD}px + (100% - ${HEAD}px) * ${nowAt})` }}
            />
          )}
        </div>
      </div>
      <div ref={ghost} className={styles.ghost} aria-hidden="true" />
    </div>
  );
}

/** A piece is opened or chosen, a cell gets the keyboard. */
function click(
  props: Props,
  find: (laneKey: string, key: string) => Piece | undefined,
  event: MouseEvent,
) {
  const target = (event.target as Element).closest<HTMLElement | SVGElement>('[data-piece]');
  const cell = (event.target as Element).closest<HTMLElement>('[data-cell]');
  if (target) {
    const piece = find(target.dataset.lane ?? '', target.dataset.piece ?? '');
    if (!piece) {
      return;
    }
    if (event.ctrlKey || event.metaKey || event.shiftKey) {
      props.onChoose(piece);
    } else {
      props.onOpen(piece);
    }
    const row = props.rows.find((r) => r.key === target.dataset.lane);
    if (row?.type === 'lane' && piece.day >= 0) {
      const at = row.lane.cells[piece.day]?.indexOf(piece) ?? -1;
      props.onFocus({ lane: row.key, day: piece.day, piece: at });
    }
  } else if (cell) {
    props.onFocus({ lane: cell.dataset.lane ?? '', day: Number(cell.dataset.cell), piece: -1 });
  }
}

interface Item {
  index: number;
  start: number;
}

function GridRow({ row, item, ...props }: Props & { row: Row; item: Item }) {
  const { rows, days, focus } = props;
  const here = focus?.lane === row.key;
  return row.type === 'group' ? (
    <div
      className={styles.group}
      role="row"
      aria-rowindex={item.index + 1}
      style={{ transform: `translateY(${item.start}px)`, height: row.height }}
    >
      <span role="rowheader">
        <b>{row.group.name}</b> <span>{row.group.count}</span>
      </span>
    </div>
  ) : (
    <div role="presentation" data-has-focus={here ? '' : undefined}>
      <LaneRow
        lane={row.lane}
        days={days}
        top={item.start}
        height={row.height}
        index={item.index}
        codes={props.codes}
        today={props.todayAt}
        open={props.open}
        chosen={props.chosen}
        taker={row.lane.person === null ? undefined : props.takers?.get(row.lane.person)}
        focus={here ? focus : first(rows, row.key, focus)}
      />
    </div>
  );
}

/** The keyboard goes where the focus is, also when that was out of sight. */
function useFollows(
  focus: Focus | null,
  rows: Row[],
  scroller: React.RefObject<HTMLDivElement | null>,
  virtual: Virtualizer<HTMLDivElement, Element>,
) {
  const wanted = focus && `${focus.lane}|${focus.day}|${focus.piece}`;
  const [moved, setMoved] = useState<string | null>(null);
  useEffect(() => {
    if (!focus || wanted === moved) {
      return;
    }
    const index = rows.findIndex((r) => r.key === focus.lane);
    if (index < 0) {
      return;
    }
    if (focus.top) {
      virtual.scrollToIndex(Math.max(0, index - 1), { align: 'start' });
    } else {
      virtual.scrollToIndex(index);
    }
    const from = document.activeElement;
    const frame = window.requestAnimationFrame(() => {
      // A form that was opened meanwhile keeps what is typed.
      if (document.activeElement === from || !typing(document.activeElement)) {
        const at = scroller.current?.querySelector<HTMLElement>('[data-has-focus] [tabindex="0"]');
        at?.focus({ preventScroll: true });
      }
      setMoved(wanted);
    });
    return () => window.cancelAnimationFrame(frame);
  }, [focus, wanted, moved, rows, scroller, virtual]);
}

/** Where nobody has been yet, Tab comes to the first lane's first day. */
function first(rows: Row[], key: string, focus: Focus | null) {
  return !focus && rows[0]?.key === key ? FIRST : null;
}

const FIRST = { day: 0, piece: -1 };

/** One step of the arrows: through the pieces of a cell, then to the next lane. */
function stepped(
  rows: Row[],
  lanes: number[],
  focus: Focus,
  key: string,
  count: number,
): Focus | null {
  const at = lanes.findIndex((i) => rows[i]?.key === focus.lane);
  const row = rows[lanes[at] ?? -1];
  if (row?.type !== 'lane') {
    return null;
  }
  const here: Focus = { lane: focus.lane, day: focus.day, piece: -1 };
  const pieces = row.lane.cells[focus.day]?.length ?? 0;
  const lane = (index: number) => rows[lanes[index] ?? -1];
  switch (key) {
    case 'ArrowLeft':
      return focus.day > 0 ? { ...here, day: focus.day - 1 } : null;
    case 'ArrowRight':
      return focus.day < count - 1 ? { ...here, day: focus.day + 1 } : null;
    case 'ArrowDown': {
      if (focus.piece < pieces - 1) {
        return { ...here, piece: focus.piece + 1 };
      }
      const next = lane(at + 1);
      return next ? { ...here, lane: next.key } : null;
    }
    case 'ArrowUp': {
      if (focus.piece >= 0) {
        return { ...here, piece: focus.piece - 1 };
      }
      const before = lane(at - 1);
      return before?.type === 'lane'
        ? { ...focus, lane: before.key, piece: (before.lane.cells[focus.day]?.length ?? 0) - 1 }
        : null;
    }
    case 'Home':
      return { ...here, day: 0 };
    case 'End':
      return { ...here, day: count - 1 };
    default:
      return null;
  }
}

/** When others change the board, what one looks at stays where it is. */
function useKeepsPlace(
  scroller: React.RefObject<HTMLDivElement | null>,
  rows: Row[],
  offsets: number[],
) {
  const before = useRef<{ rows: Row[]; offsets: number[] } | null>(null);
  useLayoutEffect(() => {
    const was = before.current;
    const box = scroller.current;
    if (was && box && was.rows !== rows && box.scrollTop > 0) {
      const index = was.offsets.findIndex((y) => y > box.scrollTop) - 1;
      const key = was.rows[index]?.key;
      const now = rows.findIndex((row) => row.key === key);
      if (now >= 0) {
        box.scrollTop += offsets[now]! - was.offsets[index]!;
      }
    }
    before.current = { rows, offsets };
  }, [scroller, rows, offsets]);
}

function Heads({ days, todayAt, corner }: { days: Days; todayAt: number; corner: string }) {
  const count = days.dates.length;
  return (
    <div className={styles.heads} aria-hidden="true">
      <span className={styles.corner}>{corner}</span>
      <div
        className={styles.headDays}
        style={{
          gridTemplateColumns: `repeat(${days.zoom === 'day' ? 12 : count}, minmax(0, 1fr))`,
        }}
      >
        {days.zoom === 'day'
          ? Array.from({ length: 12 }, (_, i) => (
              <span key={i} className={styles.hour}>
                {String(i * 2).padStart(2, '0')}
              </span>
            ))
          : days.dates.map((date, i) => (
              <span
                key={date}
                className={[
                  days.zoom === 'season' ? styles.seasonHead : '',
                  i === todayAt ? styles.todayHead : '',
                ].join(' ')}
                title={shortDayText(date)}
              >
                {headText(days, date, i)}
              </span>
            ))}
      </div>
    </div>
  );
}

function headText(days: Days, date: string, i: number) {
  if (days.zoom === 'season') {
    return i % 7 === 0 ? shortDayText(date).slice(4) : '';
  }
  return (
    <>
      <b>{days.zoom === 'weeks' ? weekdayText(date).slice(0, 2) : weekdayText(date)}</b>{' '}
      {dayNumber(date)}
    </>
  );
}
