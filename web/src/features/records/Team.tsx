import { Field, Pick } from './fields';
import type { RecordFormState } from './useRecordForm';
import { words } from './words';

export function Team({ form }: { form: RecordFormState }) {
  return (
    <Field label={words.team} id="team" fault={form.faultAt('team')} hint={'\u00a0'}>
      <Pick
        id="team"
        options={form.teams}
        value={form.draft.team}
        none={words.noTeam}
        disabled={!form.may('team')}
        onChange={(team) => form.set({ team })}
      />
    </Field>
  );
}
