import { Button, Checkbox, Input, Radio } from 'antd';
import { Conditions } from './Conditions';
import {
  joined,
  musts,
  remindersText,
  targetsText,
  type Condition,
  type Rule,
  type Wording,
} from './model';
import type { World } from './queries';
import { Reminders } from './Reminders';
import styles from './rules.module.css';
import { Targets } from './Targets';
import { stepKeys, Steps } from './Steps';
import { Token } from './Token';
import { choices, worded } from '../../shared/words';
import { words } from './words';

interface Props {
  rule: Rule;
  number: number;
  count: { entries: number; calendars: number } | null;
  wordings: Wording[];
  world: World;
  chosen: boolean;
  onChoose: () => void;
  onChange: (rule: Rule) => void;
  onCopy: () => void;
  onRemove: () => void;
  onMove: (step: number) => void;
  drag: { onStart: () => void; onOver: () => void; onEnd: () => void };
}

/** One rule as a sentence; each word of it that can be otherwise opens where it stands. */
export function RuleRow(props: Props) {
  const { rule, number, count, chosen } = props;
  return (
    <li
      className={[styles.row, chosen ? styles.chosen : '', rule.on ? '' : styles.off].join(' ')}
      aria-label={words.rule(number)}
      tabIndex={-1}
      onFocus={props.onChoose}
      onClick={props.onChoose}
      onDragOver={(event) => {
        event.preventDefault();
        props.drag.onOver();
      }}
      onKeyDown={stepKeys(props.onMove)}
    >
      <span
        className={styles.number}
        draggable
        onDragStart={props.drag.onStart}
        onDragEnd={props.drag.onEnd}
      >
        {number}
      </span>
      <div className={styles.sentence}>
        <Sentence {...props} />
        {chosen ? <Tools {...props} /> : rule.note && <p className={styles.note}>{rule.note}</p>}
      </div>
      <div className={styles.count}>
        {!rule.on ? (
          words.off
        ) : count ? (
          <>
            <strong>{words.entries(count.entries)}</strong>
            <span>{words.onCalendars(count.calendars)}</span>
          </>
        ) : (
          words.notYet
        )}
      </div>
    </li>
  );
}

/** A word of the sentence that is one of some. */
function OneOf<T extends string>({
  label,
  value,
  options,
  boxed,
  onChange,
}: {
  label: string;
  value: T;
  options: Readonly<Record<T, string>>;
  boxed: boolean;
  onChange: (value: T) => void;
}) {
  return (
    <Token text={options[value] ?? '…'} label={label} boxed={boxed}>
      <Radio.Group
        className={styles.checks}
        value={value}
        options={choices(options)}
        onChange={(event) => onChange(event.target.value as T)}
      />
    </Token>
  );
}

function Sentence({ rule, wordings, world, chosen, onChange }: Props) {
  const conditions = musts(rule);
  const kind = conditions.find((c) => c.kind);
  const others = conditions.filter((c) => c !== kind);
  const setOthers = (parts: typeof conditions) =>
    onChange({ ...rule, when: { all: [...(kind ? [kind] : []), ...parts] } });
  const setKind = (kinds: NonNullable<Condition['kind']>) =>
    onChange({
      ...rule,
      when: { all: [...(kinds.length > 0 ? [{ kind: kinds }] : []), ...others] },
    });
  const wordingNames: Record<string, string> = {
    '0': words.usual,
    ...Object.fromEntries(wordings.map((w) => [String(w.id), w.name])),
  };
  return (
    <p>
      {kind && `${words.a} `}
      <Token
        text={
          kind
            ? joined(
                (kind.kind ?? []).map((k) => worded(words.kinds, k)),
                words.or,
              )
            : words.anyWork
        }
        label={words.which}
        boxed={chosen}
      >
        <Checkbox.Group
          className={styles.checks}
          value={kind?.kind ?? []}
          options={choices(words.kinds)}
          onChange={setKind}
        />
      </Token>
      {(others.length > 0 || chosen) && ' '}
      {others.length > 0 && `${words.that} `}
      <Conditions
        parts={others}
        world={world}
        boxed={chosen}
        join={words.and}
        adds={words.add}
        onChange={setOthers}
      />{' '}
      {words.lands}{' '}
      <Token
        text={targetsText(rule.lands, world.names)}
        label={words.lands}
        boxed={chosen}
        begin={chosen && rule.id === undefined && rule.lands.length === 0}
      >
        <Targets
          targets={rule.lands}
          world={world}
          onChange={(lands) => onChange({ ...rule, lands })}
        />
      </Token>{' '}
      {words.as}{' '}
      <OneOf
        label={words.as}
        value={rule.as}
        options={words.shapes}
        boxed={chosen}
        onChange={(as) => onChange({ ...rule, as })}
      />
      , {words.worded}{' '}
      <OneOf
        label={words.worded}
        value={String(rule.wording ?? 0)}
        options={wordingNames}
        boxed={chosen}
        onChange={(wording) =>
          onChange({ ...rule, wording: wording === '0' ? undefined : Number(wording) })
        }
      />
      <Extras {...{ rule, chosen, onChange }} />; {words.whenDone}{' '}
      <OneOf
        label={words.whenDone}
        value={rule.whenDone}
        options={words.done}
        boxed={chosen}
        onChange={(whenDone) => onChange({ ...rule, whenDone })}
      />
      .
    </p>
  );
}

/** What most rules leave as it is; all of it stands there where the rule is chosen. */
function Extras({ rule, chosen, onChange }: Pick<Props, 'rule' | 'chosen' | 'onChange'>) {
  const reminders = rule.reminders ?? [];
  const invites = rule.attendees === 'NOBODY' ? '' : (rule.attendees ?? '');
  const release = rule.afterYes ? 'true' : '';
  const busy = rule.busy === undefined ? '' : rule.busy ? 'true' : 'false';
  return (
    <>
      {(chosen || busy !== '') && (
        <>
          ,{' '}
          <OneOf
            label={words.busies['']}
            value={busy}
            options={words.busies}
            boxed={chosen}
            onChange={(one) => onChange({ ...rule, busy: one === '' ? undefined : one === 'true' })}
          />
        </>
      )}
      {(chosen || reminders.length > 0) && (
        <>
          , {words.reminding}{' '}
          <Token text={remindersText(reminders)} label={words.reminding} boxed={chosen}>
            <Reminders
              reminders={reminders}
              onChange={(all) => onChange({ ...rule, reminders: all.length > 0 ? all : undefined })}
            />
          </Token>
        </>
      )}
      {(chosen || invites !== '') && (
        <>
          , {words.inviting}{' '}
          <OneOf
            label={words.inviting}
            value={invites}
            options={words.invites}
            boxed={chosen}
            onChange={(one) => onChange({ ...rule, attendees: one === '' ? undefined : one })}
          />
        </>
      )}
      {(chosen || rule.afterYes) && (
        <>
          , {words.release}{' '}
          <OneOf
            label={words.release}
            value={release}
            options={words.releases}
            boxed={chosen}
            onChange={(one) => onChange({ ...rule, afterYes: one === 'true' ? true : undefined })}
          />
        </>
      )}
    </>
  );
}

function Tools({ rule, onChange, onMove, onCopy, onRemove }: Props) {
  return (
    // What is done here may choose another rule; the row is not to choose itself again.
    <div className={styles.tools} onClick={(event) => event.stopPropagation()}>
      <Input
        size="small"
        aria-label={words.note}
        placeholder={words.note}
        maxLength={300}
        value={rule.note ?? ''}
        onChange={(event) => onChange({ ...rule, note: event.target.value || undefined })}
      />
      <Steps onMove={onMove} />
      <Button size="small" type="text" onClick={() => onChange({ ...rule, on: !rule.on })}>
        {rule.on ? words.switchOff : words.switchOn}
      </Button>
      <Button size="small" type="text" onClick={onCopy}>
        {words.copy}
      </Button>
      <Button size="small" type="text" onClick={onRemove}>
        {words.takeOut}
      </Button>
    </div>
  );
}
