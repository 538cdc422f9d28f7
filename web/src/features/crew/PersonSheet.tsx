import { Button } from 'antd';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../shared/api/client';
import { leaveText, shortDayText, today } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { worded } from '../../shared/words';
import { useDecided } from '../copies';
import styles from './crew.module.css';
import { InviteDialog } from './InviteDialog';
import { PersonDialog } from './PersonDialog';
import { useSkills, useTimes, type Person } from './queries';
import { Part, Sheet } from './Sheet';
import { SkillsDialog } from './SkillsDialog';
import { TimesDialog } from './TimesDialog';
import { words } from './words';

type What = 'invite' | 'skills' | 'times' | 'change';

/** All that is settled of somebody, each part with what changes it. */
export function PersonSheet({
  person,
  teams,
  onClose,
}: {
  person: Person;
  teams: Schemas['Team'][];
  onClose: () => void;
}) {
  const [open, setOpen] = useState<What | null>(null);
  const left = person.standing === 'LEFT';
  const close = () => setOpen(null);
  const edit = (what: What, label: string, words: string) => (
    <Button size="small" aria-label={label} onClick={() => setOpen(what)}>
      {words}
    </Button>
  );
  const inTeams = teams.filter((team) => person.teams.includes(team.id)).map((team) => team.name);
  return (
    <Sheet
      name={person.name}
      about={[words.standings[person.standing], ...inTeams].join(' · ')}
      links={
        <>
          {edit('change', words.changeTitle(person.name), words.change)}
          <Link to={`/records?person=${person.id}`}>{words.theirWork}</Link>
          <Link to={`/board/paper?of=person-${person.id}&from=${today()}&days=14`}>
            {words.onPaper}
          </Link>
          <Link to={`/who-sees-what?by=person&of=${person.id}`}>{words.whatTheySee}</Link>
        </>
      }
      onClose={onClose}
    >
      {!left && (
        <>
          <Times person={person}>
            {edit('times', words.timesTitle(person.name), words.change)}
          </Times>
          <Skills person={person}>
            {edit('skills', words.skillsTitle(person.name), words.change)}
          </Skills>
          <Part
            name={words.account}
            aside={edit(
              'invite',
              words.inviteTitle(person.name),
              person.account === 'NONE' ? words.invite : words.inviteAgain,
            )}
          >
            <Account person={person} />
          </Part>
        </>
      )}
      {open === 'invite' && <InviteDialog person={person} onClose={close} />}
      {open === 'skills' && <SkillsDialog person={person} onClose={close} />}
      {open === 'times' && <TimesDialog person={person} onClose={close} />}
      {open === 'change' && <PersonDialog person={person} teams={teams} onClose={close} />}
    </Sheet>
  );
}

function Account({ person }: { person: Person }) {
  const linked = useDecided().data?.find((one) => one.person === person.id)?.by;
  return (
    <dl className={styles.facts}>
      <dt>{words.access}</dt>
      <dd>
        {[
          words.rights[person.right ?? 'NONE'],
          person.account !== 'NONE' && words.accounts[person.account ?? 'NONE'],
          person.email,
        ]
          .filter(Boolean)
          .join(', ')}
      </dd>
      <dt>{words.linked}</dt>
      <dd>{linked ? worded(words.deciderWords, linked) : words.notLinked}</dd>
    </dl>
  );
}

function Times({ person, children }: { person: Person; children: ReactNode }) {
  const times = useTimes(person.id);
  const now = today();
  const hours = (times.data?.hours ?? []).filter((one) => !one.last || one.last >= now);
  const leave = (times.data?.leave ?? []).filter((one) => one.last >= now);
  return (
    <Part name={words.times} aside={children}>
      {times.error && <Fault error={times.error} reads />}
      {times.data && (
        <dl className={styles.facts}>
          <dt>{words.hoursOfWeek}</dt>
          <dd>
            {hours.length === 0 && words.unsaid}
            {hours.map((one) => (
              <div key={`${one.weekday} ${one.from} ${one.place ?? ''} ${one.first ?? ''}`}>
                {words.weekdays[one.weekday - 1]?.label} {one.from}–{one.until}
              </div>
            ))}
          </dd>
          <dt>{words.leaves}</dt>
          <dd>
            {leave.length === 0 && words.noLeave}
            {leave.map((one) => (
              <div key={one.id}>
                {leaveText(one)}
                {!one.agreed && ` (${words.askedFor})`}
              </div>
            ))}
          </dd>
          {times.data.lastDay && (
            <>
              <dt>{words.lastDay}</dt>
              <dd>{shortDayText(times.data.lastDay)}</dd>
            </>
          )}
        </dl>
      )}
    </Part>
  );
}

function Skills({ person, children }: { person: Person; children: ReactNode }) {
  const known = useSkills(person.id);
  return (
    <Part name={words.skills} aside={children}>
      {known.error && <Fault error={known.error} reads />}
      {known.data && (
        <p className={styles.skillsSaid}>
          {known.data.skills.length === 0 && words.noSkills}
          {known.data.skills
            .map((one) => (one.last ? words.skillUntil(one.skill, one.last) : one.skill))
            .join(', ')}
          {known.data.notAlone && ` · ${words.notAlone}`}
        </p>
      )}
    </Part>
  );
}
