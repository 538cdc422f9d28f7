import type { Schemas } from '../../shared/api/client';
import { useCalendars, useRoles, useTeams } from '../../shared/api/house';
import { triedPeople } from '../cover';
import { SUPERVISOR } from './model';
import type { Known } from './shortLine';

/** What the form's fields choose from. */
export function useChoices(known: Known, trial: Schemas['Trial'] | undefined) {
  const teams = useTeams();
  const roles = useRoles();
  const calendars = useCalendars();
  return {
    places: known.places,
    everybody: [...known.people, ...known.teams],
    /** Who may do it, each with what speaks against them; teams after them. */
    holders: [...triedPeople(known.people, trial?.people), ...known.teams],
    /** But for those that have a field of their own. */
    roles: (roles.data ?? []).filter((role) => role.number > SUPERVISOR),
    teams: (teams.data ?? []).map((t) => ({ value: t.id, label: t.name })),
    calendars: (calendars.data ?? []).map((c) => ({ value: c.id, label: c.name })),
  };
}
