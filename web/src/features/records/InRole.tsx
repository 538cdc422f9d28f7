import { Field, Several } from './fields';
import type { RecordFormState } from './useRecordForm';

/** Who is on it in a role that takes nobody's time. */
export function InRole({
  form,
  role,
  name,
}: {
  form: RecordFormState;
  role: number;
  name: string;
}) {
  const { draft, set, may } = form;
  const id = `role${role}`;
  return (
    <Field label={name} id={id}>
      <Several
        id={id}
        options={form.everybody}
        value={draft.others[role] ?? []}
        disabled={!may('people')}
        onChange={(holders) => set({ others: { ...draft.others, [role]: holders } })}
      />
    </Field>
  );
}
