import { Button, Checkbox, Input } from 'antd';
import { useState } from 'react';
import { laterOnClock, minutesBetween, spanInput, spanText } from '../../shared/time';
import { ChosenDays, WhenCould } from '../cover';
import { Field, Pick, Several } from './fields';
import { emptyVisit, peopleOf, spanFault, typedSpan, visitNo, type VisitDraft } from './model';
import styles from './records.module.css';
import type { RecordFormState } from './useRecordForm';
import { words } from './words';

/** When it is: one span, or a job's visits with their margins and, if they differ, their people. */
export function Visits({ form }: { form: RecordFormState }) {
  const { draft, set, may } = form;
  const job = draft.kind === 'JOB';
  const put = (index: number, some: Partial<VisitDraft>) =>
    set({ visits: draft.visits.map((v, i) => (i === index ? { ...v, ...some } : v)) });
  return (
    <>
      {draft.visits.map((visit, i) => {
        const span = typedSpan(draft, visit);
        const id = i === 0 ? 'span' : `span${i + 1}`;
        return (
          <div key={visit.no ?? `new${i}`} onFocus={() => form.look(i)}>
            <div className={job ? styles.visit : undefined}>
              <Field
                label={draft.visits.length > 1 ? words.visit(i + 1) : words.span}
                id={id}
                fault={spanFault(draft, visit) ? words.spanBad : form.faultAt(`visits/${i}`)}
                hint={span ? spanText(span) : '\u00a0'}
              >
                <Input
                  id={id}
                  disabled={!may('visits')}
                  value={visit.span}
                  placeholder={words.spanHint}
                  onChange={(e) => put(i, { span: e.target.value })}
                />
              </Field>
              {job && (
                <>
                  <Margin form={form} at={i} side="before" put={put} />
                  <Margin form={form} at={i} side="after" put={put} />
                </>
              )}
            </div>
            {form.trial?.visit === visitNo(draft, i) && (
              <ChosenDays people={peopleOf(draft, visit)} trial={form.trial} />
            )}
            <When form={form} at={i} put={put} />
            {job && draft.ownPeople && draft.visits.length > 1 && (
              <div className={styles.two}>
                <Field label={words.leadOf(i + 1)} id={`lead${i + 1}`}>
                  <Pick
                    id={`lead${i + 1}`}
                    options={form.holders}
                    value={visit.lead}
                    none={words.nobody}
                    disabled={!may('people')}
                    onChange={(lead) => put(i, { lead })}
                  />
                </Field>
                <Field label={words.supportOf(i + 1)} id={`support${i + 1}`}>
                  <Several
                    id={`support${i + 1}`}
                    options={form.holders}
                    value={visit.support}
                    disabled={!may('people')}
                    onChange={(support) => put(i, { support })}
                  />
                </Field>
              </div>
            )}
          </div>
        );
      })}
      {job && may('visits') && <HowMany form={form} />}
    </>
  );
}

/** One visit more or fewer, and whether each has people of its own. */
function HowMany({ form }: { form: RecordFormState }) {
  const { draft, set } = form;
  return (
    <div className={styles.inline}>
      <Button
        size="small"
        onClick={() =>
          set({
            visits: [...draft.visits, { ...emptyVisit, lead: draft.lead, support: draft.support }],
          })
        }
      >
        {words.addVisit}
      </Button>
      {draft.visits.length > 1 && (
        <>
          <Button size="small" onClick={() => set({ visits: draft.visits.slice(0, -1) })}>
            {words.dropVisit}
          </Button>
          <Checkbox
            checked={draft.ownPeople}
            onChange={(e) =>
              set({
                ownPeople: e.target.checked,
                visits: draft.visits.map((v) => ({
                  ...v,
                  lead: v.lead ?? draft.lead,
                  support: v.support.length > 0 ? v.support : draft.support,
                })),
              })
            }
          >
            {words.ownPeople}
          </Checkbox>
        </>
      )}
    </div>
  );
}

const WHEN_DAYS = 7;

/** When those named could do it, asked for by the office; the start that is taken moves the span. */
function When({
  form,
  at,
  put,
}: {
  form: RecordFormState;
  at: number;
  put: (index: number, some: Partial<VisitDraft>) => void;
}) {
  const [open, setOpen] = useState(false);
  const { draft, may } = form;
  const visit = draft.visits[at]!;
  const span = typedSpan(draft, visit);
  const people = peopleOf(draft, visit);
  if (!form.mayPreview || !may('visits') || people.length === 0 || !span?.start || !span.end) {
    return null;
  }
  const minutes = minutesBetween(span.start, span.end);
  return (
    <div>
      <Button
        type="link"
        size="small"
        className={styles.moreButton}
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        {open ? words.whenClose : words.when}
      </Button>
      {open && minutes > 0 && (
        <WhenCould
          asked={{
            people,
            minutes,
            before: Number(visit.before),
            after: Number(visit.after),
            place: draft.place,
            record: form.id,
            visit: visit.no ?? at + 1,
            from: span.start.slice(0, 10),
            days: WHEN_DAYS,
          }}
          onPick={(start) => {
            put(at, { span: spanInput({ start, end: laterOnClock(start, 0, minutes) }) });
            setOpen(false);
          }}
        />
      )}
    </div>
  );
}

function Margin({
  form,
  at,
  side,
  put,
}: {
  form: RecordFormState;
  at: number;
  side: 'before' | 'after';
  put: (index: number, some: Partial<VisitDraft>) => void;
}) {
  const id = side + (at === 0 ? '' : at + 1);
  return (
    <Field label={side === 'before' ? words.before : words.after} id={id}>
      <Input
        id={id}
        inputMode="numeric"
        disabled={!form.may('margins')}
        value={form.draft.visits[at]?.[side] ?? ''}
        placeholder="min"
        onChange={(e) => put(at, { [side]: e.target.value.replace(/\D/g, '').slice(0, 4) })}
      />
    </Field>
  );
}
