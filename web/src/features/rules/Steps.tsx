import { Button } from 'antd';
import type { KeyboardEvent } from 'react';
import { words } from './words';

type Move = (step: number) => void;

/** Moves a thing of a list by Alt and an arrow. */
export const stepKeys = (onMove: Move) => (event: KeyboardEvent) => {
  if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
    event.preventDefault();
    onMove(event.key === 'ArrowUp' ? -1 : 1);
  }
};

/** The same by hand. */
export function Steps({ onMove }: { onMove: Move }) {
  return (
    <>
      <Button size="small" type="text" onClick={() => onMove(-1)}>
        {words.earlier}
      </Button>
      <Button size="small" type="text" onClick={() => onMove(1)}>
        {words.later}
      </Button>
    </>
  );
}
