import { Input } from 'antd';
import type { Wording } from './model';
import type { World } from './queries';
import styles from './rules.module.css';
import { words } from './words';

interface Props {
  wordings: Wording[];
  world: World;
  /** What is wrong, by pointer, as the last look told. */
  faults: Map<string, string>;
  onChange: (at: number, wording: Wording) => void;
}

/** Each wording with its three patterns, faults at their character. */
export function Wordings({ wordings, world, faults, onChange }: Props) {
  return (
    <div className={styles.wordings}>
      <p className={styles.quiet}>
        {words.help} {words.knows}
        {world.details.map((d) => `{${d.value}}`).join(' ')} {'{lead} {others} {start} {end} {due}'}
      </p>
      {wordings.map((wording, at) => {
        const line = (name: 'title' | 'place' | 'text', label: string) => {
          const fault = faults.get(`/wordings/${at}/${name}`);
          const shared = {
            'aria-label': `${wording.name}: ${label}`,
            status: fault ? ('error' as const) : undefined,
            value: wording[name],
            onChange: (event: { target: { value: string } }) =>
              onChange(at, { ...wording, [name]: event.target.value }),
          };
          return (
            <label>
              <span>{label}</span>
              {name === 'text' ? (
                <Input.TextArea autoSize={{ minRows: 1, maxRows: 8 }} {...shared} />
              ) : (
                <Input {...shared} />
              )}
              {fault && <em role="alert">{fault}</em>}
            </label>
          );
        };
        return (
          <section key={wording.id} aria-label={wording.name} className={styles.wording}>
            <h2>{wording.name}</h2>
            {line('title', words.title)}
            {line('place', words.placeLine)}
            {line('text', words.text)}
          </section>
        );
      })}
    </div>
  );
}
