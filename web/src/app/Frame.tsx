import { AutoComplete, Button, Dropdown, Input, Modal, type InputRef } from 'antd';
import {
  useDeferredValue,
  useEffect,
  useRef,
  useState,
  type KeyboardEvent,
  type ReactNode,
} from 'react';
import { Link, NavLink, useLocation, useNavigate, useSearchParams } from 'react-router';
import { GoesOut, useGoesOut } from '../features/copies';
import { useReading, useReleases } from '../features/records';
import { useSignOut, type Session } from '../features/session';
import { eyes, lookWith, type Schemas } from '../shared/api/client';
import { takesWork, usePeople } from '../shared/api/house';
import { LookDialog } from '../shared/look/LookDialog';
import { Mark } from '../shared/ui/Mark';
import { typeAhead, useKeys } from '../shared/ui/keys';
import { TrayContext } from '../shared/ui/tray';
import styles from './frame.module.css';
import { page } from './page';
import { ReasonDialog } from './ReasonDialog';
import { sections, whereIs, type Section } from './sections';
import { useLive } from './useLive';
import { whoIsSick } from './sick';
import { useDeeds } from './useDeeds';
import type { useMode } from './useMode';
import { frameWords as words } from './words';

const Followers = page(async () => (await import('../features/deadlines/Followers')).Followers);
const SickDialog = page(async () => (await import('../features/crew/SickDialog')).SickDialog);

interface Props {
  session: Session;
  mode: ReturnType<typeof useMode>;
  mayMake: boolean;
  mayRule: boolean;
  children: ReactNode;
}

/** One slim bar, the page, and the tray along the bottom. */
export function Frame({ session, mode, mayMake, mayRule, children }: Props) {
  const deeds = useDeeds();
  const [keys, setKeys] = useState(false);
  const navigate = useNavigate();
  const make = useMake();
  const sick = useSick();
  const find = useRef<InputRef>(null);
  useLive();
  const all = sections({ make: mayMake, rule: mayRule, own: !eyes() });
  const here = whereIs(useLocation().pathname, all);

  useKeys({
    '/': () => find.current?.focus(),
    'g t': () => void navigate(mayMake ? '/today' : '/my-day'),
    'g b': () => void navigate('/board'),
    'g r': () => void navigate('/records'),
    ...(mayMake && {
      'g d': () => void navigate('/deadlines'),
      'g v': () => void navigate('/cover'),
    }),
    ...(mayRule && {
      'g l': () => void navigate('/rules'),
      'g w': () => void navigate('/who-sees-what'),
    }),
    'g c': () => void navigate('/calendars'),
    'g o': () => void navigate('/copies'),
    'g p': () => void navigate('/crew'),
    z: deeds.undo,
    Z: deeds.redo,
    '?': () => setKeys(true),
    ...(mayMake && { n: make, k: () => sick.report() }),
  });

  return (
    <TrayContext.Provider value={{ tell: deeds.tell }}>
      <title>{words.title(here?.page.name)}</title>
      <div className={styles.frame}>
        <a className={styles.skip} href="#page">
          {words.skip}
        </a>
        <header className={styles.bar}>
          <Mark />
          <SectionList all={all} open={here?.section} />
          <span className={styles.grow} />
          <FindBox inputRef={find} onSick={mayMake ? sick.report : undefined} />
          <PersonMenu session={session} mode={mode} onKeys={() => setKeys(true)} />
        </header>
        {here && here.section.pages.length > 1 && <PageList section={here.section} />}
        {eyes() && <Eyes name={session.name ?? ''} />}
        <main id="page" className={styles.page} tabIndex={-1}>
          <LookDialog>{children}</LookDialog>
        </main>
        <TrayBar deeds={deeds} mayMake={mayMake} />
        {mayMake && sick.open && <SickDialog person={sick.person} onClose={sick.close} />}
        {mayRule && !eyes() && <Followers />}
        <ReasonDialog />
        <KeyList open={keys} onClose={() => setKeys(false)} />
      </div>
    </TrayContext.Provider>
  );
}

/** Who is reported sick, by the address, so that any page leads to it. */
function useSick() {
  const [search, setSearch] = useSearchParams();
  const asked = search.get('sick');
  const to = (who: string | null) =>
    setSearch((before) => {
      const next = new URLSearchParams(before);
      next.delete('sick');
      if (who !== null) {
        next.set('sick', who);
      }
      return next;
    });
  return {
    open: asked !== null,
    person: asked ? Number(asked) : undefined,
    report: (person?: number) => {
      // What a fast hand types meanwhile starts nothing else.
      typeAhead();
      to(person === undefined ? '' : String(person));
    },
    close: () => to(null),
  };
}

/** Opens the form of a new record, beside what stands there. */
function useMake() {
  const navigate = useNavigate();
  const location = useLocation();
  return () => {
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
}

/** The sections, and under them the pages of the one that is open. */
function SectionList({ all, open }: { all: Section[]; open?: Section }) {
  return (
    <nav aria-label={words.sections} className={styles.pages}>
      {all.map((one) => (
        <Link
          key={one.name}
          to={one.pages[0]!.to}
          className={one === open ? styles.here : styles.there}
          aria-current={one === open ? (one.pages.length > 1 ? 'true' : 'page') : undefined}
        >
          {one.name}
        </Link>
      ))}
    </nav>
  );
}

function PageList({ section }: { section: Section }) {
  return (
    <nav aria-label={section.name} className={styles.subpages}>
      {section.pages.map((one) => (
        <NavLink
          key={one.to}
          to={one.to}
          className={({ isActive }) => (isActive ? styles.here : styles.there)}
        >
          {one.name}
        </NavLink>
      ))}
    </nav>
  );
}

/** Whose eyes somebody looks with. */
function Eyes({ name }: { name: string }) {
  return (
    <div className={styles.eyes} role="status">
      <span>{words.asSeenBy(name)}</span>
      <span className={styles.grow} />
      <Button size="small" onClick={() => lookWith(null)}>
        {words.ownEyes}
      </Button>
    </div>
  );
}

function TrayBar({ deeds, mayMake }: { deeds: ReturnType<typeof useDeeds>; mayMake: boolean }) {
  const waiting = useReleases(mayMake).data?.length ?? 0;
  const goesOut = useGoesOut(!eyes());
  const { told, acts, pending } = deeds;
  if (!told && waiting === 0 && !goesOut) {
    return null;
  }
  return (
    <div className={styles.tray} role="status">
      {told && <span className={styles.dot} aria-hidden="true" />}
      {told && <span>{told.text}</span>}
      <span className={styles.grow} />
      {waiting > 0 && (
        <Link className={styles.waiting} to="/today?open=waiting">
          {words.waiting(waiting)}
        </Link>
      )}
      {goesOut && <GoesOut waiting={goesOut} />}
      {acts.undone.length > 0 && (
        <Button onClick={deeds.redo} loading={pending}>
          {words.redo}
        </Button>
      )}
      {acts.done.length > 0 && (
        <Button onClick={deeds.undo} loading={pending}>
          {words.undo}
        </Button>
      )}
      {told && (
        <Button type="text" onClick={deeds.close}>
          {words.close}
        </Button>
      )}
    </div>
  );
}

function KeyList({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Modal open={open} title={words.keys} footer={null} onCancel={onClose}>
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
  );
}

/** The line with its last words gone on with. */
const completions = (line: string, on?: Schemas['FindOffer']) =>
  (on?.choices ?? []).map((choice) => ({
    value: line.slice(0, on?.from) + choice.text + ' ',
    label: choice.name,
  }));

function FindBox({
  inputRef,
  onSick,
}: {
  inputRef: React.RefObject<InputRef | null>;
  /** For who may note it. */
  onSick?: (person: number) => void;
}) {
  const navigate = useNavigate();
  const people = usePeople();
  const [search] = useSearchParams();
  const asked = search.get('find') ?? '';
  const [text, setText] = useState(asked);
  useEffect(() => setText(asked), [asked]);
  const reading = useReading(useDeferredValue(text));
  /** Whether somebody moved to a completion: Enter takes none that only came to lie under it. */
  const moved = useRef(false);
  const type = (line: string) => {
    moved.current = false;
    setText(line);
  };
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'Escape') {
      inputRef.current?.blur();
    } else if (event.key === 'Enter' && !moved.current) {
      event.stopPropagation();
    } else if (event.key.startsWith('Arrow')) {
      moved.current = true;
    }
  };
  const find = () => {
    const sick = onSick && whoIsSick(text, (people.data ?? []).filter(takesWork));
    if (sick) {
      setText(asked);
      onSick(sick.id);
      return;
    }
    const query = new URLSearchParams({ state: 'all' });
    if (text.trim()) {
      query.set('find', text.trim());
    }
    void navigate('/records?' + query.toString());
    inputRef.current?.blur();
  };
  return (
    <form
      role="search"
      onSubmit={(event) => {
        event.preventDefault();
        find();
      }}
    >
      <AutoComplete
        value={text}
        options={text === asked ? [] : completions(text, reading.data?.completions)}
        defaultActiveFirstOption={false}
        onChange={type}
      >
        <Input
          ref={inputRef}
          className={styles.find}
          aria-label={words.find}
          placeholder={words.find}
          maxLength={200}
          suffix={<kbd className={styles.kbd}>/</kbd>}
          onKeyDown={onKey}
        />
      </AutoComplete>
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
