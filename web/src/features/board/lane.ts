import { clockOf, zoneMark } from '../../shared/time';
import type { Taker } from '../cover';
import type { Days } from './days';
import type { Lane, Piece } from './lanes';
import { words } from './words';

/** What one lane is drawn from. */
export interface LaneProps {
  lane: Lane;
  days: Days;
  top: number;
  height: number;
  index: number;
  codes: Map<number, string>;
  today: number;
  /** The record open beside the board. */
  open: number | null;
  chosen: ReadonlySet<string>;
  /** While something is held: whether they could take it. */
  taker?: Taker;
  /** Which cell or piece of this lane has the keyboard; -1 as piece is the cell itself. */
  focus: { day: number; piece: number } | null;
}

/** The clock by which a piece stands: its start, a ticket's due time. */
export function clock(piece: Piece): string {
  const { item } = piece;
  const local = piece.shape === 'job' ? item.when?.start : item.due?.at;
  const zone = piece.shape === 'job' ? item.when?.zone : item.due?.zone;
  const instant = piece.shape === 'job' ? item.when?.starts : item.due?.instant;
  return local ? clockOf(local) + zoneMark(zone, instant) : words.allDay;
}

/** A shift's hours, whole hours without minutes: 07–19. */
export function hours(piece: Piece): string {
  const short = (local: string | undefined) =>
    local ? clockOf(local).replace(/:00$/, '') : words.allDay;
  return piece.allDay ? '' : `${short(piece.item.when?.start)}–${short(piece.item.when?.end)}`;
}

/** When, in a line of its own: a shift's hours, a due time named as such. */
export function whenOf(piece: Piece): string {
  switch (piece.shape) {
    case 'shift':
      return piece.allDay ? words.allDay : hours(piece);
    case 'job':
      return piece.allDay ? words.allDay : clock(piece);
    default:
      return `${words.due} ${piece.allDay ? '' : clock(piece)}`.trim();
  }
}

/** All that is known of a piece, for hover and for readers of screens. */
export function describe(piece: Piece, code?: string): string {
  const { item } = piece;
  const state = piece.done ? words.done : piece.tentative ? words.tentative : '';
  const when =
    piece.shape === 'ticket' || piece.shape === 'deadline'
      ? `${words.due} ${clock(piece)}`
      : piece.allDay
        ? words.allDay
        : `${clock(piece)} – ${clockOf(item.when?.end ?? '')}`;
  return [words.kinds[item.kind] + (item.ref ? ' ' + item.ref : ''), item.title, code, when, state]
    .filter(Boolean)
    .join(' · ');
}
