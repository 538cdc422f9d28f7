import type { Schemas } from '../../shared/api/client';
import { momentText } from '../../shared/time';

export type Change = Schemas['OutsideChange'];
export type Link = Schemas['Link'];

/** A change's value as people read it; times are two moments with a stroke between. */
export function valueText(part: string, value: string): string {
  if (part !== 'TIMES' || !value.includes('/')) {
    return value || '—';
  }
  const [from, to] = value.replace(/\[[^\]]*\]/g, '').split('/');
  return value.includes('T')
    ? `${momentText(from ?? '')} – ${momentText(to ?? '')}`
    : `${from} – ${to}`;
}
