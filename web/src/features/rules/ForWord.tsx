import { Checkbox, Select } from 'antd';
import { forKey, forText, PRESETS, type For } from './model';
import type { World } from './queries';
import styles from './rules.module.css';
import { Token } from './Token';
import { words } from './words';

interface Props {
  set: For;
  world: Pick<World, 'names' | 'roles'>;
  onChange: (set: For) => void;
}

/** Whom a detail is for, as a word that is changed where it stands. */
export function ForWord({ label, ...props }: Props & { label: string }) {
  return (
    <Token
      text={forText(props.set, props.world.names)}
      label={`${label}: ${words.forWhom}`}
      boxed={false}
    >
      <ForPicker {...props} />
    </Token>
  );
}

/** A ready set, or any other of office, crew, outside and the roles. */
function ForPicker({ set, world, onChange }: Props) {
  const preset = PRESETS.find(([, one]) => forKey(one) === forKey(set));
  const parts: [keyof For, string][] = [
    ['office', words.office],
    ['crew', words.crew],
    ['outside', words.outside],
  ];
  const base: For = set.everyone ? { office: true, crew: true, outside: true } : set;
  return (
    <>
      <Select
        className={styles.choice}
        aria-label={words.forWhom}
        value={preset?.[0] ?? words.custom}
        options={[...PRESETS.map(([name]) => name), words.custom].map((value) => ({ value }))}
        onChange={(name) => onChange(PRESETS.find(([one]) => one === name)?.[1] ?? base)}
      />
      {!set.everyone && (
        <div className={styles.checks}>
          {parts.map(([name, label]) => (
            <Checkbox
              key={name}
              checked={Boolean(set[name])}
              onChange={(event) => onChange({ ...set, [name]: event.target.checked || undefined })}
            >
              {label}
            </Checkbox>
          ))}
          {world.roles.map((role) => (
            <Checkbox
              key={role.value}
              checked={set.roles?.includes(role.value) ?? false}
              onChange={(event) => {
                const others = (set.roles ?? []).filter((r) => r !== role.value);
                const roles = event.target.checked ? [...others, role.value].sort() : others;
                onChange({ ...set, roles: roles.length > 0 ? roles : undefined });
              }}
            >
              {role.label}
            </Checkbox>
          ))}
        </div>
      )}
    </>
  );
}
