import { Button, Input } from 'antd';
import { useRef, useState } from 'react';
import { Choice } from '../../shared/ui/Choice';
import { asked, put } from './completion';
import type { Rule, Wording } from './model';
import type { World } from './queries';
import styles from './rules.module.css';
import { words } from './words';

interface Props {
  wordings: Wording[];
  rules: Rule[];
  usual: Partial<Record<string, number>>;
  fallback: number;
  titlesFixed: string;
  world: World;
  /** What is wrong, by pointer, as the last look told. */
  faults: Map<string, string>;
  onChange: (at: number, wording: Wording) => void;
  onRemove: (at: number) => void;
  onUsual: (kind: string, wording: number | null) => void;
  onTitlesFixed: (why: string) => void;
}

/** Each wording with its three patterns, faults at their character; and which words what. */
export function Wordings(props: Props) {
  const { wordings, world, faults, fallback } = props;
  const last = wordings.find((w) => w.id === fallback)?.name ?? '';
  const names = [
    ...world.details.map((d) => d.value),
    ...['lead', 'others', 'start', 'end', 'given', 'due'],
  ];
  const NONE = 0;
  return (
    <div className={styles.wordings}>
      <p className={styles.quiet}>{words.help}</p>
      <section className={styles.wording} aria-label={words.usualHeading}>
        <h2>{words.usualHeading}</h2>
        <div className={styles.usual}>
          {Object.entries(words.usualOf).map(([kind, label]) => (
            <label key={kind}>
              <span>{label}</span>
              <Choice
                aria-label={label}
                value={props.usual[kind] ?? NONE}
                options={[
                  ...wordings.map((w) => ({ value: w.id, label: w.name })),
                  { value: NONE, label: words.usualNone(last) },
                ]}
                onChange={(id) => props.onUsual(kind, id === NONE ? null : id)}
              />
            </label>
          ))}
        </div>
        <label className={styles.stacked}>
          <span>{words.titlesFixed}</span>
          <Input
            value={props.titlesFixed}
            maxLength={200}
            placeholder={words.titlesFixedHint}
            onChange={(event) => props.onTitlesFixed(event.target.value)}
          />
        </label>
      </section>
      {wordings.map((wording, at) => {
        const uses = props.rules.filter((rule) => rule.wording === wording.id).length;
        const line = (name: 'title' | 'place' | 'text', label: string) => (
          <PatternLine
            label={label}
            named={`${wording.name}: ${label}`}
            fault={faults.get(`/wordings/${at}/${name}`)}
            lines={name === 'text'}
            value={wording[name]}
            names={names}
            onChange={(value) => props.onChange(at, { ...wording, [name]: value })}
          />
        );
        const nameFault = faults.get(`/wordings/${at}/name`);
        return (
          <section key={wording.id} aria-label={wording.name} className={styles.wording}>
            <div className={styles.wordingHead}>
              <Input
                variant="borderless"
                aria-label={words.name}
                maxLength={60}
                status={nameFault ? 'error' : undefined}
                value={wording.name}
                onChange={(event) => props.onChange(at, { ...wording, name: event.target.value })}
              />
              {uses > 0 ? (
                <span className={styles.quiet}>{words.inUse(uses)}</span>
              ) : (
                wording.id !== fallback && (
                  <Button size="small" type="text" onClick={() => props.onRemove(at)}>
                    {words.removeWording}
                  </Button>
                )
              )}
            </div>
            {nameFault && <em role="alert">{nameFault}</em>}
            {line('title', words.title)}
            {line('place', words.placeLine)}
            {line('text', words.text)}
            <label className={styles.stacked}>
              <span>{words.fixedReason}</span>
              <Input
                value={wording.fixed ?? ''}
                maxLength={200}
                placeholder={words.fixedHint}
                onChange={(event) =>
                  props.onChange(at, { ...wording, fixed: event.target.value || undefined })
                }
              />
            </label>
          </section>
        );
      })}
    </div>
  );
}

interface LineProps {
  label: string;
  named: string;
  fault: string | undefined;
  lines: boolean;
  value: string;
  names: string[];
  onChange: (value: string) => void;
}

/** A pattern being typed: after a brace, the details that could stand there. */
function PatternLine({ label, named, fault, lines, value, names, onChange }: LineProps) {
  const field = useRef<HTMLElement | null>(null);
  const [at, setAt] = useState<number | null>(null);
  const [marked, setMarked] = useState(0);
  const wish = at === null ? null : asked(value, at);
  const fits = wish === null ? [] : names.filter((name) => name.startsWith(wish));
  const take = (name: string) => {
    const next = put(value, at ?? value.length, name);
    onChange(next.text);
    setAt(null);
    requestAnimationFrame(() =>
      (field.current as HTMLInputElement | null)?.setSelectionRange(next.caret, next.caret),
    );
  };
  const shared = {
    'aria-label': named,
    'aria-autocomplete': 'list' as const,
    status: fault ? ('error' as const) : undefined,
    value,
    onChange: (event: { target: HTMLInputElement | HTMLTextAreaElement }) => {
      field.current = event.target;
      onChange(event.target.value);
      setAt(event.target.selectionStart);
      setMarked(0);
    },
    onBlur: () => setAt(null),
    onKeyDown: (event: React.KeyboardEvent) => {
      if (fits.length === 0) {
        return;
      }
      if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
        event.preventDefault();
        const step = event.key === 'ArrowDown' ? 1 : -1;
        setMarked((marked + step + fits.length) % fits.length);
      } else if (event.key === 'Enter' || event.key === 'Tab') {
        event.preventDefault();
        take(fits[marked] ?? fits[0]!);
      } else if (event.key === 'Escape') {
        event.stopPropagation();
        setAt(null);
      }
    },
  };
  return (
    <label className={styles.patternLine}>
      <span>{label}</span>
      {lines ? (
        <Input.TextArea autoSize={{ minRows: 1, maxRows: 8 }} {...shared} />
      ) : (
        <Input {...shared} />
      )}
      {fits.length > 0 && (
        <ul className={styles.completion} role="listbox" aria-label={named}>
          {fits.map((name, i) => (
            <li
              key={name}
              role="option"
              aria-selected={i === marked}
              onMouseDown={(event) => {
                event.preventDefault();
                take(name);
              }}
            >
              {`{${name}}`}
            </li>
          ))}
        </ul>
      )}
      {fault && <em role="alert">{fault}</em>}
    </label>
  );
}
