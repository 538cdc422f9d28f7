import { Button, Checkbox, Input, Radio } from 'antd';
import { ForWord } from './ForWord';
import { joined, type Detail } from './model';
import type { World } from './queries';
import styles from './rules.module.css';
import { stepKeys, Steps } from './Steps';
import { Token } from './Token';
import { choices, worded } from '../../shared/words';
import { words } from './words';

interface Props {
  details: Detail[];
  world: World;
  faults: Map<string, string>;
  onChange: (at: number, detail: Detail) => void;
  onLabel: (at: number, label: string) => void;
  onMove: (at: number, step: number) => void;
  onRemove: (at: number) => void;
}

/** What records hold and whom each of it is for. */
export function DetailsTab({ details, world, faults, onChange, onLabel, onMove, onRemove }: Props) {
  return (
    <div className={styles.wordings}>
      <p className={styles.quiet}>{words.detailsHelp}</p>
      <div className={styles.detailTable}>
        <table>
          <thead>
            <tr>
              <th scope="col">{words.label}</th>
              <th scope="col">{words.called}</th>
              <th scope="col">{words.forWhom}</th>
              <th scope="col">{words.sort}</th>
              <th scope="col">{words.appliesOn}</th>
              <th scope="col">{words.statesOf}</th>
              <th aria-hidden="true" />
            </tr>
          </thead>
          <tbody>
            {details.map((detail, at) => (
              <DetailRow
                key={at}
                detail={detail}
                told={[...faults].filter(([pointer]) => pointer.startsWith(`/details/${at}/`))}
                world={world}
                onChange={(next) => onChange(at, next)}
                onLabel={(label) => onLabel(at, label)}
                onMove={(step) => onMove(at, step)}
                onRemove={() => onRemove(at)}
              />
            ))}
          </tbody>
        </table>
      </div>
    </div>
  );
}

/** The kinds that it is of, and the states in which it applies. */
function appliesTo(detail: Detail) {
  const all = detail.kinds.length === Object.keys(words.kinds).length;
  const kinds = detail.kinds.map((kind) => worded(words.kinds, kind));
  const states = detail.states.map((state) => worded(words.states, state));
  return {
    kinds: all ? words.allKinds : joined(kinds, words.and),
    states: states.length === 0 ? words.allStates : words.inStates(joined(states, words.or)),
  };
}

function DetailRow({
  detail,
  told,
  world,
  onChange,
  onLabel,
  onMove,
  onRemove,
}: {
  detail: Detail;
  told: [string, string][];
  world: World;
  onChange: (detail: Detail) => void;
  onLabel: (label: string) => void;
  onMove: (step: number) => void;
  onRemove: () => void;
}) {
  const written = detail.typed && detail.key !== 'title';
  const { kinds, states } = appliesTo(detail);
  return (
    <tr aria-label={words.detailNumber(detail.label)} onKeyDown={stepKeys(onMove)}>
      <td>
        <Input
          size="small"
          aria-label={words.label}
          maxLength={40}
          status={told.length > 0 ? 'error' : undefined}
          value={detail.label}
          onChange={(event) => onLabel(event.target.value)}
        />
        {told.map(([pointer, message]) => (
          <em key={pointer} role="alert">
            {pointer.split('/')[3]} {message}
          </em>
        ))}
      </td>
      <td>
        <code>{`{${detail.key}}`}</code>
      </td>
      <td>
        <ForWord
          label={detail.label}
          set={detail.for}
          world={world}
          onChange={(next) => onChange({ ...detail, for: next })}
        />
      </td>
      <td>
        <Sort detail={detail} onChange={onChange} />
      </td>
      <td>
        {written ? (
          <Checks
            text={kinds}
            label={`${detail.label}: ${words.appliesOn}`}
            value={detail.kinds}
            options={choices(words.kinds)}
            onChange={(chosen) => onChange({ ...detail, kinds: chosen })}
          />
        ) : (
          <span className={styles.quiet}>{kinds}</span>
        )}
      </td>
      <td>
        {written && (
          <Checks
            text={states}
            label={`${detail.label}: ${words.statesOf}`}
            value={detail.states}
            options={choices(words.states)}
            onChange={(chosen) => onChange({ ...detail, states: chosen })}
          />
        )}
      </td>
      <td className={styles.detailTools}>
        <Tools own={detail.own} onMove={onMove} onRemove={onRemove} />
      </td>
    </tr>
  );
}

function Tools({
  own,
  onMove,
  onRemove,
}: {
  own: boolean;
  onMove: (step: number) => void;
  onRemove: () => void;
}) {
  return (
    <>
      <Steps onMove={onMove} />
      {own && (
        <Button size="small" type="text" onClick={onRemove}>
          {words.takeOut}
        </Button>
      )}
    </>
  );
}

function Checks<T extends string>({
  text,
  label,
  value,
  options,
  onChange,
}: {
  text: string;
  label: string;
  value: T[];
  options: { value: T; label: string }[];
  onChange: (chosen: T[]) => void;
}) {
  return (
    <Token text={text} label={label} boxed={false}>
      <Checkbox.Group
        className={styles.checks}
        value={value}
        options={options}
        onChange={onChange}
      />
    </Token>
  );
}

/** What it holds: settled by the house, computed, or chosen for one of its own. */
function Sort({ detail, onChange }: { detail: Detail; onChange: (detail: Detail) => void }) {
  if (!detail.typed) {
    return <span className={styles.quiet}>{words.computed}</span>;
  }
  if (detail.key === 'title') {
    return words.sortsOfDetail[detail.sort];
  }
  // What is typed from now on is of the new sort; only text can become another.
  const sorts = choices(words.sortsOfDetail).filter(
    (one) => detail.own || [one.value, detail.sort].includes('TEXT') || one.value === detail.sort,
  );
  const hasUnit = detail.sort === 'MONEY' || detail.sort === 'NUMBER';
  return (
    <Token
      text={[words.sortsOfDetail[detail.sort], hasUnit && detail.unit].filter(Boolean).join(', ')}
      label={`${detail.label}: ${words.sort}`}
      boxed={false}
    >
      <Radio.Group
        className={styles.checks}
        value={detail.sort}
        options={sorts}
        onChange={(event) =>
          onChange({
            ...detail,
            sort: event.target.value as typeof detail.sort,
            choices: [],
            unit: undefined,
          })
        }
      />
      {hasUnit && (
        <Input
          aria-label={words.unit}
          placeholder={detail.sort === 'MONEY' ? words.currency : words.unitHint}
          maxLength={12}
          value={detail.unit ?? ''}
          onChange={(event) => onChange({ ...detail, unit: event.target.value || undefined })}
        />
      )}
      {detail.sort === 'CHOICE' && (
        <Input.TextArea
          aria-label={words.choices}
          placeholder={words.choices}
          autoSize={{ minRows: 3, maxRows: 8 }}
          value={detail.choices.join('\n')}
          onChange={(event) => onChange({ ...detail, choices: event.target.value.split('\n') })}
        />
      )}
    </Token>
  );
}
