import { Form, Input } from 'antd';
import type { ReactNode } from 'react';
import { Choice } from '../../shared/ui/Choice';
import type { Draft } from './model';
import type { RecordFormState } from './useRecordForm';
import { words } from './words';

/** Chosen to take a choice back; a clear button would be one more stop for the keyboard. */
const NONE = 0;

export function Field({
  label,
  id,
  fault,
  hint,
  children,
}: {
  label: string;
  id: string;
  fault?: string;
  hint?: string;
  children: ReactNode;
}) {
  return (
    <Form.Item
      label={label}
      htmlFor={id}
      validateStatus={fault ? 'error' : undefined}
      help={fault ?? hint}
    >
      {children}
    </Form.Item>
  );
}

interface LineProps {
  form: RecordFormState;
  label: string;
  needs?: string;
  hint?: string;
  /** Nothing else can be typed. */
  accepts?: RegExp;
}

/** A line of the draft's own. */
export function Text({
  field,
  ...line
}: LineProps & { field: 'reason' | 'tags' | 'wants' | 'wantSkills' }) {
  return (
    <Line
      {...line}
      id={field}
      value={line.form.draft[field]}
      onChange={(typed) => line.form.set({ [field]: typed } as Partial<Draft>)}
    />
  );
}

export function Line({
  form,
  id,
  label,
  needs,
  hint,
  accepts,
  value,
  onChange,
}: LineProps & { id: string; value: string; onChange: (typed: string) => void }) {
  return (
    <Field label={label} id={id} fault={needs && form.faultAt(needs)}>
      <Input
        id={id}
        maxLength={200}
        autoComplete="off"
        disabled={needs !== undefined && !form.may(needs)}
        placeholder={hint}
        value={value}
        inputMode={accepts && 'decimal'}
        onChange={({ target }) => {
          if (!accepts || accepts.test(target.value)) {
            onChange(target.value);
          }
        }}
      />
    </Field>
  );
}

/** One of a list, or none. */
export function Pick({
  id,
  options,
  value,
  disabled = false,
  none,
  onChange,
}: {
  id: string;
  options: { value: number; label: string; hint?: string }[];
  value: number | null;
  disabled?: boolean;
  none: string;
  onChange: (value: number | null) => void;
}) {
  return (
    <Choice
      id={id}
      disabled={disabled}
      value={options.length > 0 ? value : null}
      options={[...options, { value: NONE, label: none }]}
      notFoundContent={words.nothingFits}
      onChange={(chosen) => onChange(chosen === NONE ? null : chosen)}
    />
  );
}

export function Several({
  id,
  options,
  value,
  disabled = false,
  onChange,
}: {
  id: string;
  options: { value: number; label: string; hint?: string }[];
  value: number[];
  disabled?: boolean;
  onChange: (value: number[]) => void;
}) {
  return (
    <Choice
      id={id}
      multiple
      disabled={disabled}
      value={options.length > 0 ? value : []}
      options={options}
      notFoundContent={words.nothingFits}
      onChange={onChange}
    />
  );
}
