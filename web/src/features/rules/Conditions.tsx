import { Button, Checkbox, Input, Select } from 'antd';
import { Choice } from '../../shared/ui/Choice';
import { valueHints, worded } from '../../shared/words';
import { ClockField } from '../../shared/ui/Moments';
import {
  begin,
  conditionText,
  isGroup,
  isOrdered,
  partsOf,
  sortOf,
  type Condition,
  type ValueTest,
} from './model';
import type { World } from './queries';
import styles from './rules.module.css';
import { Token } from './Token';
import { words } from './words';

interface Props {
  parts: Condition[];
  world: World;
  boxed: boolean;
  /** What joins them: and inside all, or inside the other groups. */
  join: string;
  adds: string;
  onChange: (parts: Condition[]) => void;
}

/** Conditions side by side in the sentence; groups hold others. */
export function Conditions({ parts, world, boxed, join, adds, onChange }: Props) {
  const set = (at: number, part: Condition | null) =>
    onChange(parts.flatMap((one, i) => (i !== at ? [one] : part === null ? [] : [part])));
  return (
    <>
      {parts.map((part, at) => (
        <span key={at}>
          {at > 0 && join}
          {isGroup(part) ? (
            <span className={styles.group}>
              {worded(words.groups, sortOf(part))} (
              <Conditions
                parts={partsOf(part)}
                world={world}
                boxed={boxed}
                join={words.or}
                adds={words.addInside}
                onChange={(inner) => set(at, inner.length > 0 ? { [sortOf(part)]: inner } : null)}
              />
              )
            </span>
          ) : (
            <Token text={conditionText(part, world.names)} label={words.which} boxed={boxed}>
              <Part part={part} world={world} onChange={(next) => set(at, next)} />
              <Button type="text" size="small" onClick={() => set(at, null)}>
                {words.remove}
              </Button>
            </Token>
          )}
        </span>
      ))}
      {boxed && (
        <Select
          className={styles.adds}
          variant="borderless"
          size="small"
          aria-label={adds}
          placeholder={adds}
          value={null}
          popupMatchSelectWidth={false}
          options={words.sorts.map(([value, label]) => ({ value, label }))}
          onChange={(sort: string | null) => {
            if (sort) {
              const fresh = begin(sort);
              const inner = isGroup(fresh) ? { [sort]: [begin('tag')] } : fresh;
              onChange([...parts, inner]);
            }
          }}
        />
      )}
    </>
  );
}

function Part({
  part,
  world,
  onChange,
}: {
  part: Condition;
  world: World;
  onChange: (part: Condition) => void;
}) {
  const some = (name: 'kind' | 'state', all: Record<string, string>) => (
    <Checkbox.Group
      className={styles.checks}
      value={part[name]}
      options={Object.entries(all).map(([value, label]) => ({ value, label }))}
      onChange={(chosen) => chosen.length > 0 && onChange({ [name]: chosen })}
    />
  );
  const one = (name: keyof Condition, options: { value: number | string; label: string }[]) => (
    <Choice
      autoFocus
      className={styles.choice}
      aria-label={name}
      value={part[name] as number | string}
      options={options}
      onChange={(value: number | string) => onChange({ [name]: value })}
    />
  );
  switch (sortOf(part)) {
    case 'kind':
      return some('kind', words.kinds);
    case 'state':
      return some('state', words.states);
    case 'tag':
      return (
        <Input
          autoFocus
          aria-label="tag"
          maxLength={40}
          value={part.tag}
          onChange={(event) => onChange({ tag: event.target.value })}
        />
      );
    case 'team':
      return one('team', world.teams);
    case 'place':
      return one('place', world.places);
    case 'role':
      return one('role', world.roles);
    case 'detail':
      return one('detail', world.details);
    case 'over':
    case 'under':
    case 'is':
      return (
        <Valued
          test={sortOf(part) as ValueTest}
          part={part}
          details={world.details}
          onChange={onChange}
        />
      );
    case 'madeBy':
      return one('madeBy', world.people);
    case 'startsBetween': {
      const [from, until] = part.startsBetween ?? ['', ''];
      return (
        <span className={styles.hours}>
          {words.from}
          <ClockField
            aria-label={words.from}
            value={from}
            onChange={(clock) => onChange({ startsBetween: [clock, until ?? ''] })}
          />
          {words.until}
          <ClockField
            aria-label={words.until}
            value={until}
            onChange={(clock) => onChange({ startsBetween: [from ?? '', clock] })}
          />
        </span>
      );
    }
    default:
      return null;
  }
}

/** A detail, and what its value is compared with. */
function Valued({
  test,
  part,
  details,
  onChange,
}: {
  test: ValueTest;
  part: Condition;
  details: World['details'];
  onChange: (part: Condition) => void;
}) {
  const [detail, than] = part[test] ?? ['', ''];
  const fits = details.filter((one) => one.isWritten && (test === 'is' || isOrdered(one.sort)));
  const chosen = fits.find((one) => one.value === detail);
  const shared = {
    'aria-label': words.value,
    value: than,
    onChange: (value: string) => onChange({ [test]: [detail ?? '', value] }),
  };
  return (
    <span className={styles.hours}>
      <Choice
        autoFocus
        className={styles.choice}
        aria-label={words.detailOf}
        value={detail || null}
        options={fits}
        onChange={(value) => onChange({ [test]: [value, ''] })}
      />
      {chosen?.choices.length ? (
        <Choice
          {...shared}
          className={styles.choice}
          options={chosen.choices.map((value) => ({ value, label: value }))}
        />
      ) : (
        <Input
          {...shared}
          maxLength={200}
          placeholder={chosen && valueHints[chosen.sort]}
          suffix={chosen?.unit}
          onChange={(event) => shared.onChange(event.target.value)}
        />
      )}
    </span>
  );
}
