import { useMemo } from 'react';
import { useDetails, usePeople, usePlaces } from '../../shared/api/house';
import { draftFrom, newRecord, type Change } from './model';
import { readShortLine, type Known } from './shortLine';

/** What a line may name; not whole before all of it is fetched. */
export function useKnown() {
  const people = usePeople();
  const places = usePlaces();
  const details = useDetails();
  const crew = useMemo(
    () => (people.data ?? []).filter((p) => p.standing === 'HOUSE' || p.standing === 'AGENCY'),
    [people.data],
  );
  const known: Known = useMemo(
    () => ({
      people: crew.map((p) => ({ value: p.id, label: p.name })),
      places: (places.data ?? []).map((p) => ({ value: p.id, label: p.name, code: p.code })),
      callers: ['contact', 'phone'].every((key) => details.data?.some((d) => d.key === key)),
    }),
    [crew, places.data, details.data],
  );
  return { crew, known, isWhole: Boolean(people.data && places.data && details.data) };
}

/** A record in one line, as it would be made, and what of the line was not understood. */
export function useShortLine(line: string): { wish: Change | null; faults: string[] } {
  const { crew, known, isWhole } = useKnown();
  return useMemo(() => {
    const heard = isWhole && line.trim() ? readShortLine(line, known) : null;
    if (!heard) {
      return { wish: null, faults: [] };
    }
    const faults = heard.parts
      .filter((part) => part.as === 'fault')
      .map((part) => `${part.text}: ${part.means}`);
    const lead = crew.find((p) => p.id === heard.draft.lead);
    const draft = { ...draftFrom(null), ...heard.draft, team: lead?.teams[0] ?? null };
    return { wish: faults.length > 0 ? null : newRecord(draft), faults };
  }, [line, crew, known, isWhole]);
}
