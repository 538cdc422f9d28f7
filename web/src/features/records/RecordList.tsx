import { Button, Checkbox } from 'antd';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, useState, type CSSProperties, type KeyboardEvent } from 'react';
import { dueText, isOverdue, spanText } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { ordersOf, type Column } from './columns';
import type { RecordView } from './model';
import type { Order, useRecords } from './queries';
import styles from './records.module.css';
import { words } from './words';

const ROW = 38;
const NONE: Column[] = [];

interface Props {
  list: ReturnType<typeof useRecords>;
  chosen: number | null;
  narrow: boolean;
  sort: Order;
  onSort: (sort: Order) => void;
  filtered: boolean;
  /** Columns beside those that every list has. */
  extra?: Column[];
  onOpen: (id: number) => void;
  onMake?: () => void;
  /** Which are chosen for what is done to many at once; absent where nothing may be. */
  many?: { ids: number[]; turn: (id: number) => void };
}

/** A fast list: only the rows in sight are on the page, arrows move, Enter opens. */
export function RecordList({
  list,
  chosen,
  narrow,
  sort,
  onSort,
  filtered,
  extra = NONE,
  onOpen,
  onMake,
  many,
}: Props) {
  const rows = list.data?.pages.flatMap((page) => page.items) ?? [];
  const scroller = useRef<HTMLDivElement>(null);
  const [at, setAt] = useState(0);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 12,
  });
  const items = virtual.getVirtualItems();
  const last = items[items.length - 1]?.index ?? 0;
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = list;
  useEffect(() => {
    if (last >= rows.length - 20 && hasNextPage && !isFetchingNextPage) {
      void fetchNextPage();
    }
  }, [last, rows.length, hasNextPage, isFetchingNextPage, fetchNextPage]);

  const move = (event: KeyboardEvent) => {
    const step = { ArrowDown: 1, ArrowUp: -1, PageDown: 15, PageUp: -15 }[event.key];
    if (step) {
      event.preventDefault();
      const next = Math.max(0, Math.min(rows.length - 1, at + step));
      setAt(next);
      virtual.scrollToIndex(next);
      window.requestAnimationFrame(() =>
        scroller.current?.querySelector<HTMLElement>(`[data-index="${next}"]`)?.focus(),
      );
    }
  };

  if (list.isPending) {
    return <Loading what={words.loading} />;
  }
  if (list.error) {
    return <Fault error={list.error} reads />;
  }
  if (rows.length === 0) {
    return (
      <div className={styles.empty}>
        <strong>{words.none}</strong>
        <span>{filtered ? words.noneFound : words.noneYet}</span>
        {onMake && !filtered && (
          <Button type="primary" onClick={onMake}>
            {words.make}
          </Button>
        )}
      </div>
    );
  }
  const shape = narrow ? styles.narrow : styles.wide;
  const more = narrow ? NONE : extra;
  const columns = { '--more': more.length } as CSSProperties;
  return (
    <div
      className={`${styles.table} ${more.length > 0 ? styles.wider : ''}`}
      style={columns}
      role="table"
      aria-label="Records"
      aria-rowcount={rows.length}
    >
      <Heads shape={shape ?? ''} extra={more} sort={sort} onSort={onSort} />
      <div className={styles.scroll} ref={scroller} onKeyDown={move} role="rowgroup">
        <div style={{ height: virtual.getTotalSize(), position: 'relative' }} role="presentation">
          {items.map((item) => {
            const row = rows[item.index];
            return row ? (
              <Row
                key={row.id}
                row={row}
                index={item.index}
                top={item.start}
                shape={shape ?? ''}
                extra={more}
                chosen={row.id === chosen}
                tabbable={item.index === at || (at >= rows.length && item.index === 0)}
                onFocus={() => setAt(item.index)}
                onOpen={() => onOpen(row.id)}
                many={many}
              />
            ) : null;
          })}
        </div>
      </div>
    </div>
  );
}

/** The extra ones stand before the state. */
function Heads({
  shape,
  extra,
  ...sorting
}: { shape: string; extra: Column[] } & Pick<Props, 'sort' | 'onSort'>) {
  const own = words.columns.slice(0, -1);
  const named = (names: string[]) => names.map((label) => ({ label, orders: ORDERS[label] }));
  const all = [...named(own), ...extra, ...named(words.columns.slice(-1))];
  return (
    <div className={`${styles.row} ${styles.head} ${shape}`} role="row">
      {all.map((one) => (
        <Head key={one.label} name={one.label} orders={one.orders} {...sorting} />
      ))}
    </div>
  );
}

/** What a column sorts by, and by what when it is pressed again. */
const ORDERS: Partial<Record<string, [Order, Order]>> = {
  Ref: ['NEWEST', 'OLDEST'],
  Title: ordersOf('title'),
  Place: ['PLACE', 'PLACE_LAST'],
  When: ['SOONEST', 'LATEST'],
};

/** Those that rise. */
const UP: Order[] = ['SOONEST', 'OLDEST', 'PLACE'];

function Head({
  name,
  orders,
  sort,
  onSort,
}: { name: string; orders?: [Order, Order] } & Pick<Props, 'sort' | 'onSort'>) {
  if (!orders) {
    return <span role="columnheader">{name}</span>;
  }
  const up = UP.includes(sort) || sort.startsWith('DETAIL:');
  return (
    <span
      role="columnheader"
      aria-sort={orders.includes(sort) ? (up ? 'ascending' : 'descending') : 'none'}
    >
      <button
        type="button"
        className={styles.sorts}
        onClick={() => onSort(sort === orders[0] ? orders[1] : orders[0])}
      >
        {name}
        {orders.includes(sort) && <span aria-hidden>{up ? ' ↑' : ' ↓'}</span>}
      </button>
    </span>
  );
}

/** By when a ticket or deadline is due; when else the first visit is, and how many follow. */
export function whenText(row: RecordView): string {
  const visits = (row.visits ?? []).filter((v) => v.start ?? v.first);
  if (visits.length === 0 || row.kind === 'TICKET' || row.kind === 'DEADLINE') {
    return dueText(row.due);
  }
  return spanText(visits[0]!) + (visits.length > 1 ? ` +${visits.length - 1}` : '');
}

export const namesOf = (row: RecordView) => [...new Set((row.people ?? []).map((p) => p.name))];

interface RowProps {
  row: RecordView;
  index: number;
  top: number;
  shape: string;
  extra: Column[];
  chosen: boolean;
  tabbable: boolean;
  onFocus: () => void;
  onOpen: () => void;
  many?: { ids: number[]; turn: (id: number) => void };
}

function Row({ row, index, top, shape, extra, chosen, tabbable, onFocus, onOpen, many }: RowProps) {
  const names = namesOf(row);
  const open = row.state !== 'DONE' && row.state !== 'CANCELLED';
  const late = open && isOverdue(row.due);
  return (
    <div
      role="row"
      tabIndex={tabbable ? 0 : -1}
      data-index={index}
      aria-selected={chosen}
      className={[
        styles.row,
        styles.line,
        shape,
        chosen ? styles.chosen : '',
        open ? '' : styles.faded,
      ].join(' ')}
      style={{ transform: `translateY(${top}px)` }}
      onFocus={onFocus}
      onClick={onOpen}
      onKeyDown={(event) => {
        if (event.key === 'Enter') {
          onOpen();
        } else if (event.key === 'x' && many) {
          many.turn(row.id);
        }
      }}
    >
      <span role="cell" className={styles.ref}>
        {many && (
          <Checkbox
            className={styles.pick}
            tabIndex={-1}
            aria-label={words.choose(row.ref ?? '')}
            checked={many.ids.includes(row.id)}
            onClick={(event) => event.stopPropagation()}
            onChange={() => many.turn(row.id)}
          />
        )}
        {row.ref}
      </span>
      <span role="cell" className={styles.what} title={row.title}>
        {row.state === 'DONE' ? '✓ ' : ''}
        {row.title ?? 'Work'}
      </span>
      <span role="cell" title={row.place?.name}>
        {row.place?.name}
      </span>
      <span role="cell" title={names.join(', ')}>
        {names.length > 0 ? names.join(', ') : <em className={styles.quiet}>{words.nobody}</em>}
      </span>
      <span role="cell" className={`number ${late ? styles.late : ''}`}>
        {whenText(row)}
      </span>
      {extra.map((one) => (
        <span key={one.key} role="cell" title={one.text(row)}>
          {one.text(row)}
        </span>
      ))}
      <span role="cell" className={late ? styles.late : styles.quiet}>
        {late
          ? words.overdue
          : row.started && open
            ? 'started'
            : row.state && words.states[row.state]}
      </span>
    </div>
  );
}
