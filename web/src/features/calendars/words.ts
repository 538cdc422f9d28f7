import type { Schemas } from '../../shared/api/client';
import text from './words.json';

/** What the list of calendars says. */
export const words = {
  ...text,
  count: (n: number) => `${n.toLocaleString('en-GB')} ${n === 1 ? 'calendar' : 'calendars'}`,
  entries: (n: number) => (n === 0 ? '' : n.toLocaleString('en-GB')),
  sorts: {
    MASTER: 'Everything',
    TEAM: 'Teams',
    PLACE: 'Places',
    NAMED: 'Named',
    DATE_LIST: 'Date lists',
    OWN: 'People',
  } satisfies Record<Schemas['Calendar']['sort'], string>,
  ways: {
    MEMBERS: '',
    SHARE: 'shared with',
    FEED: 'secret address:',
    COPY: 'copy elsewhere:',
  } satisfies Record<Schemas['CalendarReaders']['way'], string>,
  rulesText: (places: number[]) =>
    places.length === 0 ? '' : `${places.length === 1 ? 'Rule' : 'Rules'} ${places.join(', ')}`,
};
