import { useMemo } from 'react';
import { draftFrom, newRecord, type Change } from './model';
import { useDetails, usePeople, usePlaces } from './queries';
import { keepsCallers, readShortLine } from './shortLine';

/** A record in one line, as it would be made, and what of the line was not understood. */
export function useShortLine(line: string): { wish: Change | null; faults: string[] } {
  const people = usePeople();
  const places = usePlaces();
  const details = useDetails();
  return useMemo(() => {
    if (!line.trim() || !people.data || !places.data) {
      return { wish: null, faults: [] };
    }
    const heard = readShortLine(line, {
      people: people.data.map((p) => ({ value: p.id, label: p.name })),
      places: places.data.map((p) => ({ value: p.id, label: p.name, code: p.code })),
      callers: keepsCallers(details.data),
    });
    if (!heard) {
      return { wish: null, faults: [] };
    }
    const faults = heard.parts
      .filter((part) => part.as === 'fault')
      .map((part) => `${part.text}: ${part.means}`);
    const lead = people.data.find((p) => p.id === heard.draft.lead);
    const draft = { ...draftFrom(null), ...heard.draft, team: lead?.teams[0] ?? null };
    return { wish: faults.length > 0 ? null : newRecord(draft), faults };
  }, [line, people.data, places.data, details.data]);
}
