import { memo, type CSSProperties } from 'react';
import { clockOf, localAt, shortDayText } from '../../shared/time';
import { placeOf, type Days } from './days';
import type { Lane, Piece } from './lanes';
import { clock, describe, hours, type LaneProps } from './lane';
import { clashesOn, linesOf, shownIn } from './rows';
import styles from './board.module.css';
import { DayTracks } from './DayTracks';
import { Thread } from './Thread';
import { words } from './words';

/** One lane: who, then its days. */
export const LaneRow = memo(function LaneRow(props: LaneProps) {
  const { lane, days, top, height, index, taker } = props;
  const style = {
    transform: `translateY(${top}px)`,
    height,
    '--lane-hue': `var(--${lane.hue})`,
  } as CSSProperties;
  return (
    <div
      className={styles.lane}
      role="row"
      aria-rowindex={index + 1}
      data-zoom={days.zoom}
      data-could={taker?.verdict}
      style={style}
    >
      <div className={styles.who} role="rowheader">
        <span className={styles.name} title={lane.name}>
          {lane.name}
        </span>
        {taker ? (
          <span className={styles.could} title={taker.text}>
            {taker.text}
          </span>
        ) : (
          <span className={styles.note}>
            <span>{lane.note}</span>
            <Sum lane={lane} />
          </span>
        )}
      </div>
      <div
        className={styles.days}
        role="presentation"
        style={{ gridTemplateColumns: `repeat(${days.dates.length}, minmax(0, 1fr))` }}
      >
        {days.dates.map((date, day) => (
          <Cell key={date} {...props} day={day} />
        ))}
        {days.zoom !== 'season' && <Busy lane={lane} days={days} />}
        {days.zoom !== 'day' && <Thread {...props} />}
      </div>
    </div>
  );
});

/** Hatching where somebody is busy outside; never a title. */
function Busy({ lane, days }: Pick<LaneProps, 'lane' | 'days'>) {
  return lane.busy.map((one) => {
    const x = placeOf(days, one.start);
    const width = placeOf(days, one.end) - x;
    const clockAt = (moment: number) => clockOf(localAt(moment, days.zone));
    return width <= 0 ? null : (
      <div
        key={`${one.start}:${one.end}`}
        className={`${styles.busy} ${one.tentative ? styles.busyPerhaps : ''}`}
        title={words.busyOutside(clockAt(one.start), clockAt(one.end))}
        style={{ left: `${x * 100}%`, width: `${width * 100}%` }}
      />
    );
  });
}

function Sum({ lane }: { lane: Lane }) {
  if (lane.key === 'nobody') {
    return <span className="number">{words.open(lane.pieces.length)}</span>;
  }
  return lane.person === null && lane.place === null ? null : (
    <span className="number" title={words.hoursWhy}>
      {words.hours(lane.hours)}
    </span>
  );
}

function Cell(props: LaneProps & { day: number }) {
  const { lane, days, day, focus, today } = props;
  const pieces = lane.cells[day] ?? [];
  const here = focus?.day === day;
  const empty = lane.empty[day] ?? '';
  const off = empty === 'off' || empty === 'leave' || empty === 'away';
  const textual = days.zoom === 'week';
  return (
    <div
      role="gridcell"
      className={[styles.cell, off ? styles.off : '', day === today ? styles.today : ''].join(' ')}
      data-cell={day}
      data-lane={lane.key}
      tabIndex={here && focus.piece < 0 ? 0 : -1}
      aria-label={cellLabel(lane, days, day)}
    >
      {days.zoom === 'day' && <DayTracks {...props} />}
      {textual &&
        pieces
          .slice(0, shownIn(pieces.length))
          .map((p, i) => (
            <Line key={p.key} {...props} piece={p} tabbable={here && focus.piece === i} />
          ))}
      {textual && pieces.length > shownIn(pieces.length) && (
        <span className={styles.more}>{words.more(pieces.length - shownIn(pieces.length))}</span>
      )}
      {textual &&
        clashesOn(lane, day).map((c) => (
          <span key={c.from} className={styles.clash}>
            {words.twice(clockOf(localAt(c.from, days.zone)), clockOf(localAt(c.to, days.zone)))}
          </span>
        ))}
      {(textual || days.zoom === 'day') && linesOf(lane, day) === 0 && empty !== 'free' && (
        <span className={styles.empty}>{words.empty[empty]}</span>
      )}
    </div>
  );
}

function cellLabel(lane: Lane, days: Days, day: number): string {
  const count = lane.cells[day]?.length ?? 0;
  const what = count > 0 ? `${count} here` : words.empty[lane.empty[day] ?? ''] || 'nothing here';
  return `${lane.name}, ${shortDayText(days.dates[day]!)}: ${what}`;
}

interface LineProps extends LaneProps {
  piece: Piece;
  tabbable: boolean;
}

function Line({ piece, lane, codes, open, chosen, tabbable }: LineProps) {
  const { item } = piece;
  const code = item.place != null && lane.place === null ? codes.get(item.place) : undefined;
  return (
    <button
      type="button"
      tabIndex={tabbable ? 0 : -1}
      className={[
        styles.line,
        styles[piece.shape],
        piece.done ? styles.done : '',
        piece.tentative ? styles.tentative : '',
        item.record === open ? styles.open : '',
        chosen.has(piece.key) ? styles.chosen : '',
      ].join(' ')}
      style={{ '--hue': `var(--${piece.hue})` } as CSSProperties}
      data-piece={piece.key}
      data-lane={lane.key}
      title={describe(piece, code)}
    >
      {piece.shape === 'shift' ? (
        <>
          <span className="number">{hours(piece)}</span> {item.title ?? words.work}
        </>
      ) : (
        <>
          {piece.shape !== 'deadline' && <span className="number">{clock(piece)} </span>}
          {code && piece.shape !== 'deadline' && <b>{code} </b>}
          {piece.done ? '✓ ' : ''}
          {item.title ?? words.work}
        </>
      )}
    </button>
  );
}
