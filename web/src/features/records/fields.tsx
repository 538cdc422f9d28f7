import { Form, Input } from 'antd';
import type { ReactNode } from 'react';
import { Choice } from '../../shared/ui/Choice';
import type { Draft } from './model';
import type { RecordFormState } from './useRecordForm';
import { words } from './words';

/** Chosen to take a choice back; a clear button would be one more stop for the keyboard. */
const NONE = -1;

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

export function Text({
  form,
  field,
  label,
  needs,
  hint,
  digits = false,
}: {
  form: RecordFormState;
  field: 'reason' | 'tags' | 'leastHeadCount' | 'wants' | 'wantSkills';
  label: string;
  needs?: string;
  hint?: string;
  /** Nothing but a number can be typed. */
  digits?: boolean;
}) {
  return (
    <Field label={label} id={field} fault={needs && form.faultAt(needs)}>
      <Input
        id={field}
        maxLength={200}
        autoComplete="off"
        disabled={needs !== undefined && !form.may(needs)}
        placeholder={hint}
        value={form.draft[field]}
        inputMode={digits ? 'numeric' : undefined}
        onChange={(e) => {
          const text = digits ? e.target.value.replace(/\D/g, '').slice(0, 3) : e.target.value;
          form.set({ [field]: text } as Partial<Draft>);
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
  options: { value: number; label: string }[];
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
      options={[
        ...options.map(({ value: v, label }) => ({ value: v, label })),
        { value: NONE, label: none },
      ]}
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
  options: { value: number; label: string }[];
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
