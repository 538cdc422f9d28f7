import { Checkbox } from 'antd';
import { useState } from 'react';
import { dueText, type Due } from '../../shared/time';
import { Answers, Dialog } from '../../shared/ui/Dialog';
import { Loading } from '../../shared/ui/Loading';
import { Fault } from '../../shared/ui/Fault';
import { useTray } from '../../shared/ui/tray';
import { ByHand } from './ByHand';
import styles from './deadlines.module.css';
import { LookSum, LookTable } from './LookTable';
import {
  useMoveLook,
  useSetDeeds,
  type DeadlineSet,
  type Line,
  type Looks,
  type Move,
  type StepChange,
} from './queries';
import { StepMenu } from './StepMenu';
import { useKeyDate } from './useKeyDate';
import { AnswerField, answerOf, KeyDateField, MethodField, yesOf, type Answer } from './Wishes';
import { words } from './words';

interface Props {
  sets: DeadlineSet[];
  /** What is wished of single steps from the start. */
  steps?: StepChange[];
  onClose: () => void;
}

/** What somebody wishes of one set or of several; of several, that they are reckoned anew. */
function useWishes(sets: DeadlineSet[], first: StepChange[]) {
  const one = sets.length === 1 ? sets[0] : undefined;
  const keyDate = useKeyDate(one?.keyDate);
  const [method, setMethod] = useState(one?.method ?? '');
  const [answers, setAnswers] = useState<Record<string, Answer>>(() =>
    Object.fromEntries((one?.answers ?? []).map((it) => [it.question, answerOf(it.yes)])),
  );
  const [newest, setNewest] = useState(true);
  const [steps, setSteps] = useState<StepChange[]>(first);
  const say = (change: StepChange) =>
    setSteps((before) => [...before.filter((it) => it.step !== change.step), change]);
  const forget = (step: string) => setSteps((before) => before.filter((it) => it.step !== step));
  const moves: Move[] = sets.map((set) => ({
    set: set.id,
    ifMatch: set.tag,
    ...(newest && set.offer?.newerText && { newest: true }),
    ...(one && !one.follows && keyDate.isTouched && !keyDate.isWrong && { keyDate: keyDate.sent }),
    ...(one && method !== (one.method ?? '') && { method: method || null }),
    ...(one && {
      answers: one.answers
        .filter((it) => answers[it.question] !== answerOf(it.yes))
        .map((it) => ({ question: it.question, yes: yesOf(answers[it.question] ?? '') ?? null })),
    }),
    ...(steps.length > 0 && { steps }),
  }));
  return {
    one,
    keyDate,
    method,
    setMethod,
    answers,
    setAnswers,
    newest,
    setNewest,
    steps,
    say,
    forget,
    moves,
  };
}

/** Moves a key date, answers, chooses, reckons anew: looked at as one types, taken in one act. */
export function MoveDialog({ sets, steps = [], onClose }: Props) {
  const wishes = useWishes(sets, steps);
  const { one } = wishes;
  const look = useMoveLook(wishes.moves);
  const { move } = useSetDeeds();
  const tray = useTray();
  const [byHand, setByHand] = useState<Line | null>(null);
  const kept = (step: string) => wishes.steps.some((it) => it.step === step && it.keep);
  const changes = changed(look.data);
  const save = () =>
    move.mutate(wishes.moves, {
      onSuccess: (done) => {
        tray.tell({ text: words.moved(changes), act: done.act });
        onClose();
      },
    });
  return (
    <Dialog
      width={860}
      focus="key-date"
      title={one ? `${words.changeTitle}: ${words.label(one)}` : words.sets(sets.length)}
      onClose={onClose}
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        {one && <Fields set={one} wishes={wishes} keyDate={look.data?.sets[0]?.keyDate} />}
        {sets.some((set) => set.offer?.newerText) && (
          <Checkbox
            checked={wishes.newest}
            onChange={(event) => wishes.setNewest(event.target.checked)}
          >
            {words.newerText}
          </Checkbox>
        )}
        {look.isPending && <Loading what={words.lookLoading} />}
        {look.error && <Fault error={look.error} reads />}
        {look.data && <LookSum looks={look.data} />}
        {look.data?.sets.map((set) => (
          <div key={set.set}>
            {!one && (
              <h3 className={styles.part}>{words.label(sets.find((it) => it.id === set.set)!)}</h3>
            )}
            <LookTable
              look={set}
              take={
                one && {
                  of: (step) => !kept(step),
                  turn: (step) =>
                    kept(step) ? wishes.forget(step) : wishes.say({ step, keep: true }),
                }
              }
              more={
                one &&
                ((line) => (
                  <StepMenu
                    step={line.step}
                    standing={line.standing}
                    say={wishes.say}
                    onHand={() => setByHand(line)}
                  />
                ))
              }
            />
          </div>
        ))}
        <div className={styles.stay}>
          <Answers
            pending={move.isPending}
            error={move.error}
            onClose={onClose}
            save={words.takes(changes)}
          />
        </div>
      </form>
      {byHand && (
        <ByHand
          step={byHand.step}
          before={byHand.after ?? byHand.before}
          onClose={() => setByHand(null)}
          onSet={(date) => {
            wishes.say({ step: byHand.step, date });
            setByHand(null);
          }}
        />
      )}
    </Dialog>
  );
}

interface FieldsProps {
  set: DeadlineSet;
  wishes: ReturnType<typeof useWishes>;
  /** As it would be, where it follows work. */
  keyDate: Due | undefined;
}

/** What is said of one set as a whole. */
function Fields({ set, wishes, keyDate }: FieldsProps) {
  return (
    <div className={styles.wishes}>
      <KeyDateField
        name={set.keyDateName ?? ''}
        keyDate={wishes.keyDate}
        follows={set.follows && `${dueText(keyDate)} · ${words.follows}`}
      />
      {set.asksMethod && <MethodField value={wishes.method} onChange={wishes.setMethod} />}
      {set.answers.map(({ question }) => (
        <AnswerField
          key={question}
          question={question}
          value={wishes.answers[question] ?? ''}
          onChange={(answer) => wishes.setAnswers((it) => ({ ...it, [question]: answer }))}
        />
      ))}
    </div>
  );
}

/** How many deadlines it changes. */
function changed(looks: Looks | undefined): number {
  const lines = looks?.sets.flatMap((set) => set.lines) ?? [];
  return lines.filter((line) => dueText(line.before) !== dueText(line.after)).length;
}
