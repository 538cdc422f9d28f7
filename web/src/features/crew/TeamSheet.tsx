import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { today } from '../../shared/time';
import { Choice } from '../../shared/ui/Choice';
import { Fault } from '../../shared/ui/Fault';
import styles from './crew.module.css';
import { TeamNameDialog } from './NameDialog';
import { useJoin, useLeave, type Person, type Team } from './queries';
import { Part, Sheet } from './Sheet';
import { words } from './words';

interface Props {
  team: Team;
  teams: Team[];
  people: Person[];
  onClose: () => void;
}

/** All that is settled of a team. */
export function TeamSheet({ team, teams, people, onClose }: Props) {
  const [open, setOpen] = useState(false);
  const coordinators = people.filter((one) => one.coordinates?.includes(team.id));
  return (
    <Sheet
      name={team.name}
      about={words.memberCount(team.members.length)}
      links={
        <>
          <Button
            size="small"
            aria-label={words.nameTitle(team.name)}
            onClick={() => setOpen(true)}
          >
            {words.change}
          </Button>
          <Link to={`/records?find=${encodeURIComponent(team.name)}`}>{words.theirWork}</Link>
          <Link to={`/board/paper?of=team-${team.id}&from=${today()}&days=14`}>
            {words.onPaper}
          </Link>
        </>
      }
      onClose={onClose}
    >
      <Members team={team} teams={teams} people={people} />
      <Part name={words.coordinators}>
        {coordinators.length === 0 && <p className={styles.quiet}>{words.noCoordinators}</p>}
        <ul className={styles.members}>
          {coordinators.map((one) => (
            <li key={one.id}>
              <Link to={`/crew/people?person=${one.id}`}>{one.name}</Link>
            </li>
          ))}
        </ul>
      </Part>
      {open && <TeamNameDialog team={team} onClose={() => setOpen(false)} />}
    </Sheet>
  );
}

function Members({ team, teams, people }: Omit<Props, 'onClose'>) {
  const join = useJoin();
  const leave = useLeave();
  const inIt = new Set(team.members.map((one) => one.person));
  const free = people.filter((one) => !inIt.has(one.id) && one.standing !== 'LEFT');
  return (
    <Part name={words.members}>
      <ul className={styles.members}>
        {team.members.map((member) => {
          const name = memberName(member, people, teams);
          return (
            <li key={member.id}>
              {member.person === undefined ? (
                <Link to={`/crew/teams?team=${member.team}`}>{name}</Link>
              ) : (
                <Link to={`/crew/people?person=${member.person}`}>{name}</Link>
              )}
              <Button
                size="small"
                type="text"
                aria-label={words.leave(name)}
                onClick={() => leave.mutate({ team: team.id, member: member.id })}
              >
                ×
              </Button>
            </li>
          );
        })}
        <li className={styles.joiner}>
          <Choice
            size="small"
            aria-label={`${words.join} ${team.name}`}
            placeholder={words.join}
            value={null}
            options={free.map((one) => ({ value: one.id, label: one.name }))}
            onChange={(person) => join.mutate({ team: team.id, person })}
            style={{ width: 170 }}
          />
        </li>
      </ul>
      {(join.error ?? leave.error) && <Fault error={join.error ?? leave.error} />}
    </Part>
  );
}

/** A person, or a team in the team. */
export function memberName(member: Team['members'][number], people: Person[], teams: Team[]) {
  return member.person === undefined
    ? (teams.find((one) => one.id === member.team)?.name ?? '')
    : (people.find((one) => one.id === member.person)?.name ?? '');
}
