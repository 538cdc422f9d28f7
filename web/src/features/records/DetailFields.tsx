import { Input } from 'antd';
import type { Schemas } from '../../shared/api/client';
import { Choice } from '../../shared/ui/Choice';
import { Field } from './fields';
import styles from './records.module.css';
import type { RecordFormState } from './useRecordForm';
import { valueHints } from '../../shared/words';
import { words } from './words';

type Detail = Schemas['Detail'];

/** What the house keeps on records of this kind, in its order; those of several lines last. */
export function DetailFields({ form }: { form: RecordFormState }) {
  const ofKind = form.details.filter((d) => d.kinds.includes(form.draft.kind));
  const hasLines = (d: Detail) => d.sort === 'NOTES' || d.sort === 'ADDRESS';
  return (
    <>
      <div className={styles.two}>
        {ofKind
          .filter((d) => !hasLines(d))
          .map((d) => (
            <One key={d.key} form={form} detail={d} />
          ))}
      </div>
      {ofKind.filter(hasLines).map((d) => (
        <One key={d.key} form={form} detail={d} />
      ))}
    </>
  );
}

function One({ form, detail }: { form: RecordFormState; detail: Detail }) {
  const id = `detail-${detail.key.replaceAll(' ', '-')}`;
  const value = form.draft.details[detail.key] ?? '';
  const set = (next: string) =>
    form.set({ details: { ...form.draft.details, [detail.key]: next } });
  const shared = {
    id,
    disabled: !form.may(detail.key),
    placeholder: form.isKept(detail.key) ? words.keptTyping : valueHints[detail.sort],
    value,
  };
  const choices = detail.sort === 'YES_NO' ? ['yes', 'no'] : detail.choices;
  return (
    <Field label={detail.label} id={id} fault={form.faultAt('details/' + detail.key)}>
      {detail.sort === 'CHOICE' || detail.sort === 'YES_NO' ? (
        <Choice
          {...shared}
          options={[
            ...choices.map((one) => ({ value: one, label: one })),
            { value: '', label: words.notSaid },
          ]}
          onChange={set}
        />
      ) : detail.sort === 'NOTES' || detail.sort === 'ADDRESS' ? (
        <Input.TextArea
          {...shared}
          autoSize={{ minRows: 2, maxRows: 6 }}
          onChange={(e) => set(e.target.value)}
        />
      ) : (
        <Input
          {...shared}
          maxLength={200}
          autoComplete="off"
          suffix={detail.unit}
          inputMode={detail.sort === 'NUMBER' || detail.sort === 'MONEY' ? 'decimal' : undefined}
          onChange={(e) => set(e.target.value)}
        />
      )}
    </Field>
  );
}
