import { Button, Input, Segmented } from 'antd';
import { useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { useTeams } from '../../shared/api/house';
import { addDays } from '../../shared/time';
import { Choice } from '../../shared/ui/Choice';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { useKeys } from '../../shared/ui/keys';
import styles from './deadlines.module.css';
import { MakeDialog } from './MakeDialog';
import { folded, holds, isOf, stretchOf, WHICH, ZOOMS, type Fold, type Which } from './model';
import { MoveDialog } from './MoveDialog';
import { useSets, type DeadlineSet } from './queries';
import { SetLines } from './SetLines';
import { SetSide } from './SetSide';
import { words } from './words';

/** What stands in the address of the page. */
function useAddress() {
  const [search, setSearch] = useSearchParams();
  const navigate = useNavigate();
  const { id } = useParams();
  const set = (name: string, value: string) =>
    setSearch(
      (before) => {
        const next = new URLSearchParams(before);
        if (value) {
          next.set(name, value);
        } else {
          next.delete(name);
        }
        return next;
      },
      { replace: true },
    );
  const kept = new URLSearchParams(search);
  kept.delete('make');
  const query = kept.toString();
  return {
    set,
    find: search.get('find') ?? '',
    which: (search.get('which') ?? 'all') as Which,
    fold: (search.get('fold') ?? 'none') as Fold,
    from: search.get('from'),
    days: Number(search.get('days')) || ZOOMS[1]!,
    chosen: id === undefined ? null : Number(id),
    making: search.get('make'),
    open: (to: number | null) =>
      void navigate(`/deadlines${to === null ? '' : '/' + to}${query ? '?' + query : ''}`),
  };
}

/** Sets of deadlines as lines of time, and beside them the chosen one. */
export function DeadlinesPage({ mayChange }: { mayChange: boolean }) {
  const page = useAddress();
  const sets = useSets();
  const teams = new Set((useTeams().data ?? []).map((team) => team.name));
  const [recomputing, setRecomputing] = useState<DeadlineSet[] | null>(null);
  const stretch = stretchOf(page.from, page.days);
  const move = (part: number) =>
    page.set('from', addDays(stretch.from, Math.round(page.days * part)));
  const zoom = (by: number) => {
    const now = ZOOMS.indexOf(page.days);
    page.set('days', String(ZOOMS[Math.min(ZOOMS.length - 1, Math.max(0, now + by))]));
  };
  useKeys({
    '[': () => move(-0.25),
    ']': () => move(0.25),
    t: () => page.set('from', ''),
    '+': () => zoom(-1),
    '-': () => zoom(1),
    Escape: () => page.open(null),
  });
  const all = sets.data ?? [];
  const found = all.filter((set) => isOf(page.which, set) && holds(set, page.find));
  const offered = found.filter((set) => set.offer && set.mayChange);
  return (
    <div className={page.chosen === null ? styles.whole : styles.split}>
      <section className={styles.left} aria-label={words.title}>
        <div className={styles.bar}>
          <h1>{words.title}</h1>
          <Segmented
            tabIndex={-1}
            aria-label={words.title}
            value={page.which}
            options={WHICH.map((which) => {
              const count = all.filter((set) => isOf(which, set)).length;
              return {
                value: which,
                label: which === 'all' ? words.which[which] : `${words.which[which]} ${count}`,
                disabled: which !== page.which && count === 0,
              };
            })}
            onChange={(which) => page.set('which', which === 'all' ? '' : which)}
          />
          <span className={styles.grow} />
          {mayChange && (
            <>
              <Link className={styles.link} to="/deadlines/chains">
                {words.chains}
              </Link>
              <Button type="primary" onClick={() => page.set('make', 'set')}>
                {words.make}
              </Button>
            </>
          )}
        </div>
        <div className={styles.bar}>
          <Find page={page} />
          <span className={styles.grow} />
          {page.which === 'offered' && offered.length > 0 && mayChange && (
            <Button onClick={() => setRecomputing(offered)}>
              {words.recompute(offered.length)}
            </Button>
          )}
          <Steer onMove={move} onToday={() => page.set('from', '')} onZoom={zoom} />
        </div>
        {sets.isPending && <Loading what={words.loading} />}
        {sets.error && <Fault error={sets.error} reads />}
        {sets.data && found.length === 0 && (
          <p className={styles.empty}>{all.length === 0 ? words.noSets : words.noneSo}</p>
        )}
        {found.length > 0 && (
          <SetLines
            groups={folded(page.fold, found, teams)}
            isFolded={page.fold !== 'none'}
            stretch={stretch}
            chosen={page.chosen}
            onOpen={page.open}
          />
        )}
      </section>
      {page.chosen !== null && (
        <aside className={styles.side} aria-label={words.hangOn}>
          <SetSide key={page.chosen} id={page.chosen} onClose={() => page.open(null)} />
        </aside>
      )}
      {page.making !== null && mayChange && (
        <MakeDialog
          work={Number(page.making) || undefined}
          onClose={() => page.set('make', '')}
          onMade={page.open}
        />
      )}
      {recomputing && <MoveDialog sets={recomputing} onClose={() => setRecomputing(null)} />}
    </div>
  );
}

/** The find line, and by what the rows stand together. */
function Find({ page }: { page: ReturnType<typeof useAddress> }) {
  return (
    <>
      <Input
        allowClear
        className={styles.find}
        aria-label={words.find}
        placeholder={words.find}
        value={page.find}
        onChange={(event) => page.set('find', event.target.value)}
      />
      <Choice
        aria-label={words.fold}
        className={styles.fold}
        value={page.fold}
        options={words.folds}
        onChange={(fold) => page.set('fold', fold === 'none' ? '' : fold)}
      />
    </>
  );
}

interface SteerProps {
  onMove: (part: number) => void;
  onToday: () => void;
  onZoom: (by: number) => void;
}

/** Earlier, later, nearer, farther. */
function Steer({ onMove, onToday, onZoom }: SteerProps) {
  return (
    <div className={styles.steer}>
      <Button aria-label={words.earlier} onClick={() => onMove(-0.25)}>
        ‹
      </Button>
      <Button onClick={onToday}>{words.today}</Button>
      <Button aria-label={words.later} onClick={() => onMove(0.25)}>
        ›
      </Button>
      <Button aria-label={words.zoomOut} onClick={() => onZoom(1)}>
        −
      </Button>
      <Button aria-label={words.zoomIn} onClick={() => onZoom(-1)}>
        +
      </Button>
    </div>
  );
}
