import { Link, useSearchParams } from 'react-router';
import { usePeople, useTeams } from '../../shared/api/house';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { AddLine } from './AddLine';
import styles from './crew.module.css';
import { PersonSheet } from './PersonSheet';
import { Beside } from './Sheet';
import { useAddPerson } from './queries';
import { Table } from '../../shared/ui/Table';
import { words } from './words';

export function PeopleList({ mayChange }: { mayChange: boolean }) {
  const people = usePeople();
  const teams = useTeams();
  const add = useAddPerson();
  const [search, setSearch] = useSearchParams();
  if (people.isPending) {
    return <Loading what={words.loading} />;
  }
  if (people.error) {
    return <Fault error={people.error} reads />;
  }
  const teamName = (id: number) => teams.data?.find((t) => t.id === id)?.name ?? '';
  const chosen = people.data.find((one) => one.id === Number(search.get('person')));
  const list = (
    <>
      {mayChange && (
        <AddLine
          label={words.addPerson}
          begins={people.data.length < 2}
          pending={add.isPending}
          error={add.error}
          onAdd={(name, _, done) => add.mutate({ name }, { onSuccess: done })}
        />
      )}
      {people.data.length < 2 && <p className={styles.teach}>{words.noPeople}</p>}
      <div className={styles.scroll}>
        <Table heads={[words.name, words.standing, words.inTeams, mayChange && words.account]}>
          {people.data.map((person) => (
            <tr key={person.id} className={person.standing === 'LEFT' ? styles.faded : ''}>
              <th scope="row">
                {mayChange ? (
                  <Link to={`?person=${person.id}`} aria-current={person === chosen || undefined}>
                    {person.name}
                  </Link>
                ) : (
                  person.name
                )}
              </th>
              <td>{words.standings[person.standing]}</td>
              <td>{person.teams.map(teamName).join(', ')}</td>
              {mayChange && (
                <td>
                  {person.account === 'NONE' || person.standing === 'LEFT'
                    ? words.accounts.NONE
                    : `${words.rights[person.right ?? 'NONE']}, ${words.accounts[person.account ?? 'NONE']}`}
                </td>
              )}
            </tr>
          ))}
        </Table>
      </div>
    </>
  );
  return (
    <Beside list={list}>
      {chosen && mayChange && (
        <PersonSheet
          key={chosen.id}
          person={chosen}
          teams={teams.data ?? []}
          onClose={() => setSearch({})}
        />
      )}
    </Beside>
  );
}
