import { Checkbox } from 'antd';
import type { Target } from './model';
import type { World } from './queries';
import styles from './rules.module.css';
import { words } from './words';

interface Props {
  targets: Target[];
  world: World;
  onChange: (targets: Target[]) => void;
}

/** Any number of calendars, each a tick. */
export function Targets({ targets, world, onChange }: Props) {
  const roles = (name: 'ownOf' | 'teamsOf') => targets.find((t) => t[name])?.[name] ?? [];
  const setRoles = (name: 'ownOf' | 'teamsOf', chosen: number[]) => {
    const others = targets.filter((t) => !t[name]);
    onChange(chosen.length > 0 ? [{ [name]: chosen }, ...others] : others);
  };
  const turn = (target: Target, on: boolean) => {
    const same = (t: Target) => JSON.stringify(t) === JSON.stringify(target);
    onChange(on ? [...targets, target] : targets.filter((t) => !same(t)));
  };
  const has = (target: Target) => targets.some((t) => JSON.stringify(t) === JSON.stringify(target));
  const others: [Target, string][] = [
    [{ thePlaces: true }, words.thePlaces],
    [{ master: true }, words.master],
    ...world.lists.map((c): [Target, string] => [{ calendar: c.value }, c.label]),
  ];
  return (
    <div className={styles.targets}>
      {(['ownOf', 'teamsOf'] as const).map((name) => (
        <fieldset key={name}>
          <legend>{name === 'ownOf' ? words.own : words.teams}</legend>
          <Checkbox.Group
            className={styles.checks}
            value={roles(name)}
            options={world.roles}
            onChange={(chosen) => setRoles(name, chosen)}
          />
        </fieldset>
      ))}
      <fieldset>
        <legend>{words.others}</legend>
        <div className={styles.checks}>
          {others.map(([target, label]) => (
            <Checkbox
              key={label}
              checked={has(target)}
              onChange={(event) => turn(target, event.target.checked)}
            >
              {label}
            </Checkbox>
          ))}
        </div>
      </fieldset>
    </div>
  );
}
