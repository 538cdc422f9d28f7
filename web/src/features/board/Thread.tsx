import type { CSSProperties } from 'react';
import { placeOf, type Days } from './days';
import { packRails, type Piece } from './lanes';
import { describe, type LaneProps } from './lane';
import styles from './board.module.css';

const per = (share: number) => `${(share * 100).toFixed(3)}%`;

/** The day's thread with the pieces on it, the rails of tickets under the text, and clashes. */
export function Thread({ lane, days, height, open, chosen }: LaneProps) {
  if (days.zoom === 'season') {
    return <Load lane={lane} days={days} />;
  }
  const compact = days.zoom === 'weeks';
  const middle = compact ? 13 : 8;
  const rails = packRails(lane.pieces, days);
  return (
    <svg className={styles.thread} width="100%" height={height} aria-hidden="true">
      {lane.pieces.map((p) => {
        const x = placeOf(days, p.start);
        const width = placeOf(days, p.end) - x;
        if (p.shape === 'deadline' && compact) {
          return <Pennant key={p.key} piece={p} lane={lane.key} x={x} />;
        }
        if (p.shape === 'ticket' || p.shape === 'deadline' || width <= 0) {
          return null;
        }
        const outer = placeOf(days, p.outerStart);
        const outerWidth = placeOf(days, p.outerEnd) - outer;
        const look = [
          styles.piece,
          styles[p.shape],
          p.tentative ? styles.tentative : '',
          p.done ? styles.done : '',
          p.item.record === open ? styles.open : '',
          chosen.has(p.key) ? styles.chosen : '',
        ].join(' ');
        const tall = p.shape === 'shift' ? 7 : 5;
        return (
          <g
            key={p.key}
            className={look}
            data-piece={p.key}
            data-lane={lane.key}
            style={{ '--hue': `var(--${p.hue})` } as CSSProperties}
          >
            <title>{describe(p)}</title>
            {outerWidth > width && (
              <rect
                className={styles.margin}
                x={per(outer)}
                width={per(outerWidth)}
                y={middle - 3}
                height={6}
                rx={3}
              />
            )}
            <rect
              className={styles.body}
              x={per(x)}
              width={per(width)}
              y={middle - tall / 2}
              height={tall}
              rx={p.shape === 'shift' ? 1 : 2.5}
            />
            {p.item.moves && (
              <rect
                className={styles.handle}
                data-piece={p.key}
                data-lane={lane.key}
                data-edge="end"
                x={`calc(${per(x + width)} - 4px)`}
                width={7}
                y={middle - 7}
                height={14}
              />
            )}
          </g>
        );
      })}
      {lane.twice.map((c) => (
        <rect
          key={c.from}
          className={styles.clashRule}
          x={per(placeOf(days, c.from))}
          width={per(placeOf(days, c.to) - placeOf(days, c.from))}
          y={middle + 5}
          height={2}
        />
      ))}
      {rails.map((row, r) =>
        row.map((p) => (
          <Rail key={p.key} piece={p} lane={lane.key} days={days} y={height - 5 - r * 7} />
        )),
      )}
    </svg>
  );
}

/** A deadline at the head of its day, where there is no room for its words. */
function Pennant({ piece, lane, x }: { piece: Piece; lane: string; x: number }) {
  return (
    <svg x={per(x)} y={2} width={14} height={10} overflow="visible">
      <g
        className={`${styles.pennant} ${piece.done ? styles.done : ''}`}
        data-piece={piece.key}
        data-lane={lane}
        style={{ '--hue': `var(--${piece.hue})` } as CSSProperties}
      >
        <title>{describe(piece)}</title>
        <path d="M0 0h14l-4 4.5 4 4.5h-14z" />
      </g>
    </svg>
  );
}

function Rail({ piece, lane, days, y }: { piece: Piece; lane: string; days: Days; y: number }) {
  const x = placeOf(days, piece.start);
  const end = placeOf(days, piece.end);
  const ends = piece.end <= days.edges[days.dates.length]!;
  return (
    <g
      className={`${styles.rail} ${piece.done ? styles.done : ''}`}
      data-piece={piece.key}
      data-lane={lane}
      style={{ '--hue': `var(--${piece.hue})` } as CSSProperties}
    >
      <title>{describe(piece)}</title>
      <rect x={per(x)} width={per(end - x)} y={y - 0.75} height={1.5} />
      {ends && <rect x={`calc(${per(end)} - 2.5px)`} width={2.5} y={y - 3.5} height={7} />}
    </g>
  );
}

/** One season at a glance: how much of each day is planned. */
function Load({ lane, days }: Pick<LaneProps, 'lane' | 'days'>) {
  const count = days.dates.length;
  const planned = days.dates.map((_, day) => {
    const from = days.edges[day]!;
    const until = days.edges[day + 1]!;
    return lane.pieces
      .filter((p) => (p.shape === 'job' || p.shape === 'shift') && p.start < until && p.end > from)
      .reduce((sum, p) => sum + Math.min(p.end, until) - Math.max(p.start, from), 0);
  });
  return (
    <svg className={styles.thread} width="100%" height={26} aria-hidden="true">
      {planned.map((ms, day) => {
        const hours = Math.min(12, ms / 3_600_000);
        return hours > 0 ? (
          <rect
            key={day}
            className={styles.load}
            x={per((day + 0.08) / count)}
            width={per(0.84 / count)}
            y={22 - hours * 1.5}
            height={hours * 1.5}
          />
        ) : null;
      })}
      {lane.pieces
        .filter((p) => p.shape === 'ticket' || p.shape === 'deadline')
        .filter((p) => p.day >= 0 && p.day < count)
        .map((p) => (
          <rect
            key={p.key}
            className={styles.dueDot}
            x={per((p.day + 0.3) / count)}
            width={per(0.4 / count)}
            y={22.5}
            height={2.5}
          />
        ))}
    </svg>
  );
}
