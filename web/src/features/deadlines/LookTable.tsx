import { Checkbox } from 'antd';
import type { ReactNode } from 'react';
import { dueText } from '../../shared/time';
import { Table } from '../../shared/ui/Table';
import styles from './deadlines.module.css';
import type { Line, Look, Looks } from './queries';
import { words } from './words';

interface Props {
  look: Look;
  /** The set is new: there is only one side. */
  isNew?: boolean;
  /** Which steps are taken; without it all are. */
  take?: { of: (step: string) => boolean; turn: (step: string) => void };
  /** What else can be done with a step. */
  more?: (line: Line) => ReactNode;
}

/** What would become of the steps of a set, both sides beside each other. */
export function LookTable({ look, isNew = false, take, more }: Props) {
  return (
    <Table
      className={styles.look}
      heads={[
        take && { unseen: words.take },
        words.step,
        !isNew && words.stands,
        words.then,
        words.becomes,
        more && { unseen: words.change },
      ]}
    >
      {look.lines.map((line) => (
        <tr key={line.step} className={isQuiet(line) ? styles.quiet : undefined}>
          {take && (
            <td>
              <Checkbox
                aria-label={`${words.take}: ${line.step}`}
                checked={take.of(line.step)}
                disabled={!mayLeave(line) && take.of(line.step)}
                onChange={() => take.turn(line.step)}
              />
            </td>
          )}
          <th scope="row">
            {line.step}
            <small>{line.sum ?? line.why}</small>
          </th>
          {!isNew && <td className={styles.date}>{dueText(line.before)}</td>}
          <td className={styles.date}>{dueText(line.after)}</td>
          <td>
            {(!isNew || line.kind !== 'NOW_DATED') && (
              <span className={isQuiet(line) ? undefined : styles.becomes}>
                {words.kinds[line.kind]}
              </span>
            )}
            <Marks line={line} />
            {isNew && line.people.length > 0 && <small>{line.people.join(', ')}</small>}
          </td>
          {more && <td>{more(line)}</td>}
        </tr>
      ))}
    </Table>
  );
}

const isQuiet = (line: Line) =>
  line.kind === 'UNCHANGED' || line.kind === 'DONE' || line.kind === 'STILL_WITHOUT_DATE';

/** Whether it would change, so that it can be left as it is. */
const mayLeave = (line: Line) =>
  line.kind === 'MOVED' || line.kind === 'NOW_DATED' || line.kind === 'NOW_WITHOUT_DATE';

function Marks({ line }: { line: Line }) {
  return (
    <>
      {line.past && <small className={styles.warn}>{words.past}</small>}
      {line.off !== undefined && <small className={styles.mind}>{words.offDay(line.off)}</small>}
      {line.holidaysUnknown && <small>{words.holidaysUnknown}</small>}
      {line.sameDay.length > 0 && <small>{words.sameDay(line.sameDay)}</small>}
    </>
  );
}

/** How many of each class, and how far it reaches. */
export function LookSum({ looks }: { looks: Looks }) {
  const teams = [...new Set(looks.sets.flatMap((set) => set.teamsLead))];
  return (
    <div role="status">
      <p className={styles.sum}>
        {words.counted(looks.counts) || words.nothingChanges}
        <span>{words.reaches(looks)}</span>
      </p>
      {teams.map((team) => (
        <p key={team} className={styles.mind}>
          {words.teamLead(team)}
        </p>
      ))}
    </div>
  );
}
