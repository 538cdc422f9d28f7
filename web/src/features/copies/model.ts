import type { Schemas } from '../../shared/api/client';
import { momentText } from '../../shared/time';
import { words } from './words';

export type Copy = Schemas['Copy'];
export type Change = Schemas['OutsideChange'];
export type Link = Schemas['Link'];

/** A copy's state with its age, as it stands under its calendar. */
export function copyText(copy: Copy): string {
  const state = words.state[copy.state] ?? copy.state;
  if (copy.faultWords) {
    return `${state}: ${copy.faultWords}`;
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

/** A change's value as people read it; times are two moments with a stroke between. */
export function valueText(part: string, value: string): string {
  if (part !== 'TIMES' || !value.includes('/')) {
    return value || '—';
  }
  const [from, to] = value.split('/').map((one) => one.replace(/\[.*\]/, ''));
  return value.includes('T')
    ? `${momentText(from ?? '')} – ${momentText(to ?? '')}`
    : `${from} – ${to}`;
}
