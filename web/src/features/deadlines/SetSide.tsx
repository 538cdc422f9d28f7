import { Button, Dropdown } from 'antd';
import { useRef, useState, type KeyboardEvent } from 'react';
import { Link } from 'react-router';
import { dueText } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import styles from './deadlines.module.css';
import { inTime, rank } from './model';
import { MoveDialog } from './MoveDialog';
import { OffDialog } from './OffDialog';
import { useSet, type DeadlineSet, type Step, type StepChange } from './queries';
import { StepMenu } from './StepMenu';
import { words } from './words';

/** A set opened: its key date, and its steps in the order of time, each with its sum. */
export function SetSide({ id, onClose }: { id: number; onClose: () => void }) {
  const set = useSet(id);
  if (set.isPending) {
    return <Loading what={words.loading} />;
  }
  if (set.error) {
    return <Fault error={set.error} reads />;
  }
  return <Opened set={set.data} onClose={onClose} />;
}

function Opened({ set, onClose }: { set: DeadlineSet; onClose: () => void }) {
  const [moving, setMoving] = useState<StepChange[] | null>(null);
  const [leaving, setLeaving] = useState(false);
  return (
    <div className={styles.opened}>
      <div className={styles.kicker}>
        <span>{set.work ? words.work : words.place}</span>
        <span className={styles.grow} />
        <Button type="text" size="small" onClick={onClose}>
          {words.close}
        </Button>
      </div>
      <h2>{set.name}</h2>
      <p className={styles.of}>
        {set.work && (
          <Link to={`/records/${set.work.id}`}>
            {[set.work.ref, set.work.title].filter(Boolean).join(' ')}
          </Link>
        )}
        {set.work && set.place ? ' · ' : ''}
        {set.place?.name}
      </p>
      {set.mayChange && (
        <div className={styles.deeds}>
          <Button type="primary" onClick={() => setMoving([])}>
            {words.change}
          </Button>
          <Button onClick={() => setLeaving(true)}>{words.takeOff}</Button>
          <span className={styles.grow} />
          <Files id={set.id} />
        </div>
      )}
      {set.offer && (
        <div className={styles.offered} role="status">
          <span>{words.offer(set.offer)}</span>
          {set.mayChange && (
            <Button size="small" onClick={() => setMoving([])}>
              {words.recompute(1)}
            </Button>
          )}
        </div>
      )}
      <Said set={set} />
      <Steps set={set} say={setMoving} />
      {moving && <MoveDialog sets={[set]} steps={moving} onClose={() => setMoving(null)} />}
      {leaving && <OffDialog set={set} onClose={() => setLeaving(false)} onDone={onClose} />}
    </div>
  );
}

/** The set as a file. */
function Files({ id }: { id: number }) {
  const path = `/api/v1/deadline-sets/${id}`;
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        items: [
          { key: 'csv', label: <a href={`${path}.csv`}>{words.csv}</a> },
          { key: 'ics', label: <a href={`${path}.ics`}>{words.ics}</a> },
        ],
      }}
    >
      <Button type="text">{words.files}</Button>
    </Dropdown>
  );
}

/** What was chosen and answered. */
function Said({ set }: { set: DeadlineSet }) {
  if (!set.asksMethod && set.answers.length === 0) {
    return null;
  }
  return (
    <dl className={styles.said}>
      {set.asksMethod && (
        <div>
          <dt>{words.method}</dt>
          <dd>{set.method ?? words.methodNone}</dd>
        </div>
      )}
      {set.answers.map(({ question, yes }) => (
        <div key={question}>
          <dt>{question}?</dt>
          <dd>{yes == null ? words.unanswered : yes ? words.yes : words.no}</dd>
        </div>
      ))}
    </dl>
  );
}

type Row = { key: true } | { key: false; step: Step };

/** The key date stands among them where it lies. */
function rowsOf(set: DeadlineSet): Row[] {
  const rows: Row[] = inTime(set.steps).map((step) => ({ key: false, step }));
  const after = rows.findIndex((row) => !row.key && rank(row.step.date) > rank(set.keyDate));
  rows.splice(set.keyDate === undefined ? 0 : after < 0 ? rows.length : after, 0, { key: true });
  return rows;
}

function Steps({ set, say }: { set: DeadlineSet; say: (steps: StepChange[]) => void }) {
  const list = useRef<HTMLOListElement>(null);
  const back = useRef<HTMLElement | null>(null);
  const onKey = (event: KeyboardEvent) => {
    const all = [...(list.current?.querySelectorAll<HTMLElement>('[data-step]') ?? [])];
    const now = (document.activeElement as HTMLElement | null)?.closest<HTMLElement>('[data-step]');
    const key = list.current?.querySelector<HTMLElement>('[data-step="key"]');
    const to =
      event.key === 'ArrowDown'
        ? all[all.indexOf(now!) + 1]
        : event.key === 'ArrowUp'
          ? all[all.indexOf(now!) - 1]
          : event.key === 'Home'
            ? now === key
              ? back.current
              : key
            : undefined;
    if (event.key === 'Home' && now && now !== key) {
      back.current = now;
    }
    if (to) {
      event.preventDefault();
      to.focus();
    }
  };
  return (
    <ol className={styles.steps} ref={list} onKeyDown={onKey} title={words.toKeyDateTip}>
      {rowsOf(set).map((row, index) =>
        row.key ? (
          <li key="key" data-step="key" tabIndex={0} className={styles.keyRow}>
            <span className={styles.date}>{dueText(set.keyDate) || words.noKeyDate}</span>
            <span>
              <strong>{set.keyDateName}</strong>
              <small>{words.keyStep}</small>
            </span>
          </li>
        ) : (
          <StepRow key={index} step={row.step} mayChange={set.mayChange} say={say} />
        ),
      )}
    </ol>
  );
}

interface StepProps {
  step: Step;
  mayChange: boolean;
  say: (steps: StepChange[]) => void;
}

function StepRow({ step, mayChange, say }: StepProps) {
  const name = step.name ?? '';
  return (
    <li
      data-step={name}
      tabIndex={0}
      className={step.standing === 'DONE' ? styles.quiet : undefined}
    >
      <span className={`${styles.date} ${step.late ? styles.late : ''}`}>
        {dueText(step.date) || '–'}
      </span>
      <span>
        <strong>{name}</strong>
        {words.standings[step.standing] && (
          <em className={styles.standing}>{words.standings[step.standing]}</em>
        )}
        {step.late && <em className={styles.late}>{words.which.late.toLowerCase()}</em>}
        <small>{step.sum ?? step.why}</small>
        {step.holidaysUnknown && <small className={styles.who}>{words.holidaysUnknown}</small>}
        {step.people && step.people.length > 0 && (
          <small className={styles.who}>{step.people.join(', ')}</small>
        )}
      </span>
      {(step.record !== undefined || mayChange) && (
        <StepMenu
          step={name}
          standing={step.standing}
          say={mayChange ? (change) => say([change]) : undefined}
          first={
            step.record === undefined
              ? undefined
              : {
                  key: 'open',
                  label: <Link to={`/records/${step.record}`}>{words.openRecord}</Link>,
                }
          }
        />
      )}
    </li>
  );
}
