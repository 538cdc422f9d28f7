import { Button, Checkbox, Form, Input, Segmented } from 'antd';
import { dueText, readDue } from '../../shared/time';
import { Choice } from '../../shared/ui/Choice';
import { Fault } from '../../shared/ui/Fault';
import { Breaks } from '../cover';
import { DetailFields } from './DetailFields';
import { Field, Pick, Several, Text } from './fields';
import { Landings } from './Landings';
import { isTeam } from './holders';
import { InRole } from './InRole';
import { dueFault, SUPERVISOR, type Kind, type RecordView } from './model';
import { More } from './More';
import { Team } from './Team';
import styles from './records.module.css';
import { useRecordForm, type RecordFormState } from './useRecordForm';
import { Visits } from './Visits';
import { words } from './words';

interface Props {
  before?: { data: RecordView; tag: string };
  /** Where somebody pointed on the board, for a new one. */
  pointed?: string | null;
  onClose: () => void;
  onSaved: (id: number) => void;
}

export function RecordForm({ before, pointed = null, onClose, onSaved }: Props) {
  const form = useRecordForm(before, pointed, onSaved);
  const { draft, set, may } = form;
  const { kind } = draft;
  return (
    <form
      className={styles.sheet}
      onSubmit={(event) => {
        event.preventDefault();
        void form.save();
      }}
      onKeyDown={(event) => {
        if (event.key === 'Escape' && !event.defaultPrevented && !form.picking(event)) {
          event.stopPropagation();
          onClose();
        }
      }}
    >
      <div className={styles.kicker}>
        <span>{before ? words.changing(before.data.ref ?? 'record') : words.newRecord}</span>
      </div>
      {form.conflict && <Conflict theirs={form.conflict} />}
      <Form layout="vertical" component={false}>
        {form.isNew && (
          <>
            <Line form={form} begins={pointed === null} />
            <Segmented
              tabIndex={-1}
              aria-label={words.kind}
              block
              className={styles.kinds}
              options={words.kindChoices}
              value={kind}
              onChange={(value) => set({ kind: value as Kind })}
            />
          </>
        )}
        <Field label={words.titleOf[kind]} id="title" fault={form.faultAt('title')}>
          <Input
            id="title"
            autoFocus={!form.isNew || pointed !== null}
            maxLength={200}
            disabled={!may('title')}
            value={draft.title}
            placeholder={words.titleHints[kind]}
            onChange={(e) => set({ title: e.target.value })}
          />
        </Field>
        <div className={styles.two}>
          <Field label={words.place} id="place" fault={form.faultAt('place')}>
            <Pick
              id="place"
              options={form.places}
              value={draft.place}
              none={words.noPlace}
              disabled={!may('place')}
              onChange={(place) => set({ place })}
            />
          </Field>
          {kind === 'SHIFT' ? <Team form={form} /> : <DueField form={form} />}
        </div>
        {kind !== 'DEADLINE' && (kind !== 'TICKET' || hasSpan(form)) && <Visits form={form} />}
        <People form={form} />
        <DetailFields form={form} />
        {kind === 'JOB' && may('state') && <Standing form={form} />}
        {may('private') && (
          <Checkbox
            checked={draft.isPrivate}
            onChange={(e) => set({ isPrivate: e.target.checked })}
          >
            {words.private}
          </Checkbox>
        )}
        {may('free') && kind !== 'DEADLINE' && (
          <Checkbox checked={draft.free} onChange={(e) => set({ free: e.target.checked })}>
            {words.free}
          </Checkbox>
        )}
        <More form={form} visits={before?.data.visits?.length ?? 1} />
        {before && (
          <div className={styles.gap}>
            <Text form={form} field="reason" label={words.reason} />
          </div>
        )}
      </Form>
      <Saving form={form} onClose={onClose} />
      {form.mayPreview && <Landings query={form.preview} title={words.willLand} planned />}
    </form>
  );
}

/** A new job is a draft or meant at once; one that stands may be in any state. */
function Standing({ form }: { form: RecordFormState }) {
  const { draft, set } = form;
  const value = draft.state || 'DRAFT';
  return (
    <Field
      label={words.standing}
      id="state"
      hint={form.isNew ? words.standingMeans[value === 'CONFIRMED' ? 'CONFIRMED' : 'DRAFT'] : ''}
    >
      {form.isNew ? (
        <Segmented
          aria-label={words.standing}
          block
          options={words.standingsOfNew}
          value={value}
          onChange={(state) => set({ state })}
        />
      ) : (
        <Choice
          id="state"
          value={value}
          options={words.standings}
          onChange={(state) => set({ state })}
        />
      )}
    </Field>
  );
}

/** The button that saves, and beside it whatever speaks against saving. */
function Saving({ form, onClose }: { form: RecordFormState; onClose: () => void }) {
  return (
    <div className={styles.saving}>
      {form.error && <Fault error={form.error} />}
      <Breaks trial={form.trial} />
      <div className={styles.actions}>
        <Button type="primary" htmlType="submit" loading={form.saving} disabled={form.isBad}>
          {form.conflict
            ? words.saveMine
            : form.lacks
              ? words.saveLacks(form.lacks)
              : form.isWarned
                ? words.saveAllTheSame
                : words.save}
        </Button>
        <Button onClick={onClose}>{words.cancel}</Button>
      </div>
    </div>
  );
}

function People({ form }: { form: RecordFormState }) {
  const { draft, set, may } = form;
  return (
    <>
      <div className={styles.two}>
        <Field label={words.leadOfKind[draft.kind]} id="lead" fault={form.faultAt('people')}>
          <Pick
            id="lead"
            options={form.holders}
            value={draft.lead}
            none={words.nobody}
            disabled={!may('people')}
            onChange={(lead) => set({ lead })}
          />
        </Field>
        <InRole form={form} role={SUPERVISOR} name={words.supervisor} />
      </div>
      {isTeam(draft.lead) && <p className={styles.quiet}>{words.teamLeads}</p>}
      <Field label={words.support} id="support">
        <Several
          id="support"
          options={form.holders}
          value={draft.support}
          disabled={!may('people')}
          onChange={(support) => set({ support })}
        />
      </Field>
    </>
  );
}

const hasSpan = (form: RecordFormState) => form.draft.visits.some((v) => v.span !== '');

/** The whole record in one line, with what was understood of it before it is taken. */
function Line({ form, begins }: { form: RecordFormState; begins: boolean }) {
  return (
    <Field label={words.line} id="line">
      <Input
        id="line"
        autoFocus={begins}
        autoComplete="off"
        maxLength={300}
        value={form.line}
        placeholder={words.lineHint}
        onChange={(e) => form.say(e.target.value)}
      />
      {form.understood && (
        <ul className={styles.understood} aria-label={words.understood} aria-live="polite">
          {form.understood.parts.map((part, i) => (
            <li key={i} className={part.as === 'fault' ? styles.misheard : ''}>
              {part.as === 'fault' ? (
                <>
                  <span className={styles.mark}>{part.text}</span> {part.means}{' '}
                  <Mended form={form} text={part.text} near={part.near ?? []} />
                </>
              ) : (
                <>
                  <span className={styles.quiet}>{words.heard[part.as]}</span> {part.means}
                </>
              )}
            </li>
          ))}
        </ul>
      )}
    </Field>
  );
}

/** What can be made of a piece that was not understood. */
function Mended({ form, text, near }: { form: RecordFormState; text: string; near: string[] }) {
  const fields = ['title', 'contact', 'notes'] as const;
  const kept = fields.filter((one) => one === 'title' || form.details.some((d) => d.key === one));
  return (
    <span className={styles.mended}>
      {near.map((name) => (
        <Button key={name} size="small" onClick={() => form.meant(text, name)}>
          {name}
        </Button>
      ))}
      {kept.map((one) => (
        <Button key={one} size="small" onClick={() => form.put(text, one)}>
          {words.putInto[one]}
        </Button>
      ))}
    </span>
  );
}

function DueField({ form }: { form: RecordFormState }) {
  const { draft, set, may } = form;
  const due = readDue(draft.due);
  return (
    <Field
      label={words.due}
      id="due"
      fault={dueFault(draft) ? words.dueBad : form.faultAt('due')}
      hint={due ? dueText(due) : '\u00a0'}
    >
      <Input
        id="due"
        disabled={!may('due')}
        value={draft.due}
        placeholder={draft.kind === 'JOB' ? '' : words.dueHint}
        onChange={(e) => set({ due: e.target.value })}
      />
    </Field>
  );
}

function Conflict({ theirs }: { theirs: RecordView }) {
  const people = (theirs.people ?? []).map((p) => `${p.name} ${p.roleName}`).join(', ');
  return (
    <div className={styles.conflict} role="alert">
      <strong>{words.theirs}</strong>
      <div>{words.theirsWhy}</div>
      <div className={styles.small}>
        {[theirs.title, theirs.place?.name, dueText(theirs.due), people]
          .filter(Boolean)
          .join(' · ')}
      </div>
    </div>
  );
}
