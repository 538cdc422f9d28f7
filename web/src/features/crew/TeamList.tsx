import { Link, useSearchParams } from 'react-router';
import { usePeople, useTeams } from '../../shared/api/house';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { Table } from '../../shared/ui/Table';
import { AddLine } from './AddLine';
import styles from './crew.module.css';
import { useAddTeam } from './queries';
import { Beside } from './Sheet';
import { memberName, TeamSheet } from './TeamSheet';
import { words } from './words';

export function TeamList({ mayChange }: { mayChange: boolean }) {
  const teams = useTeams();
  const people = usePeople();
  const add = useAddTeam();
  const [search, setSearch] = useSearchParams();
  if (teams.isPending || people.isPending) {
    return <Loading what={words.loading} />;
  }
  if (teams.error) {
    return <Fault error={teams.error} reads />;
  }
  const all = people.data ?? [];
  const chosen = teams.data.find((one) => one.id === Number(search.get('team')));
  const list = (
    <>
      {mayChange && (
        <AddLine
          label={words.addTeam}
          pending={add.isPending}
          error={add.error}
          onAdd={(name, _, done) => add.mutate({ name }, { onSuccess: done })}
        />
      )}
      {teams.data.length === 0 && <p className={styles.teach}>{words.noTeams}</p>}
      {teams.data.length > 0 && (
        <div className={styles.scroll}>
          <Table heads={[words.name, words.members, words.who]}>
            {teams.data.map((team) => (
              <tr key={team.id}>
                <th scope="row">
                  <span className={styles.hue} style={{ background: `var(--${team.hue})` }} />{' '}
                  {mayChange ? (
                    <Link to={`?team=${team.id}`} aria-current={team === chosen || undefined}>
                      {team.name}
                    </Link>
                  ) : (
                    team.name
                  )}
                </th>
                <td className="number">{team.members.length}</td>
                <td className={styles.quiet}>
                  {words.aboutMore(team.members.map((one) => memberName(one, all, teams.data)))}
                </td>
              </tr>
            ))}
          </Table>
        </div>
      )}
    </>
  );
  return (
    <Beside list={list}>
      {chosen && mayChange && (
        <TeamSheet
          key={chosen.id}
          team={chosen}
          teams={teams.data}
          people={all}
          onClose={() => setSearch({})}
        />
      )}
    </Beside>
  );
}
