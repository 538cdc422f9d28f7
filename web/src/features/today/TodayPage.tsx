import { Button } from 'antd';
import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { useRead } from '../../shared/api/ask';
import { api, type Schemas } from '../../shared/api/client';
import { keys } from '../../shared/api/keys';
import { longDayText } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { useKeys } from '../../shared/ui/keys';
import { usePaperKey } from '../../shared/ui/usePaperKey';
import { OutsideLines } from '../copies';
import { useAhead, useSkillsEnding } from '../cover';
import { RecordSide, useReleases } from '../records';
import { All } from './All';
import { FirstSteps } from './FirstSteps';
import { Aheads, LeaveAsked, Records, SkillsEnding, Unseen, useRemedies, type Open } from './Lines';
import { NextDays } from './NextDays';
import { FoldsContext, Part, type Folds } from './Part';
import styles from './today.module.css';
import { Waiting } from './Waiting';
import { words } from './words';

type Today = Schemas['Today'];

/** What wants the coordinator, most pressing first, each with its remedy; beside it what comes. */
export function TodayPage() {
  const [search, setSearch] = useSearchParams();
  const today = useRead(keys.today, () => api.GET('/api/v1/today'), { refetchInterval: 60_000 });
  const ahead = useAhead();
  const folds = useFolds();
  const chosen = search.get('record') ? Number(search.get('record')) : null;
  const go = (record: number | null, edit = false) =>
    setSearch((before) => {
      const next = new URLSearchParams(before);
      ['record', 'edit'].forEach((name) => next.delete(name));
      if (record !== null) {
        next.set('record', String(record));
      }
      if (edit) {
        next.set('edit', '1');
      }
      return next;
    });
  const close = () => go(null);
  // What is printed in the evening is tomorrow.
  usePaperKey(chosen === null && '/board/paper');
  useKeys({ Escape: close });
  // Drawn at once, so that nothing moves under somebody's hand.
  if (today.isPending || ahead.pending) {
    return <Loading what={words.loading} />;
  }
  if (today.error) {
    return (
      <div className={styles.left}>
        <Fault error={today.error} reads />
      </div>
    );
  }
  return (
    <div className={`${styles.page} ${chosen ? styles.reading : ''}`}>
      <div className={styles.left}>
        <div className={styles.title}>
          <h1>{longDayText(today.data.today)}</h1>
          <Button
            size="small"
            onClick={() => setSearch((now) => ({ ...Object.fromEntries(now), sick: '' }))}
          >
            {words.sick}
          </Button>
        </div>
        <FirstSteps />
        <FoldsContext.Provider value={folds}>
          <Wants today={today.data} ahead={ahead} open={go} />
        </FoldsContext.Provider>
      </div>
      <aside className={styles.side} aria-label={chosen ? 'Record' : words.ahead}>
        {chosen ? (
          <RecordSide
            chosen={chosen}
            making={false}
            editing={search.get('edit') === '1'}
            onClose={close}
            onEdit={() => go(chosen, true)}
            onOpen={go}
          />
        ) : (
          <NextDays records={today.data.ahead} open={go} />
        )}
      </aside>
    </div>
  );
}

/** By the address, so that a link to it can be sent. */
function useFolds(): Folds {
  const [search, setSearch] = useSearchParams();
  const open = (search.get('open') ?? '').split(',').filter(Boolean);
  const turn = (part: string) =>
    setSearch(
      (before) => {
        const next = new URLSearchParams(before);
        const others = open.filter((one) => one !== part);
        const now = open.includes(part) ? others : [...others, part];
        if (now.length > 0) {
          next.set('open', now.join(','));
        } else {
          next.delete('open');
        }
        return next;
      },
      { replace: true },
    );
  return { open, turn };
}

function Calm() {
  return (
    <div className={styles.calm}>
      <strong>{words.calm}</strong>
      <p>{words.calmWhy}</p>
    </div>
  );
}

function Wants({
  today,
  ahead,
  open,
}: {
  today: Today;
  ahead: ReturnType<typeof useAhead>;
  open: Open;
}) {
  const remedies = useRemedies();
  const waiting = useReleases(true).data?.length ?? 0;
  const skills = useSkillsEnding().data ?? [];
  // An unassigned shift is told by the gap it leaves.
  const unassigned = (records: Today['nobody']) =>
    records.filter(
      (one) => one.kind !== 'SHIFT' || !ahead.isShort(one.place?.name, one.visits?.[0]?.start),
    );
  const [nobody, nobodyLater] = [unassigned(today.nobody), unassigned(today.nobodyLater)];
  const lists = [today.cant, today.overdue, today.dueToday, nobody, nobodyLater];
  const told = new Set([...lists, today.nowhere].flat().map((record) => record.id));
  const unseen = useMemo(
    () => new Map(today.unseen.map((one) => [one.record.id, one.people.map((p) => p.name)])),
    [today.unseen],
  );
  // Nothing twice: what stands elsewhere says there who has not seen it.
  const others = today.unseen.filter((one) => !told.has(one.record.id));
  const wrong = [ahead.short, ahead.shortLater, ahead.never, ahead.warns];
  if (told.size + [...wrong, others, today.leave, skills].flat().length + waiting === 0) {
    return <Calm />;
  }
  const part = (
    name: string,
    records: Today['cant'],
    look: { wrong?: boolean; folds?: string; remedy?: keyof typeof remedies } = {},
  ) => (
    <Part
      name={name}
      count={records.length}
      wrong={look.wrong}
      folds={look.folds}
      extra={<All of={records} name={name} />}
    >
      <Records
        records={records}
        open={open}
        unseen={unseen}
        remedy={(record) =>
          (record.people ?? []).length === 0
            ? remedies.give(record)
            : look.remedy && remedies[look.remedy](record)
        }
      />
    </Part>
  );
  return (
    <>
      {part(words.cant, today.cant, { wrong: true, remedy: 'reopen' })}
      {part(words.overdue, today.overdue, { wrong: true, remedy: 'finish' })}
      {part(words.dueToday, today.dueToday)}
      {part(words.nobody, nobody, { wrong: true })}
      <Part name={words.short} count={ahead.short.length} wrong>
        <Aheads of={ahead.short} remedy={words.whoCould} />
      </Part>
      <Part name={words.clashes} count={ahead.never.length} wrong>
        <Aheads of={ahead.never} remedy={words.look} />
      </Part>
      <LeaveAsked asked={today.leave} />
      <OutsideLines />
      <Waiting open={open} />
      {part(words.nobodyLater, nobodyLater, { folds: 'unassigned' })}
      <Part name={words.shortLater} count={ahead.shortLater.length} folds="short">
        <Aheads of={ahead.shortLater} remedy={words.whoCould} />
      </Part>
      <Part name={words.nowhere} count={today.nowhere.length} folds="nowhere">
        <Records
          records={today.nowhere}
          open={open}
          unseen={unseen}
          remedy={(record) => (
            <Button size="small" onClick={() => open(record.id)}>
              {words.why}
            </Button>
          )}
        />
      </Part>
      <Unseen of={others} open={open} />
      <SkillsEnding of={skills} />
      <Part name={words.warns} count={ahead.warns.length} folds="clashes">
        <Aheads of={ahead.warns} remedy={words.look} />
      </Part>
    </>
  );
}
