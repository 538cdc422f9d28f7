import { useMemo } from 'react';
import { takesWork, useDetails, usePeople, usePlaces, useTeams } from '../../shared/api/house';
import { isTeam, ofTeam, teamOf, type Holder } from './holders';
import { draftFrom, newRecord, type Change } from './model';
import { readShortLine, type Known } from './shortLine';

/** What a line may name; not whole before all of it is fetched. */
export function useKnown() {
  const people = usePeople();
  const places = usePlaces();
  const details = useDetails();
  const teams = useTeams();
  const crew = useMemo(() => (people.data ?? []).filter(takesWork), [people.data]);
  const known: Known = useMemo(
    () => ({
      people: crew.map((p) => ({ value: p.id, label: p.name })),
      places: (places.data ?? []).map((p) => ({ value: p.id, label: p.name, code: p.code })),
      teams: (teams.data ?? []).map((t) => ({ value: ofTeam(t.id), label: t.name })),
      callers: ['contact', 'phone'].every((key) => details.data?.some((d) => d.key === key)),
    }),
    [crew, places.data, details.data, teams.data],
  );
  return {
    crew,
    known,
    isWhole: Boolean(people.data && places.data && details.data && teams.data),
  };
}

/** The team that leads, or that the Lead is in: work usually is of it. */
export function teamOfLead(lead: Holder | null, crew: { id: number; teams: number[] }[]) {
  return lead !== null && isTeam(lead)
    ? teamOf(lead)
    : (crew.find((p) => p.id === lead)?.teams[0] ?? null);
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
    const team = teamOfLead(heard.draft.lead ?? null, crew);
    const draft = { ...draftFrom(null), ...heard.draft, team };
    return { wish: faults.length > 0 ? null : newRecord(draft), faults };
  }, [line, crew, known, isWhole]);
}
