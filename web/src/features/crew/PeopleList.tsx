import { Button } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../shared/api/client';
import { usePeople, useTeams } from '../../shared/api/house';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { useDecided } from '../copies';
import { AddLine } from './AddLine';
import styles from './crew.module.css';
import { InviteDialog } from './InviteDialog';
import { PersonDialog } from './PersonDialog';
import { SkillsDialog } from './SkillsDialog';
import { TimesDialog } from './TimesDialog';
import { useAddPerson, type Person } from './queries';
import { worded } from '../../shared/words';
import { Table } from '../../shared/ui/Table';
import { words } from './words';

export function PeopleList({ mayChange }: { mayChange: boolean }) {
  const people = usePeople();
  const teams = useTeams();
  const add = useAddPerson();
  const decided = useDecided();
  const linked = (id: number) => decided.data?.find((one) => one.person === id)?.by;
  const [open, setOpen] = useState<{ what: What; person: Person } | null>(null);
  if (people.isPending) {
    return <Loading what={words.loading} />;
  }
  if (people.error) {
    return <Fault error={people.error} again={() => void people.refetch()} />;
  }
  const teamName = (id: number) => teams.data?.find((t) => t.id === id)?.name ?? '';
  return (
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
        <Table
          heads={[
            words.name,
            words.standing,
            words.inTeams,
            mayChange && words.account,
            mayChange && words.linked,
            mayChange && { unseen: 'Actions' },
          ]}
        >
          {people.data.map((person) => (
            <tr key={person.id} className={person.standing === 'LEFT' ? styles.faded : ''}>
              <th scope="row">{person.name}</th>
              <td>{words.standings[person.standing]}</td>
              <td>{person.teams.map(teamName).join(', ')}</td>
              {mayChange && (
                <td>
                  {person.account === 'NONE' || person.standing === 'LEFT'
                    ? words.accounts.NONE
                    : `${words.rights[person.right ?? 'NONE']}, ${words.accounts[person.account ?? 'NONE']}`}
                </td>
              )}
              {mayChange && <td>{worded(words.deciderWords, linked(person.id) ?? '')}</td>}
              {mayChange && (
                <td className={styles.buttons}>
                  <Deeds person={person} onDo={(what) => setOpen({ what, person })} />
                </td>
              )}
            </tr>
          ))}
        </Table>
      </div>
      {open && <OpenDialog {...open} teams={teams.data ?? []} onClose={() => setOpen(null)} />}
    </>
  );
}

type What = 'invite' | 'skills' | 'times' | 'change';

/** What may be done about somebody. */
function Deeds({ person, onDo }: { person: Person; onDo: (what: What) => void }) {
  return (
    <>
      {person.standing !== 'LEFT' && (
        <Button size="small" onClick={() => onDo('invite')}>
          {person.account === 'NONE' ? words.invite : words.inviteAgain}
        </Button>
      )}
      <Button
        size="small"
        onClick={() => onDo('skills')}
        aria-label={words.skillsTitle(person.name)}
      >
        {words.skills}
      </Button>
      <Button size="small" onClick={() => onDo('times')} aria-label={words.timesTitle(person.name)}>
        {words.times}
      </Button>
      <Button
        size="small"
        onClick={() => onDo('change')}
        aria-label={words.changeTitle(person.name)}
      >
        {words.change}
      </Button>
    </>
  );
}

function OpenDialog({
  what,
  person,
  teams,
  onClose,
}: {
  what: What;
  person: Person;
  teams: Schemas['Team'][];
  onClose: () => void;
}) {
  switch (what) {
    case 'invite':
      return <InviteDialog person={person} onClose={onClose} />;
    case 'skills':
      return <SkillsDialog person={person} onClose={onClose} />;
    case 'times':
      return <TimesDialog person={person} onClose={onClose} />;
    case 'change':
      return <PersonDialog person={person} teams={teams} onClose={onClose} />;
  }
}
