import { useState } from 'react';
import { dueInput, readDue, type Due } from '../../shared/time';
import type { Schemas } from '../../shared/api/client';

/** A key date as it is typed: nothing, a day, or a day and a time; what is sent of it. */
export function useKeyDate(before: Due | undefined) {
  const [text, setText] = useState(() => dueInput(before));
  const read = text.trim() === '' ? null : readDue(text);
  const isWrong = text.trim() !== '' && read === null;
  const sent: Schemas['DueChange'] | null = read && {
    ...(read.date ? { date: read.date } : { at: read.at }),
  };
  return { text, setText, isWrong, sent, isTouched: text !== dueInput(before) };
}
