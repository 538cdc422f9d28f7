import { Button, Dropdown, Input, Modal, type InputRef } from 'antd';
import { useEffect, useEffectEvent, useRef, useState, type ReactNode } from 'react';
import { Link, NavLink, useLocation, useNavigate, useSearchParams } from 'react-router';
import { GoesOut, useGoesOut } from '../features/copies';
import { useReleases, useUndo } from '../features/records';
import { useSignOut, type Session } from '../features/session';
import { onSettled, settledSaid } from '../shared/api/acts';
import { eyes, lookWith, ProblemError } from '../shared/api/client';
import { LookDialog } from '../shared/look/LookDialog';
import { Mark } from '../shared/ui/Mark';
import { typeAhead, useKeys } from '../shared/ui/keys';
import { TrayContext, type Told } from '../shared/ui/tray';
import styles from './frame.module.css';
import { useLive } from './useLive';
import { useWhenIdle } from './useWhenIdle';
import type { useMode } from './useMode';
import { frameWords as words } from './words';

interface Props {
  session: Session;
  mode: ReturnType<typeof useMode>;
  mayMake: boolean;
  mayRule: boolean;
  children: ReactNode;
}

/** What was done here, and what of it was taken back; each the acts it took. */
interface Deeds {
  done: number[][];
  undone: number[][];
}

/** One slim bar, the page, and the tray along the bottom. */
export function Frame({ session, mode, mayMake, mayRule, children }: Props) {
  const [told, setTold] = useState<Told | null>(null);
  const [acts, setActs] = useState<Deeds>({ done: [], undone: [] });
  // Known at once, for a second key that comes before the page is drawn.
  const latest = useRef(acts);
  const keep = (next: Deeds) => {
    latest.current = next;
    setActs(next);
  };
  const line = useRef<Promise<void>>(Promise.resolve());
  const whenIdle = useWhenIdle();
  const [keys, setKeys] = useState(false);
  const navigate = useNavigate();
  const location = useLocation();
  const make = () => {
    const open = document.getElementById('line');
    if (open) {
      open.focus();
      return;
    }
    typeAhead();
    // What stands beside the form stays as it was.
    const onBoard = location.pathname === '/board';
    const query = new URLSearchParams(
      onBoard || location.pathname.startsWith('/records') ? location.search : '',
    );
    if (onBoard) {
      ['edit', 'draft'].forEach((name) => query.delete(name));
      query.set('record', 'new');
    }
    const text = query.toString();
    void navigate((onBoard ? '/board' : '/records/new') + (text ? '?' + text : ''));
  };
  const find = useRef<InputRef>(null);
  const undo = useUndo();
  const waiting = useReleases(mayMake).data?.length ?? 0;
  const goesOut = useGoesOut(!eyes());
  useLive();

  const tell = (what: Told) => {
    setTold(what);
    const deed = what.acts ?? (what.act != null ? [what.act] : []);
    if (deed.length > 0) {
      keep({ done: [...latest.current.done, deed], undone: [] });
    }
  };
  const tellOfSettled = useEffectEvent(tell);
  useEffect(
    () => onSettled(({ act, kind }) => tellOfSettled({ text: settledSaid(kind), act })),
    [],
  );
  /** What was taken back is an act too: taking that back does it again. */
  const takeBack = async (again: boolean) => {
    const [from, to] = again ? (['undone', 'done'] as const) : (['done', 'undone'] as const);
    const deed = latest.current[from].at(-1);
    if (!deed) {
      return;
    }
    const left = new Set<string>();
    const taken: number[] = [];
    try {
      for (const act of [...deed].reverse()) {
        const answer = await undo.mutateAsync(act);
        (answer.leaves ?? []).forEach((one) => left.add(one));
        taken.push(answer.act);
      }
      const said = again ? words.doneAgain : words.takenBack;
      setTold({ text: left.size > 0 ? words.left + [...left].join(', ') : said });
    } catch (error) {
      setTold({ text: error instanceof ProblemError ? error.message : words.failed });
    }
    if (taken.length > 0) {
      // What could not be taken back, of several, can be tried again.
      const rest = deed.slice(0, deed.length - taken.length);
      const others = latest.current[from].filter((one) => one !== deed);
      keep({
        ...latest.current,
        [from]: rest.length > 0 ? [...others, rest] : others,
        [to]: [...latest.current[to], taken],
      });
    }
  };
  const inTurn = (again: boolean) => {
    line.current = line.current
      .then(() => new Promise<void>((ready) => whenIdle(ready)))
      .then(() => takeBack(again));
  };
  const undoLast = () => inTurn(false);
  const redoLast = () => inTurn(true);
  useKeys({
    '/': () => find.current?.focus(),
    'g t': () => void navigate(mayMake ? '/today' : '/my-day'),
    'g b': () => void navigate('/board'),
    'g r': () => void navigate('/records'),
    ...(mayMake && { 'g v': () => void navigate('/cover') }),
    ...(mayRule && {
      'g l': () => void navigate('/rules'),
      'g w': () => void navigate('/who-sees-what'),
    }),
    'g o': () => void navigate('/copies'),
    'g p': () => void navigate('/crew'),
    z: undoLast,
    Z: redoLast,
    '?': () => setKeys(true),
    ...(mayMake && { n: make }),
  });

  return (
    <TrayContext.Provider value={{ tell }}>
      <div className={styles.frame}>
        <a className={styles.skip} href="#page">
          {words.skip}
        </a>
        <header className={styles.bar}>
          <Mark />
          <nav aria-label="Pages" className={styles.pages}>
            {mayMake ? <Page to="/today" name="Today" /> : <Page to="/my-day" name="My day" />}
            <Page to="/board" name="Board" />
            <Page to="/records" name="Records" />
            {mayMake && !eyes() && <Page to="/cover" name="Cover" />}
            {mayRule && <Page to="/rules" name="Rules" />}
            {mayRule && <Page to="/who-sees-what" name="Who sees what" />}
            {!eyes() && <Page to="/copies" name="Copies" />}
            <Page to="/crew" name="Crew" />
          </nav>
          <span className={styles.grow} />
          <FindBox inputRef={find} />
          <PersonMenu session={session} mode={mode} onKeys={() => setKeys(true)} />
        </header>
        {eyes() && (
          <div className={styles.eyes} role="status">
            <span>{words.asSeenBy(session.name ?? '')}</span>
            <span className={styles.grow} />
            <Button size="small" onClick={() => lookWith(null)}>
              {words.ownEyes}
            </Button>
          </div>
        )}
        <main id="page" className={styles.page} tabIndex={-1}>
          <LookDialog>{children}</LookDialog>
        </main>
        {(told || waiting > 0 || goesOut) && (
          <div className={styles.tray} role="status">
            {told && <span className={styles.dot} aria-hidden="true" />}
            {told && <span>{told.text}</span>}
            <span className={styles.grow} />
            {waiting > 0 && (
              <Link className={styles.waiting} to="/today#waiting">
                {words.waiting(waiting)}
              </Link>
            )}
            {goesOut && <GoesOut waiting={goesOut} />}
            {acts.undone.length > 0 && (
              <Button onClick={redoLast} loading={undo.isPending}>
                {words.redo}
              </Button>
            )}
            {acts.done.length > 0 && (
              <Button onClick={undoLast} loading={undo.isPending}>
                {words.undo}
              </Button>
            )}
            {told && (
              <Button type="text" onClick={() => setTold(null)}>
                {words.close}
              </Button>
            )}
          </div>
        )}
        <Modal open={keys} title={words.keys} footer={null} onCancel={() => setKeys(false)}>
          <dl className={styles.keys}>
            {words.keyList.map(([key, what]) => (
              <div key={key}>
                <dt>
                  <kbd>{key}</kbd>
                </dt>
                <dd>{what}</dd>
              </div>
            ))}
          </dl>
        </Modal>
      </div>
    </TrayContext.Provider>
  );
}

function Page({ to, name }: { to: string; name: string }) {
  return (
    <NavLink to={to} className={({ isActive }) => (isActive ? styles.here : styles.there)}>
      {name}
    </NavLink>
  );
}

function FindBox({ inputRef }: { inputRef: React.RefObject<InputRef | null> }) {
  const navigate = useNavigate();
  const [search] = useSearchParams();
  const asked = search.get('find') ?? '';
  const [text, setText] = useState(asked);
  useEffect(() => setText(asked), [asked]);
  return (
    <form
      role="search"
      onSubmit={(event) => {
        event.preventDefault();
        const query = new URLSearchParams({ state: 'all' });
        if (text.trim()) {
          query.set('find', text.trim());
        }
        void navigate('/records?' + query.toString());
        inputRef.current?.blur();
      }}
    >
      <Input
        ref={inputRef}
        className={styles.find}
        aria-label={words.find}
        placeholder={words.find}
        value={text}
        maxLength={200}
        suffix={<kbd className={styles.kbd}>/</kbd>}
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => event.key === 'Escape' && inputRef.current?.blur()}
      />
    </form>
  );
}

function PersonMenu({
  session,
  mode,
  onKeys,
}: {
  session: Session;
  mode: ReturnType<typeof useMode>;
  onKeys: () => void;
}) {
  const navigate = useNavigate();
  const signOut = useSignOut();
  const initials = (session.name ?? '')
    .split(' ')
    .map((part) => part[0])
    .join('')
    .slice(0, 2);
  return (
    <Dropdown
      trigger={['click']}
      menu={{
        items: [
          { key: 'account', label: words.account, onClick: () => void navigate('/account') },
          { key: 'mode', label: words.turn(mode.mode), onClick: mode.turn },
          { key: 'keys', label: words.keys, onClick: onKeys },
          { key: 'out', label: words.signOut, onClick: () => signOut.mutate() },
        ],
      }}
    >
      <button type="button" className={styles.person} aria-label={`${session.name}: menu`}>
        {initials}
      </button>
    </Dropdown>
  );
}
