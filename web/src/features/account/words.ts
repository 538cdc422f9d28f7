import type { Schemas } from '../../shared/api/client';
import text from './words.json';

export type Level = Schemas['Share']['level'];

export const words = {
  ...text,
  ownTitleFixed: (why: string) => `Titles are set by the organisation: ${why}.`,
  over: (day: string) => `ends on ${day}`,
  shareOf: (calendar: string, who: string, mine: boolean) =>
    mine ? `${calendar}, from ${who}` : `${calendar}, with ${who}`,
  limited: (holds: string, chosen: string, why: string) =>
    `${holds}: the limit for external readers${why ? `, ${why}` : ''} (chosen: ${chosen.toLowerCase()})`,
  levels: [
    { value: 'ALL', label: 'everything external readers may see' },
    { value: 'TIMES_AND_PLACE', label: 'times and place' },
    { value: 'BUSY_ONLY', label: 'busy only' },
  ] as { value: Level; label: string }[],
  since: (moment: string) => `signed in ${moment}`,
  more: (n: number) => `and ${n} more`,
};
