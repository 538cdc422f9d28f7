import { useCallback, useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { addDays, daysText, today } from '../../shared/time';
import { beginning, lengthOf, startsToday, turned, type Zoom } from './days';
import type { Grouping } from './lanes';
import { ofText } from './part';

const ZOOMS: Zoom[] = ['day', 'week', 'weeks', 'season'];
const GROUPINGS: Grouping[] = ['team', 'place', 'one'];

/**
 * The page's state, all of it in the address: from when, how much, by what, the chosen record.
 *
 * @param only where it shows nothing else
 */
export function useBoardPage(only?: Zoom) {
  const [search, setSearch] = useSearchParams();
  const asked = search.get('zoom') as Zoom;
  const zoom: Zoom = only ?? (ZOOMS.includes(asked) ? asked : 'week');
  const by = search.get('by') as Grouping;
  const grouping: Grouping = GROUPINGS.includes(by) ? by : 'team';
  const start = /^\d{4}-\d{2}-\d{2}$/.test(search.get('from') ?? '')
    ? beginning(zoom, search.get('from')!)
    : startsToday(zoom);
  const record = search.get('record');
  const chosen = search.get('calendars') ?? '';
  const calendars = useMemo(
    () => chosen.split(',').filter(Boolean).map(Number).filter(Number.isFinite),
    [chosen],
  );

  const set = useCallback(
    (some: Record<string, string | null>, replace = false) => {
      setSearch(
        (now) => {
          const next = new URLSearchParams(now);
          for (const [name, value] of Object.entries(some)) {
            if (value === null) {
              next.delete(name);
            } else {
              next.set(name, value);
            }
          }
          return next;
        },
        { replace },
      );
    },
    [setSearch],
  );

  const last = addDays(start, lengthOf(zoom) - 1);
  return {
    zoom,
    grouping,
    calendars,
    overlaid: search.get('overlaid') === '1',
    of: ofText(search.get('of')),
    setOf: (to: string) => set({ of: to === 'crew-0' ? null : to }),
    from: start,
    until: addDays(last, 1),
    title: daysText(start, last),
    chosen: record && record !== 'new' ? Number(record) : null,
    making: record === 'new',
    editing: search.get('edit') === '1',
    draft: search.get('draft'),
    turn: (by: 1 | -1) => set({ from: turned(zoom, start, by) }),
    goTo: (date: string) => set({ from: beginning(zoom, date) }),
    toToday: () => set({ from: null }),
    setZoom: (to: Zoom, on?: string) =>
      set({ zoom: to, from: beginning(to, on ?? pick(start, to)) }),
    setGrouping: (to: Grouping) => set({ by: to === 'team' ? null : to }),
    setCalendars: (ids: number[]) => set({ calendars: ids.length > 0 ? ids.join(',') : null }),
    setOverlaid: (on: boolean) => set({ overlaid: on ? '1' : null }),
    open: (id: number) => set({ record: String(id), edit: null, draft: null }),
    edit: (id: number) => set({ record: String(id), edit: '1' }),
    make: (draft: string | null = null) => set({ record: 'new', edit: null, draft }),
    /** Leads to who is reported sick, which any page does. */
    reportSick: (person: number) => set({ sick: String(person) }),
    close: () => set({ record: null, edit: null, draft: null }),
  };
}

/** Where another zoom begins: today, if it is in sight, else where one was. */
function pick(start: string, to: Zoom): string {
  const now = today();
  return to === 'day' && beginning('week', now) === beginning('week', start) ? now : start;
}
