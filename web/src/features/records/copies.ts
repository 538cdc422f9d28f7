import { useRead } from '../../shared/api/ask';
import { api, type Schemas } from '../../shared/api/client';
import { keys } from '../../shared/api/keys';
import { momentText } from '../../shared/time';
import { words } from './words';

export type Copy = Schemas['Copy'];

const OFTEN = 3_000;

/** The copies of a record's entries; what is open changes by itself and is asked for again. */
export const useCopiesOf = (record: number) =>
  useRead(
    keys.copiesOf(record),
    () => api.GET('/api/v1/copies', { params: { query: { record } } }),
    {
      refetchInterval: (query) =>
        query.state.data?.some((copy) => copy.dueIn !== undefined) ? OFTEN : false,
    },
  );

/** A copy's state with its age, as it stands under its calendar. */
export function copyText(copy: Copy): string {
  const state = words.copyStates[copy.state];
  if (copy.faultWords) {
    const waits = copy.state === 'WAITS' || copy.state === 'SENDING';
    return `${waits ? words.waitsFor : state}: ${copy.faultWords}`;
  }
  if (copy.state === 'WAITS' && copy.dueIn !== undefined) {
    return `${state} ${words.inSeconds(copy.dueIn)}`;
  }
  return copy.state === 'SENT' && copy.sentAt ? `${state} ${momentText(copy.sentAt)}` : state;
}

/** Whether somebody should look at it. */
export function isTrouble(copy: Copy): boolean {
  return copy.state === 'REFUSED' || copy.faultWords !== undefined;
}
