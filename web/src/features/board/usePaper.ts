import { useSearchParams } from 'react-router';
import { addDays, mondayOf, today } from '../../shared/time';
import { ofText } from './part';

const MOST_DAYS = 42;
const WEEK = 7;

/** What is to be printed, all of it in the address: of whom or what, from which day, how many days. */
export function usePaper() {
  const [search, setSearch] = useSearchParams();
  const asked = search.get('from') ?? '';
  const from = /^\d{4}-\d{2}-\d{2}$/.test(asked) ? asked : addDays(today(), 1);
  const days = Math.min(MOST_DAYS, Math.max(1, Math.trunc(Number(search.get('days'))) || 1));
  const set = (some: Record<string, string>) =>
    setSearch((now) => ({ ...Object.fromEntries(now), ...some }), { replace: true });
  return {
    from,
    days,
    until: addDays(from, days),
    of: ofText(search.get('of')),
    setOf: (to: string) => set({ of: to }),
    /** Weeks begin on Monday. */
    setDays: (to: number) =>
      set({ days: String(to), ...(to === WEEK && days < WEEK && { from: mondayOf(from) }) }),
    turn: (by: 1 | -1) => set({ from: addDays(from, by * days) }),
    goTo: (day: string) => set({ from: day }),
  };
}
