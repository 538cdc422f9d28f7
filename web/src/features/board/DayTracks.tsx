import type { CSSProperties } from 'react';
import { placeOf } from './days';
import { clock, describe, hours, type LaneProps } from './lane';
import { dayTracks } from './rows';
import styles from './board.module.css';
import { words } from './words';

const per = (share: number) => `${(share * 100).toFixed(3)}%`;

/** One day in true time: each piece as long as it lasts, with its words on it. */
export function DayTracks({ lane, days, codes, open, chosen, focus }: LaneProps) {
  const order = lane.cells[0] ?? [];
  return (
    <div className={styles.tracks}>
      {dayTracks(lane, days).map((track, t) =>
        track.map((p) => {
          const ticket = p.shape === 'ticket';
          const x = placeOf(days, ticket ? p.end : p.start);
          const width = placeOf(days, p.end) - x;
          const outer = placeOf(days, p.outerStart);
          const outerWidth = placeOf(days, p.outerEnd) - outer;
          const code = p.item.place != null ? codes.get(p.item.place) : undefined;
          // What begins late in the day has its words to the left of it.
          const left = ticket && x > 0.8;
          return (
            <div
              key={p.key}
              className={styles.block}
              style={
                {
                  top: 6 + t * 24,
                  left: per(x),
                  ...(ticket ? {} : { width: per(Math.max(width, 0.004)) }),
                  '--hue': `var(--${p.hue})`,
                  ...(left && { transform: 'translateX(-100%)' }),
                } as CSSProperties
              }
            >
              {outerWidth > width && !ticket && (
                <span
                  className={styles.blockMargin}
                  style={{
                    left: `${((outer - x) / width) * 100}%`,
                    width: `${(outerWidth / width) * 100}%`,
                  }}
                />
              )}
              <button
                type="button"
                tabIndex={focus && focus.piece >= 0 && order[focus.piece]?.key === p.key ? 0 : -1}
                className={[
                  styles.blockText,
                  styles[p.shape],
                  p.tentative ? styles.tentative : '',
                  p.done ? styles.done : '',
                  p.item.record === open ? styles.open : '',
                  chosen.has(p.key) ? styles.chosen : '',
                ].join(' ')}
                data-piece={p.key}
                data-lane={lane.key}
                title={describe(p, code)}
              >
                <span className="number">{p.shape === 'shift' ? hours(p) : clock(p)} </span>
                {code && <b>{code} </b>}
                {p.done ? '✓ ' : ''}
                {p.item.title ?? words.work}
              </button>
              {p.item.moves && !ticket && (
                <span
                  className={styles.blockHandle}
                  data-piece={p.key}
                  data-lane={lane.key}
                  data-edge="end"
                />
              )}
            </div>
          );
        }),
      )}
    </div>
  );
}
