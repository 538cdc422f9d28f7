import { Input } from 'antd';
import { Choice } from '../../shared/ui/Choice';
import styles from './deadlines.module.css';
import { useMethods } from './queries';
import type { useKeyDate } from './useKeyDate';
import { words } from './words';

interface KeyDateProps {
  name: string;
  keyDate: ReturnType<typeof useKeyDate>;
  follows?: string;
}

/** The key date, typed. */
export function KeyDateField({ name, keyDate, follows }: KeyDateProps) {
  return (
    <label className={styles.wish}>
      <span>{name || words.keyDate}</span>
      {follows !== undefined ? (
        <span className={styles.given}>{follows}</span>
      ) : (
        <>
          <Input
            id="key-date"
            value={keyDate.text}
            status={keyDate.isWrong ? 'error' : undefined}
            placeholder={words.keyDateHint}
            onChange={(event) => keyDate.setText(event.target.value)}
          />
          {keyDate.isWrong && <small className={styles.warn}>{words.notADate}</small>}
        </>
      )}
    </label>
  );
}

interface MethodProps {
  value: string;
  onChange: (method: string) => void;
}

/** Which way notices go out. */
export function MethodField({ value, onChange }: MethodProps) {
  const methods = useMethods();
  return (
    <label className={styles.wish}>
      <span>{words.method}</span>
      <Choice
        aria-label={words.method}
        value={value}
        options={[
          { value: '', label: words.methodNone },
          ...(methods.data?.methods ?? []).map(({ name }) => ({ value: name, label: name })),
        ]}
        onChange={onChange}
      />
    </label>
  );
}

export type Answer = 'yes' | 'no' | '';

interface AnswerProps {
  question: string;
  value: Answer;
  onChange: (answer: Answer) => void;
}

/** A question of the chain, and what was answered. */
export function AnswerField({ question, value, onChange }: AnswerProps) {
  return (
    <label className={styles.wish}>
      <span>{question}?</span>
      <Choice
        aria-label={question}
        value={value}
        options={[
          { value: '', label: words.unanswered },
          { value: 'yes', label: words.yes },
          { value: 'no', label: words.no },
        ]}
        onChange={(answer) => onChange(answer as Answer)}
      />
    </label>
  );
}

export const answerOf = (yes: boolean | null | undefined): Answer =>
  yes == null ? '' : yes ? 'yes' : 'no';

export const yesOf = (answer: Answer) => (answer === '' ? undefined : answer === 'yes');
