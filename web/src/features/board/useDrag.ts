import { useEffect, useRef, type PointerEvent, type RefObject } from 'react';
import { momentAt, type Days } from './days';
import type { Lane, Piece } from './lanes';
import { rowAt, type Row } from './rows';

/** Where the pointer is on the board. */
export interface Spot {
  lane: Lane;
  day: number;
  moment: number;
}

interface Options {
  rows: Row[];
  offsets: number[];
  days: Days;
  head: number;
  scroller: RefObject<HTMLDivElement | null>;
  ghost: RefObject<HTMLDivElement | null>;
  find: (laneKey: string, pieceKey: string) => Piece | undefined;
  mayMove: (piece: Piece) => boolean;
  /** Says what letting go here would do. */
  tell: (piece: Piece | null, from: Spot, to: Spot, edge: boolean) => string;
  /** What is held over which day, or nothing any more. */
  onHold: (held: { piece: Piece; from: Spot; to: Spot } | null) => void;
  onDrop: (piece: Piece, from: Spot, to: Spot, edge: boolean) => void;
  onDraw: (from: Spot, to: Spot) => void;
}

interface Held {
  piece: Piece | null;
  edge: boolean;
  from: Spot;
  x: number;
  y: number;
  moved: boolean;
}

const THRESHOLD = 4;
const EDGE = 36;

function spotOf(
  { scroller, rows, offsets, days, head }: Options,
  clientX: number,
  clientY: number,
): Spot | null {
  const box = scroller.current?.getBoundingClientRect();
  if (!box || rows.length === 0) {
    return null;
  }
  const y = clientY - box.top + (scroller.current?.scrollTop ?? 0);
  let index = rowAt(offsets, y);
  // A heading stands for the lane under it.
  if (rows[index]?.type === 'group') {
    index = Math.min(index + 1, rows.length - 1);
  }
  const row = rows[index];
  if (row?.type !== 'lane') {
    return null;
  }
  const width = (scroller.current?.clientWidth ?? 0) - head;
  const place = Math.max(0, Math.min(0.99999, (clientX - box.left - head) / width));
  return {
    lane: row.lane,
    day: Math.floor(place * days.dates.length),
    moment: momentAt(days, place),
  };
}

/** Says at the pointer what letting go here would do. */
function show(options: Options, h: Held, event: globalThis.PointerEvent) {
  const { ghost, tell, scroller, onHold } = options;
  const to = spotOf(options, event.clientX, event.clientY);
  const box = scroller.current?.getBoundingClientRect();
  const base = ghost.current?.parentElement?.getBoundingClientRect();
  if (!to || !ghost.current || !box || !base) {
    return;
  }
  ghost.current.textContent = tell(h.piece, h.from, to, h.edge);
  const most = base.width - ghost.current.offsetWidth - 8;
  const left = Math.max(0, Math.min(event.clientX - base.left + 12, most));
  ghost.current.style.transform = `translate(${left}px, ${event.clientY - base.top + 14}px)`;
  if (h.piece && !h.edge) {
    onHold({ piece: h.piece, from: h.from, to });
  }
  // Near an edge the board goes on by itself.
  if (event.clientY > box.bottom - EDGE) {
    scroller.current?.scrollBy(0, 12);
  } else if (event.clientY < box.top + EDGE) {
    scroller.current?.scrollBy(0, -12);
  }
}

/**
 * Takes hold of pieces and of empty cells. While something is dragged only the ghost is touched,
 * never the lanes, so that it follows the pointer however much lies on the board.
 */
export function useDrag(options: Options) {
  const latest = useRef(options);
  useEffect(() => {
    latest.current = options;
  });
  const held = useRef<Held | null>(null);
  const wasDragged = useRef(false);

  const spotAt = (event: { clientX: number; clientY: number }) =>
    spotOf(latest.current, event.clientX, event.clientY);

  useEffect(() => {
    let frame = 0;
    const move = (event: globalThis.PointerEvent) => {
      const h = held.current;
      if (!h) {
        return;
      }
      const far = Math.hypot(event.clientX - h.x, event.clientY - h.y) > THRESHOLD;
      if (!h.moved && far) {
        h.moved = true;
        latest.current.ghost.current?.setAttribute('data-on', '');
        document.body.style.cursor = h.edge ? 'ew-resize' : 'grabbing';
      }
      if (h.moved) {
        window.cancelAnimationFrame(frame);
        frame = window.requestAnimationFrame(() => show(latest.current, h, event));
      }
    };
    const end = () => {
      if (held.current?.moved) {
        latest.current.onHold(null);
      }
      held.current = null;
      window.cancelAnimationFrame(frame);
      latest.current.ghost.current?.removeAttribute('data-on');
      document.body.style.cursor = '';
    };
    const up = (event: globalThis.PointerEvent) => {
      const h = held.current;
      const to = h ? spotAt(event) : null;
      end();
      if (!h?.moved || !to) {
        return;
      }
      wasDragged.current = true;
      window.setTimeout(() => {
        wasDragged.current = false;
      });
      if (h.piece) {
        latest.current.onDrop(h.piece, h.from, to, h.edge);
      } else {
        latest.current.onDraw(h.from, to);
      }
    };
    const escape = (event: KeyboardEvent) => {
      if (event.key === 'Escape' && held.current?.moved) {
        event.stopPropagation();
        end();
      }
    };
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', up);
    window.addEventListener('pointercancel', end);
    window.addEventListener('keydown', escape, true);
    return () => {
      end();
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', up);
      window.removeEventListener('pointercancel', end);
      window.removeEventListener('keydown', escape, true);
    };
  }, []);

  const onPointerDown = (event: PointerEvent) => {
    if (event.button !== 0 || event.ctrlKey || event.metaKey || event.shiftKey) {
      return;
    }
    const target = (event.target as Element).closest<HTMLElement | SVGElement>('[data-piece]');
    const cell = (event.target as Element).closest('[data-cell]');
    const from = spotAt(event);
    if (!from || !(target ?? cell)) {
      return;
    }
    const piece = target
      ? latest.current.find(target.dataset.lane ?? '', target.dataset.piece ?? '')
      : undefined;
    if (target && (!piece || !latest.current.mayMove(piece))) {
      return;
    }
    held.current = {
      piece: piece ?? null,
      edge: target?.dataset.edge !== undefined,
      from,
      x: event.clientX,
      y: event.clientY,
      moved: false,
    };
  };

  return { onPointerDown, wasDragged };
}
