import { Button } from 'antd';
import { usePeople, useTeams } from '../../shared/api/house';
import { Choice } from '../../shared/ui/Choice';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { AddLine } from './AddLine';
import styles from './crew.module.css';
import { useAddTeam, useJoin, useLeave, type Person, type Team } from './queries';
import { words } from './words';

export function TeamList({ mayChange }: { mayChange: boolean }) {
  const teams = useTeams();
  const people = usePeople();
  const add = useAddTeam();
  if (teams.isPending || people.isPending) {
    return <Loading what={words.loading} />;
  }
  if (teams.error) {
    return <Fault error={teams.error} again={() => void teams.refetch()} />;
  }
  return (
    <>
      {mayChange && (
        <AddLine
          label={words.addTeam}
          pending={add.isPending}
          error={add.error}
          onAdd={(name, _, done) => add.mutate({ name }, { onSuccess: done })}
        />
      )}
      {teams.data.length === 0 ? (
        <p className={styles.teach}>{words.noTeams}</p>
      ) : (
        <div className={styles.scroll}>
          {teams.data.map((team) => (
            <TeamRow
              key={team.id}
              team={team}
              teams={teams.data}
              people={people.data ?? []}
              mayChange={mayChange}
            />
          ))}
        </div>
      )}
    </>
  );
}

function TeamRow({
  team,
  teams,
  people,
  mayChange,
}: {
  team: Team;
  teams: Team[];
  people: Person[];
  mayChange: boolean;
}) {
  const join = useJoin();
  const leave = useLeave();
  const nameOf = (member: Team['members'][number]) =>
    member.person != null
      ? (people.find((p) => p.id === member.person)?.name ?? '')
      : (teams.find((t) => t.id === member.team)?.name ?? '');
  const inIt = new Set(team.members.map((m) => m.person));
  const free = people.filter((p) => !inIt.has(p.id) && p.standing !== 'LEFT');
  return (
    <section className={styles.team}>
      <h2 className={styles.teamName}>
        <span className={styles.hue} style={{ background: `var(--${team.hue})` }} />
        {team.name}
        <span className={styles.quiet}>
          {team.members.length} {team.members.length === 1 ? 'member' : 'members'}
        </span>
      </h2>
      <ul className={styles.members}>
        {team.members.map((member) => (
          <li key={member.id}>
            {nameOf(member)}
            {mayChange && (
              <Button
                size="small"
                type="text"
                aria-label={words.leave(nameOf(member))}
                onClick={() => leave.mutate({ team: team.id, member: member.id })}
              >
                ×
              </Button>
            )}
          </li>
        ))}
        {mayChange && (
          <li className={styles.joiner}>
            <Choice
              size="small"
              aria-label={`${words.join} ${team.name}`}
              placeholder={words.join}
              value={null}
              options={free.map((p) => ({ value: p.id, label: p.name }))}
              onChange={(person) => join.mutate({ team: team.id, person })}
              style={{ width: 170 }}
            />
          </li>
        )}
      </ul>
      {(join.error ?? leave.error) && <Fault error={join.error ?? leave.error} />}
    </section>
  );
}
