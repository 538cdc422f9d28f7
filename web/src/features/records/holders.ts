import type { Schemas } from '../../shared/api/client';

/** Who is on a record: a person by their number, a team by its number below zero. */
export type Holder = number;

export const ofTeam = (team: number): Holder => -team;
export const isTeam = (holder: Holder | null | undefined) => holder != null && holder < 0;
export const teamOf = (holder: Holder) => -holder;

type Named = Pick<Schemas['PersonChange'], 'person' | 'team'>;

export const holderOf = ({ person, team }: Named): Holder | null =>
  person ?? (team == null ? null : ofTeam(team));

/** As it is sent. */
export const named = (holder: Holder): Named =>
  isTeam(holder) ? { team: teamOf(holder) } : { person: holder };
