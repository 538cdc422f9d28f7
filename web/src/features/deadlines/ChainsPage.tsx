import { Button, Segmented, Upload } from 'antd';
import type { EditorView } from '@codemirror/view';
import { useRef, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { usePeople, useRoles, useTeams } from '../../shared/api/house';
import { addDays, dueText, today } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { useTray } from '../../shared/ui/tray';
import { ChainForm } from './ChainForm';
import { ChainText, mend, type Names } from './ChainText';
import styles from './deadlines.module.css';
import { MethodsDialog } from './MethodsDialog';
import { useChainDeeds, useChains, useMethods, useTrial, type Chain, type Trial } from './queries';
import { useKeyDate } from './useKeyDate';
import { AnswerField, KeyDateField, MethodField, yesOf, type Answer } from './Wishes';
import { words } from './words';

/** Chains, and the chosen one to be written. */
export function ChainsPage() {
  const chains = useChains();
  const { id } = useParams();
  const [methods, setMethods] = useState(false);
  const [brought, setBrought] = useState<string>();
  const navigate = useNavigate();
  const chosen =
    id === 'new'
      ? undefined
      : (chains.data?.find((one) => String(one.id) === id) ?? chains.data?.[0]);
  const isNew = id === 'new' || chains.data?.length === 0;
  return (
    <div className={styles.chains}>
      <nav className={styles.chainList} aria-label={words.chainsTitle}>
        <Link className={styles.link} to="/deadlines">
          ‹ {words.back}
        </Link>
        <h1>{words.chainsTitle}</h1>
        <ul>
          {chains.data?.map((one) => (
            <li key={one.id}>
              <Link
                to={`/deadlines/chains/${one.id}`}
                aria-current={!isNew && one.id === chosen?.id ? 'page' : undefined}
              >
                {one.name}
                <small>{words.version(one.version)}</small>
              </Link>
            </li>
          ))}
        </ul>
        <div className={styles.chainDeeds}>
          <Link className={styles.link} to="/deadlines/chains/new">
            + {words.newChain}
          </Link>
          <Upload
            accept=".txt,text/plain"
            showUploadList={false}
            beforeUpload={(file) => {
              void file.text().then((text) => {
                setBrought(text);
                void navigate('/deadlines/chains/new');
              });
              return false;
            }}
          >
            <Button type="text">{words.fromFile}</Button>
          </Upload>
          <Button type="text" onClick={() => setMethods(true)}>
            {words.methods}
          </Button>
        </div>
      </nav>
      {chains.isPending && <Loading what={words.loading} />}
      {chains.error && <Fault error={chains.error} reads />}
      {chains.data && (
        <Editor
          key={isNew ? (brought ?? 'new') : chosen?.id}
          chain={isNew ? undefined : chosen}
          begun={isNew ? brought : undefined}
        />
      )}
      {methods && <MethodsDialog onClose={() => setMethods(false)} />}
    </div>
  );
}

/** What a chain may name of this house, and in its own text as it is being written. */
function useNames(text: string, trial: Trial | undefined): Names {
  const people = usePeople();
  const teams = useTeams();
  const roles = useRoles();
  const methods = useMethods();
  const lines = text.split(/\r\n|\r|\n/);
  const header = (name: string) =>
    lines
      .map((line) => new RegExp(`^\\s*${name}\\s*:\\s*(.+?)\\s*$`, 'i').exec(line)?.[1])
      .find(Boolean);
  const steps = lines
    .map((line) => /^\s*(?:\d|on\b)[^:]*:\s*([^;]+)/i.exec(line)?.[1]?.trim())
    .filter((name) => name !== undefined);
  return {
    dates: [trial?.keyDate ?? header('key\\s+date'), ...steps].filter((name) => name !== undefined),
    holders: [
      ...(people.data ?? []).filter((one) => one.standing !== 'LEFT').map((one) => one.name),
      ...(teams.data ?? []).map((one) => one.name),
    ],
    roles: (roles.data ?? []).map((one) => one.name),
    methods: (methods.data?.methods ?? []).map((one) => one.name),
    questions: trial?.questions.length
      ? trial.questions
      : (header('ask') ?? '')
          .split(',')
          .map((one) => one.trim())
          .filter(Boolean),
  };
}

const SOME_DAYS = 56;

/** A text as it is being written, what it comes to, and what keeps it. */
function useEditor(chain: Chain | undefined, begun: string | undefined) {
  const [text, setText] = useState(chain?.text ?? begun ?? words.firstText);
  const [tag, setTag] = useState(chain?.tag ?? '');
  const [kept, setKept] = useState(chain?.text);
  // Some date, so that there is something to see.
  const [some] = useState(() => ({ at: `${addDays(today(), SOME_DAYS)}T08:00` }));
  const keyDate = useKeyDate(some);
  const [method, setMethod] = useState('');
  const [answers, setAnswers] = useState<Record<string, Answer>>({});
  const trial = useTrial({
    text,
    ...(chain && { chain: chain.id }),
    ...(keyDate.sent && { keyDate: keyDate.sent }),
    ...(method && { method }),
    answers: Object.entries(answers)
      .filter(([, answer]) => answer !== '')
      .map(([question, answer]) => ({ question, yes: yesOf(answer)! })),
  });
  const { add, revise, remove } = useChainDeeds();
  const navigate = useNavigate();
  const tray = useTray();
  const said = () => tray.tell({ text: words.chainSaved(trial.data?.name ?? '') });
  const save = () =>
    chain
      ? revise.mutate(
          { id: chain.id, tag, text },
          {
            onSuccess: () => {
              setKept(text);
              setTag('*');
              said();
            },
          },
        )
      : add.mutate(text, {
          onSuccess: ({ id }) => {
            said();
            void navigate(`/deadlines/chains/${id}`);
          },
        });
  return {
    text,
    setText,
    keyDate,
    method,
    setMethod,
    answers,
    setAnswers,
    trial: trial.data,
    isKept: text === kept,
    save,
    isSaving: add.isPending || revise.isPending,
    remove: () =>
      chain && remove.mutate(chain.id, { onSuccess: () => void navigate('/deadlines/chains') }),
    isRemoving: remove.isPending,
    error: add.error ?? revise.error ?? remove.error,
  };
}

interface EditorProps {
  chain: Chain | undefined;
  /** What a new one begins with. */
  begun: string | undefined;
}

function Editor({ chain, begun }: EditorProps) {
  const now = useEditor(chain, begun);
  const { text, setText, trial } = now;
  const [how, setHow] = useState<'text' | 'form'>('text');
  const view = useRef<EditorView>(null);
  const names = useNames(text, trial);
  const faults = trial?.faults ?? [];
  return (
    <>
      <section className={styles.writing} aria-label={words.chain}>
        <div className={styles.bar}>
          <h2>{trial?.name ?? chain?.name ?? words.newChain}</h2>
          <Segmented
            tabIndex={-1}
            aria-label={words.chain}
            value={how}
            options={[
              { value: 'text', label: words.chainText },
              { value: 'form', label: words.chainForm },
            ]}
            onChange={(value) => setHow(value as typeof how)}
          />
          <span className={styles.grow} />
          <Button type="text" onClick={() => window.print()}>
            {words.print}
          </Button>
          {chain && (
            <a className={styles.link} href={`/api/v1/chains/${chain.id}.txt`}>
              {words.textFile}
            </a>
          )}
          {chain && (
            <Button type="text" loading={now.isRemoving} onClick={now.remove}>
              {words.deleteChain}
            </Button>
          )}
          <Button
            type="primary"
            disabled={faults.length > 0 || now.isKept}
            loading={now.isSaving}
            onClick={now.save}
          >
            {words.saveChain}
          </Button>
        </div>
        {now.error && <Fault error={now.error} />}
        {/* The editor holds only the lines that are in sight. */}
        <pre className={styles.paper} aria-hidden>
          {text}
        </pre>
        {how === 'text' ? (
          <ChainText
            text={text}
            faults={faults}
            names={names}
            onChange={setText}
            onView={(made) => {
              view.current = made;
            }}
          />
        ) : (
          <ChainForm text={text} trial={trial} names={names} onChange={setText} />
        )}
        <Faults
          faults={faults}
          onMend={how === 'text' ? (fault) => view.current && mend(view.current, fault) : undefined}
        />
      </section>
      <Gives now={now} />
    </>
  );
}

/** The dates it would give, as one types; while it has faults those that it gave last. */
function Gives({ now }: { now: ReturnType<typeof useEditor> }) {
  const [last, setLast] = useState<Trial>();
  const isFaulty = now.trial !== undefined && now.trial.faults.length > 0;
  if (now.trial && !isFaulty && now.trial !== last) {
    setLast(now.trial);
  }
  const trial = isFaulty ? last : now.trial;
  return (
    <aside
      className={`${styles.gives} ${isFaulty ? styles.stale : ''}`}
      aria-label={words.wouldGive}
    >
      <h2>{words.wouldGive}</h2>
      <KeyDateField name={trial?.keyDate ?? words.tryDate} keyDate={now.keyDate} />
      {trial?.asksMethod && <MethodField value={now.method} onChange={now.setMethod} />}
      {trial?.questions.map((question) => (
        <AnswerField
          key={question}
          question={question}
          value={now.answers[question] ?? ''}
          onChange={(answer) => now.setAnswers((it) => ({ ...it, [question]: answer }))}
        />
      ))}
      <Dates trial={trial} />
    </aside>
  );
}

function Dates({ trial }: { trial: Trial | undefined }) {
  return (
    <ol className={styles.gave}>
      {trial?.dates.map((one) => (
        <li key={one.step}>
          <span className={styles.date}>{one.date ? dueText(one.date) : '–'}</span>
          <span>
            <strong>{one.step}</strong>
            <small>{one.sum ?? one.why}</small>
          </span>
        </li>
      ))}
    </ol>
  );
}

interface FaultsProps {
  faults: Trial['faults'];
  onMend?: (fault: Trial['faults'][number]) => void;
}

/** What is wrong with the text, with what mends it. */
function Faults({ faults, onMend }: FaultsProps) {
  return (
    <div className={styles.faults} role="status">
      {faults.length === 0 ? (
        <p className={styles.quiet}>{words.noFaults}</p>
      ) : (
        <ul>
          {faults.map((fault) => (
            <li key={`${fault.line} ${fault.column} ${fault.code}`}>
              <b>{words.faultAt(fault.line, fault.column)}</b> {fault.message}
              {fault.edit && onMend && (
                <Button size="small" onClick={() => onMend(fault)}>
                  {words.mend}
                </Button>
              )}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
