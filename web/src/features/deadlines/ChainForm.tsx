import { Button, Input, InputNumber } from 'antd';
import { useState, type ReactNode } from 'react';
import { useStepLine } from './queries';
import { choices } from '../../shared/words';
import { Choice } from '../../shared/ui/Choice';
import { Fault } from '../../shared/ui/Fault';
import type { Names } from './ChainText';
import styles from './deadlines.module.css';
import { headerOf, linesOf, withHeader, withLine, withoutLine } from './chainLines';
import type { ChainStep, Trial } from './queries';
import { words } from './words';

interface Props {
  text: string;
  trial: Trial | undefined;
  names: Names;
  onChange: (text: string) => void;
}

/** The same text, written by picking; what the form does not touch stays as it was typed. */
export function ChainForm({ text, trial, names, onChange }: Props) {
  const [open, setOpen] = useState<number | null>(null);
  const steps = linesOf(text);
  const isRead = trial !== undefined && trial.faults.length === 0;
  return (
    <div className={styles.form}>
      <Header label={words.chain} name="chain" text={text} onChange={onChange} />
      <Header label={words.keyDate} name="key date" text={text} onChange={onChange} />
      <Header label={words.questionsHint} name="ask" text={text} onChange={onChange} />
      <ol className={styles.formSteps}>
        {steps.map((line, index) =>
          open === index && isRead && trial.steps[index] ? (
            <li key={index}>
              <StepForm
                before={trial.steps[index]}
                names={names}
                onCancel={() => setOpen(null)}
                onLine={(spelled) => {
                  onChange(withLine(text, line.at, spelled));
                  setOpen(null);
                }}
              />
            </li>
          ) : (
            <li key={index} className={styles.formLine}>
              <span>{line.text}</span>
              <Button size="small" disabled={!isRead} onClick={() => setOpen(index)}>
                {words.changeStep}
              </Button>
              <Button size="small" onClick={() => onChange(withoutLine(text, line.at))}>
                {words.removeStep}
              </Button>
            </li>
          ),
        )}
        {open === steps.length ? (
          <li>
            <StepForm
              names={names}
              onCancel={() => setOpen(null)}
              onLine={(spelled) => {
                onChange(withLine(text, null, spelled));
                setOpen(null);
              }}
            />
          </li>
        ) : (
          <li>
            <Button onClick={() => setOpen(steps.length)}>{words.addStep}</Button>
          </li>
        )}
      </ol>
    </div>
  );
}

interface HeaderProps {
  label: string;
  name: string;
  text: string;
  onChange: (text: string) => void;
}

function Header({ label, name, text, onChange }: HeaderProps) {
  return (
    <label className={styles.wish}>
      <span>{label}</span>
      <Input
        value={headerOf(text, name)}
        onChange={(event) => onChange(withHeader(text, name, event.target.value))}
      />
    </label>
  );
}

type When = 'on' | 'BEFORE' | 'AFTER';

/** What a form of a step begins with. */
function begun(before: ChainStep | undefined, names: Names): ChainStep {
  return (
    before ?? {
      name: '',
      number: 5,
      unit: 'WORKING_DAYS',
      side: 'BEFORE',
      from: names.dates[0] ?? '',
      who: [],
      reminders: [],
      conditions: [],
    }
  );
}

interface StepProps {
  before?: ChainStep;
  names: Names;
  onLine: (line: string) => void;
  onCancel: () => void;
}

function StepForm({ before, names, onLine, onCancel }: StepProps) {
  const [step, setStep] = useState<ChainStep>(() => begun(before, names));
  const line = useStepLine();
  const set = (some: Partial<ChainStep>) => setStep((now) => ({ ...now, ...some }));
  const when: When = step.side ?? 'on';
  const save = () => line.mutate(step, { onSuccess: (told) => onLine(told.line) });
  return (
    <div className={styles.stepForm}>
      <WhenRow step={step} names={names} set={set} own={before?.name} />
      <div className={styles.stepRow}>
        <Labelled name={words.step}>
          <Input
            autoFocus
            maxLength={80}
            value={step.name}
            onChange={(event) => set({ name: event.target.value })}
          />
        </Labelled>
        <Labelled name={words.atTime}>
          <Input
            placeholder="09:00"
            value={step.at ?? ''}
            onChange={(event) => set({ at: event.target.value || undefined })}
          />
        </Labelled>
        <Labelled name={words.rolls}>
          <Choice
            aria-label={words.rolls}
            value={step.roll ?? ''}
            options={choices(words.rollNames)}
            onChange={(roll) => set({ roll: roll === '' ? undefined : roll })}
          />
        </Labelled>
        {when !== 'on' && (
          <Labelled name={words.method}>
            <Choice
              aria-label={words.method}
              value={step.chosenMethod ? words.chosenMethod : (step.method ?? '')}
              options={['', words.chosenMethod, ...names.methods].map((name) => ({
                value: name,
                label: name || '–',
              }))}
              onChange={(name) =>
                set(
                  name === words.chosenMethod
                    ? { chosenMethod: true, method: undefined }
                    : { chosenMethod: undefined, method: name || undefined },
                )
              }
            />
          </Labelled>
        )}
      </div>
      <Whom step={step} names={names} set={set} />
      {line.error && <Fault error={line.error} />}
      <div className={styles.answers}>
        <Button
          type="primary"
          loading={line.isPending}
          disabled={!step.name.trim() || !step.from}
          onClick={save}
        >
          {before ? words.takeStep : words.addStep}
        </Button>
        <Button onClick={onCancel}>{words.close}</Button>
      </div>
    </div>
  );
}

interface WhenProps extends WhomProps {
  /** What the step is called: nothing counts from itself. */
  own: string | undefined;
}

/** When it is: so much before or after what. */
function WhenRow({ step, names, set, own }: WhenProps) {
  const when: When = step.side ?? 'on';
  return (
    <>
      <div className={styles.stepRow}>
        {when !== 'on' && (
          <>
            <InputNumber
              aria-label={words.number}
              min={0}
              max={9999}
              value={step.number}
              onChange={(number) => set({ number: number ?? 0 })}
            />
            <Choice
              aria-label={words.unit}
              value={step.unit}
              options={choices(words.units)}
              onChange={(unit) => set({ unit })}
            />
          </>
        )}
        <Choice
          aria-label={words.side}
          value={when}
          options={choices(words.sides)}
          onChange={(side) => set(side === 'on' ? ON_THE_DAY : sided(step, side))}
        />
        <Choice
          aria-label={words.from}
          value={step.from}
          options={names.dates
            .filter((name) => name !== own)
            .map((name) => ({ value: name, label: name }))}
          onChange={(from) => set({ from })}
        />
      </div>
    </>
  );
}

/** A step on the day itself counts nothing and asks for no method. */
const ON_THE_DAY: Partial<ChainStep> = {
  number: undefined,
  unit: undefined,
  side: undefined,
  method: undefined,
  chosenMethod: undefined,
};

const sided = (step: ChainStep, side: 'BEFORE' | 'AFTER'): Partial<ChainStep> => ({
  side,
  number: step.number ?? 1,
  unit: step.unit ?? 'WORKING_DAYS',
});

interface WhomProps {
  step: ChainStep;
  names: Names;
  set: (some: Partial<ChainStep>) => void;
}

/** For whom it is, when they are reminded, and on which answer it depends; the first of each. */
function Whom({ step, names, set }: WhomProps) {
  const who = step.who[0];
  const reminder = step.reminders[0];
  const condition = step.conditions[0];
  return (
    <div className={styles.stepRow}>
      <Labelled name={words.people}>
        <Choice
          aria-label={words.people}
          value={who ? (who.holding ? `the ${who.name}` : who.name) : ''}
          options={[
            { value: '', label: words.theLead },
            ...names.roles.map((name) => ({ value: `the ${name}`, label: `the ${name}` })),
            ...names.holders.map((name) => ({ value: name, label: name })),
          ]}
          onChange={(value) => set({ who: [...whom(value, names), ...step.who.slice(1)] })}
        />
      </Labelled>
      {who && !who.holding && (
        <Labelled name={words.asRole}>
          <Choice
            aria-label={words.asRole}
            value={who.as ?? ''}
            options={names.roles.map((name) => ({ value: name, label: name }))}
            onChange={(as) => set({ who: [{ ...who, as }, ...step.who.slice(1)] })}
          />
        </Labelled>
      )}
      <Labelled name={words.remindDays}>
        <InputNumber
          min={0}
          max={9999}
          disabled={reminder !== undefined && reminder.unit !== 'WORKING_DAYS'}
          value={reminder?.number}
          onChange={(number) =>
            set({
              reminders: [
                ...(number === null ? [] : [{ number, unit: 'WORKING_DAYS' as const }]),
                ...step.reminders.slice(1),
              ],
            })
          }
        />
      </Labelled>
      {names.questions.length > 0 && (
        <Labelled name={words.onlyIf}>
          <Choice
            aria-label={words.onlyIf}
            value={condition ? `${condition.wanted} ${condition.question}` : ''}
            options={[
              { value: '', label: '–' },
              ...names.questions.flatMap((question) => [
                { value: `true ${question}`, label: words.ifYes(question) },
                { value: `false ${question}`, label: words.ifNo(question) },
              ]),
            ]}
            onChange={(value) => set({ conditions: conditions(value, step) })}
          />
        </Labelled>
      )}
    </div>
  );
}

function whom(value: string, names: Names): ChainStep['who'] {
  if (value === '') {
    return [];
  }
  const role = names.roles.find((name) => value === `the ${name}`);
  return role
    ? [{ holding: true, name: role }]
    : [{ holding: false, name: value, as: names.roles[0] }];
}

function conditions(value: string, step: ChainStep): ChainStep['conditions'] {
  const rest = step.conditions.slice(1);
  if (value === '') {
    return rest;
  }
  const space = value.indexOf(' ');
  return [{ wanted: value.startsWith('true'), question: value.slice(space + 1) }, ...rest];
}

function Labelled({ name, children }: { name: string; children: ReactNode }) {
  return (
    <label className={styles.wish}>
      <span>{name}</span>
      {children}
    </label>
  );
}
