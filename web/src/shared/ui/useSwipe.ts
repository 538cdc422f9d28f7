import { useRef, type TouchEvent } from 'react';

const FAR = 60;
const STEEP = 0.6;

/** A finger drawn across: to the left is onward. What it scrolls meanwhile goes on scrolling. */
export function useSwipe(turn: (by: 1 | -1) => void) {
  const from = useRef<{ x: number; y: number } | null>(null);
  return {
    onTouchStart: ({ touches }: TouchEvent) => {
      const first = touches[0];
      from.current = touches.length === 1 && first ? { x: first.clientX, y: first.clientY } : null;
    },
    onTouchEnd: ({ changedTouches }: TouchEvent) => {
      const last = changedTouches[0];
      if (from.current && last) {
        const x = last.clientX - from.current.x;
        const y = last.clientY - from.current.y;
        if (Math.abs(x) > FAR && Math.abs(y) < Math.abs(x) * STEEP) {
          turn(x < 0 ? 1 : -1);
        }
      }
      from.current = null;
    },
  };
}
