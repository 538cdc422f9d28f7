import { Button, Dropdown } from 'antd';
import { useNavigate } from 'react-router';
import type { ReactNode } from 'react';
import { useDo, of } from '../../shared/api/ask';
import { api, ProblemError, type Schemas } from '../../shared/api/client';
import { takesWork, usePeople } from '../../shared/api/house';
import { dueText, leaveText, shortDayText, spanText } from '../../shared/time';
import { Choice } from '../../shared/ui/Choice';
import { First } from '../../shared/ui/First';
import { useTray } from '../../shared/ui/tray';
import { leftBy, type Ahead } from '../cover';
import { givenTo, useChangeNow, type RecordView } from '../records';
import { Part } from './Part';
import styles from './today.module.css';
import { words } from './words';

export type Open = (id: number) => void;

/** So many of a sort are told at once, so that the next sort is not far. */
const MOST = 12;

/** Records, each with what mends it on its line. */
export function Records({
  records,
  open,
  unseen,
  remedy,
}: {
  records: RecordView[];
  open: Open;
  /** Who has not acknowledged the last change of which record. */
  unseen: Map<number, string[]>;
  remedy?: (record: RecordView) => ReactNode;
}) {
  return (
    <First
      of={records}
      most={MOST}
      line={(record) => (
        <Line key={record.id} record={record} open={open} unseen={unseen.get(record.id)}>
          {remedy?.(record)}
        </Line>
      )}
    />
  );
}

export function Line({
  record,
  open,
  unseen = [],
  note,
  children,
}: {
  record: RecordView;
  open: Open;
  unseen?: string[];
  /** In place of who is on it. */
  note?: string;
  children?: ReactNode;
}) {
  const people = [...new Set((record.people ?? []).map((p) => p.name))];
  const told = unseen.length > 0 ? words.notSeen(people, unseen) : people.join(', ');
  return (
    <li className={styles.line}>
      <button
        type="button"
        className={note === undefined ? styles.what : `${styles.what} ${styles.noted}`}
        onClick={() => open(record.id)}
      >
        <span className={styles.ref}>{record.ref}</span>
        <span className={styles.name}>{record.title ?? words.work}</span>
        <span className={styles.where} title={record.place?.name}>
          {record.place?.name}
        </span>
        <span className={styles.when}>{when(record)}</span>
        <span className={styles.who} title={note ?? told}>
          {note ?? told}
        </span>
      </button>
      <span className={styles.remedy}>{children}</span>
    </li>
  );
}

function when(record: RecordView): string {
  const span = (record.visits ?? []).find((v) => v.start ?? v.first);
  return record.due ? `${words.due} ${dueText(record.due)}` : span ? spanText(span) : '';
}

/** What is wrong ahead, each led to its remedy. */
export function Aheads({ of: all, remedy }: { of: Ahead[]; remedy: string }) {
  const navigate = useNavigate();
  return (
    <First
      of={all}
      most={MOST}
      line={(one) => (
        <li key={one.key} className={styles.line}>
          <span className={styles.coming}>
            <span className={styles.name}>{one.what}</span>
            <span className={styles.when} title={one.when}>
              {one.when}
            </span>
          </span>
          <span className={styles.remedy}>
            <Button
              size="small"
              aria-label={`${remedy}: ${one.what}`}
              onClick={() => void navigate(one.to)}
            >
              {remedy}
            </Button>
          </span>
        </li>
      )}
    />
  );
}

/** Of some hours of a day, where it names them. */
const withHours = (one: Schemas['LeaveRequest']) => ({
  ...one,
  ...(one.from && one.until && { hours: { from: one.from, until: one.until } }),
});

/** Leave that somebody asked for. */
export function LeaveAsked({ asked }: { asked: Schemas['LeaveRequest'][] }) {
  const navigate = useNavigate();
  const agree = useDo(({ id, person }: Schemas['LeaveRequest']) =>
    api.POST('/api/v1/people/{id}/leave/{leave}/agree', of({ id: person, leave: id })),
  );
  return (
    <Part name={words.leave} count={asked.length} asks folds="leave">
      {asked.map(withHours).map((one) => (
        <li key={one.id} className={styles.line}>
          <span className={styles.coming}>
            <span className={styles.name}>{one.name}</span>
            <span className={styles.when}>{leaveText(one)}</span>
          </span>
          <span className={styles.answers}>
            <Button size="small" type="text" onClick={() => void navigate(leftBy(one))}>
              {words.leaves}
            </Button>
            <Button size="small" loading={agree.isPending} onClick={() => agree.mutate(one)}>
              {words.agree}
            </Button>
          </span>
        </li>
      ))}
    </Part>
  );
}

/** Skills that end before long, those with work after it first. */
export function SkillsEnding({ of: all }: { of: Schemas['SkillEnding'][] }) {
  const navigate = useNavigate();
  return (
    <Part name={words.skills} count={all.length} folds="skills">
      {[...all]
        .sort((a, b) => Number(b.touched > 0) - Number(a.touched > 0))
        .map((one) => (
          <li key={`${one.person}:${one.skill}`} className={styles.line}>
            <span className={styles.coming}>
              <span className={styles.name}>{one.name}</span>
              <span className={styles.when}>
                {words.skillEnds(
                  one.skill,
                  shortDayText(one.last),
                  one.touched,
                  one.first && shortDayText(one.first.slice(0, 10)),
                )}
              </span>
            </span>
            <span className={styles.remedy}>
              <Button size="small" onClick={() => void navigate('/crew/people')}>
                {words.look}
              </Button>
            </span>
          </li>
        ))}
    </Part>
  );
}

/** Changes that some on the work have not acknowledged, one line a record. */
export function Unseen({ of: all, open }: { of: Schemas['UnseenChange'][]; open: Open }) {
  return (
    <Part name={words.unseen} count={all.length} folds="unseen">
      {all.map(({ record, people, change }) => (
        <Line
          key={record.id}
          record={record}
          open={open}
          note={[people.map((one) => one.name).join(', '), change && changes(change)]
            .filter(Boolean)
            .join(': ')}
        >
          <Tell record={record.id} people={people.filter((one) => !one.hasAccount)} />
        </Line>
      ))}
    </Part>
  );
}

/** Notes that who has no account was told, and how. */
function Tell({ record, people }: { record: number; people: Schemas['UnseenBy'][] }) {
  const tell = useDo((body: Schemas['ToldOf']) =>
    api.POST('/api/v1/records/{id}/told', { ...of({ id: record }), body }),
  );
  if (people.length === 0) {
    return null;
  }
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        items: people.flatMap(({ person, name }) =>
          words.tellHow.map(({ how, label }) => ({
            key: `${person}:${how}`,
            label: `${name} ${label}`,
            onClick: () => tell.mutate({ person, how }),
          })),
        ),
      }}
    >
      <Button size="small" loading={tell.isPending}>
        {words.told}
      </Button>
    </Dropdown>
  );
}

export function changes(view: Schemas['HistoryView']): string {
  const told = view.changes
    .filter((c) => c.before !== '' && c.label !== 'People')
    .map((c) => `${c.label} ${c.before} → ${c.after || '–'}`);
  return told.length > 0 ? told.join('; ') : words.made;
}

/** What can be done on a line. */
export function useRemedies() {
  const change = useChangeNow();
  const people = usePeople();
  const tray = useTray();
  const crew = (people.data ?? []).filter(takesWork).map((p) => ({ value: p.id, label: p.name }));
  const act = (id: number, how: Parameters<typeof change.mutate>[0]['change'], said: string) =>
    change.mutate(
      { id, change: how },
      {
        onSuccess: (done) => tray.tell({ text: said, act: done.act }),
        onError: (error) =>
          tray.tell({ text: error instanceof ProblemError ? error.message : words.failed }),
      },
    );
  return {
    reopen: (r: RecordView) =>
      r.mayChange.includes('cant') && (
        <Button
          size="small"
          onClick={() => act(r.id, () => ({ cant: false }), words.done(r.ref ?? ''))}
        >
          {words.settled}
        </Button>
      ),
    finish: (r: RecordView) =>
      r.mayChange.includes('state') && (
        <Button
          size="small"
          onClick={() => act(r.id, () => ({ state: 'DONE' }), words.finished(r.ref ?? ''))}
        >
          {words.finish}
        </Button>
      ),
    /** Where nobody is on it. */
    give: (r: RecordView) =>
      r.mayChange.includes('people') &&
      (r.people ?? []).length === 0 && (
        <Choice
          size="small"
          className={styles.give}
          placeholder={words.give}
          aria-label={words.giveTo(r.ref ?? words.work)}
          value={null}
          options={crew}
          onChange={(person) =>
            act(
              r.id,
              (now) => givenTo(now, person),
              words.given(r.ref ?? '', crew.find((p) => p.value === person)?.label ?? ''),
            )
          }
        />
      ),
  };
}
