import { Button, Checkbox, Form, Input } from 'antd';
import type { ReactNode } from 'react';
import { dueText, readDue, type Due } from '../../shared/time';
import { Choice } from '../../shared/ui/Choice';
import { Fault } from '../../shared/ui/Fault';
import { Landings } from './Landings';
import type { Draft, RecordView } from './model';
import styles from './records.module.css';
import { useTicketForm } from './useTicketForm';
import { words } from './words';

/** Chosen to take a choice back; a clear button would be one more stop for the keyboard. */
const NONE = -1;

interface Props {
  before?: { data: RecordView; tag: string };
  onClose: () => void;
  onSaved: (id: number) => void;
}

export function TicketForm({ before, onClose, onSaved }: Props) {
  const form = useTicketForm(before, onSaved);
  const { draft, set, may } = form;
  const due = readDue(draft.due);
  return (
    <form
      className={styles.sheet}
      onSubmit={(event) => {
        event.preventDefault();
        form.save();
      }}
      onKeyDown={(event) => {
        if (event.key === 'Escape' && !event.defaultPrevented && !form.picking(event)) {
          event.stopPropagation();
          onClose();
        }
      }}
    >
      <div className={styles.kicker}>
        <span>{before ? words.changing(before.data.ref ?? 'record') : words.newTicket}</span>
      </div>
      {form.conflict && <Conflict theirs={form.conflict} />}
      <Form layout="vertical" component={false}>
        <Field label={words.title} id="title" fault={form.faultAt('title')}>
          <Input
            id="title"
            autoFocus
            maxLength={200}
            disabled={!may('title')}
            value={draft.title}
            placeholder={words.titleHint}
            onChange={(e) => set({ title: e.target.value })}
          />
        </Field>
        <div className={styles.two}>
          <Field label={words.place} id="place" fault={form.faultAt('place')}>
            <Pick form={form} field="place" options={form.places} />
          </Field>
          <Field
            label={words.due}
            id="due"
            fault={form.dueIsBad ? words.dueBad : form.faultAt('due')}
            hint={due ? dueText(due as Due) : '\u00a0'}
          >
            <Input
              id="due"
              disabled={!may('due')}
              value={draft.due}
              placeholder={words.dueHint}
              onChange={(e) => set({ due: e.target.value })}
            />
          </Field>
        </div>
        <div className={styles.two}>
          <Field label={words.lead} id="lead" fault={form.faultAt('people')}>
            <Pick form={form} field="lead" options={form.people} needs="people" />
          </Field>
          <Field label={words.supervisor} id="supervisor">
            <Pick form={form} field="supervisor" options={form.people} needs="people" />
          </Field>
        </div>
        <Field label={words.support} id="support">
          <Choice
            id="support"
            multiple
            disabled={!may('people')}
            value={form.people.length > 0 ? draft.support : []}
            options={form.people}
            notFoundContent={words.nothingFits}
            onChange={(support) => set({ support })}
          />
        </Field>
        <div className={styles.two}>
          <Text form={form} field="contact" label={words.contact} needs="contact" />
          <Text form={form} field="phone" label={words.phone} needs="phone" />
        </div>
        <div className={styles.two}>
          <Text form={form} field="gateCode" label={words.gateCode} needs="gate code" />
          <Text form={form} field="quote" label={words.quote} needs="quote" />
        </div>
        <Field label={words.notes} id="notes" fault={form.faultAt('details/notes')}>
          <Input.TextArea
            id="notes"
            autoSize={{ minRows: 2, maxRows: 6 }}
            disabled={!may('notes')}
            value={draft.notes}
            onChange={(e) => set({ notes: e.target.value })}
          />
        </Field>
        {may('private') && (
          <Checkbox
            checked={draft.isPrivate}
            onChange={(e) => set({ isPrivate: e.target.checked })}
          >
            {words.private}
          </Checkbox>
        )}
        {before && (
          <div className={styles.gap}>
            <Text form={form} field="reason" label={words.reason} />
          </div>
        )}
      </Form>
      {form.error && <Fault error={form.error} />}
      <div className={styles.actions}>
        <Button type="primary" htmlType="submit" loading={form.saving} disabled={form.dueIsBad}>
          {form.conflict ? words.saveMine : words.save}
        </Button>
        <Button onClick={onClose}>{words.cancel}</Button>
      </div>
      {form.mayPreview && <Landings query={form.preview} title={words.willLand} planned />}
    </form>
  );
}

type TheForm = ReturnType<typeof useTicketForm>;

function Field({
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

function Text({
  form,
  field,
  label,
  needs,
}: {
  form: TheForm;
  field: 'contact' | 'phone' | 'gateCode' | 'quote' | 'reason';
  label: string;
  needs?: string;
}) {
  return (
    <Field label={label} id={field} fault={needs && form.faultAt('details/' + needs)}>
      <Input
        id={field}
        maxLength={200}
        autoComplete="off"
        disabled={needs !== undefined && !form.may(needs)}
        placeholder={needs && form.isKept(needs) ? words.keptTyping : undefined}
        value={form.draft[field]}
        onChange={(e) => form.set({ [field]: e.target.value } as Partial<Draft>)}
      />
    </Field>
  );
}

function Pick({
  form,
  field,
  options,
  needs,
}: {
  form: TheForm;
  field: 'place' | 'lead' | 'supervisor';
  options: { value: number; label: string }[];
  needs?: string;
}) {
  return (
    <Choice
      id={field}
      disabled={!form.may(needs ?? field)}
      value={options.length > 0 ? form.draft[field] : null}
      options={[
        ...options,
        { value: NONE, label: field === 'place' ? words.noPlace : words.nobody },
      ]}
      notFoundContent={words.nothingFits}
      onChange={(value) => form.set({ [field]: value === NONE ? null : value } as Partial<Draft>)}
    />
  );
}

function Conflict({ theirs }: { theirs: RecordView }) {
  const people = (theirs.people ?? []).map((p) => `${p.name} ${p.roleName}`).join(', ');
  return (
    <div className={styles.conflict} role="alert">
      <strong>{words.theirs}</strong>
      <div>{words.theirsWhy}</div>
      <div className={styles.small}>
        {[theirs.title, theirs.place?.name, dueText(theirs.due as Due | undefined), people]
          .filter(Boolean)
          .join(' · ')}
      </div>
    </div>
  );
}
