import { Button, Input } from 'antd';
import { useState } from 'react';
import { readDue } from '../../shared/time';
import { Choice } from '../../shared/ui/Choice';
import { Field, Line, Pick, Text } from './fields';
import { InRole } from './InRole';
import type { DateDraft, ExceptionDraft } from './model';
import styles from './records.module.css';
import { numbersOf, howTyped } from './numbers';
import { Team } from './Team';
import type { RecordFormState } from './useRecordForm';
import { words } from './words';

const COUNT = /^\d{0,3}$/;

/** What most records do without: team, tags, what it uses, further dates, exceptions, how often it comes. */
export function More({ form, visits }: { form: RecordFormState; visits: number }) {
  const { draft, set, may } = form;
  const [open, setOpen] = useState(false);
  if (!may('tags')) {
    return null;
  }
  const set1 = [
    ...form.roles.flatMap((role) => draft.others[role.number] ?? []),
    draft.tags,
    draft.uses.length,
    ...Object.values(draft.numbers),
    draft.wants || draft.wantSkills,
  ].filter(Boolean).length;
  const count = set1 + draft.dates.length + draft.exceptions.length;
  return (
    <>
      <Button
        type="link"
        size="small"
        className={styles.moreButton}
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        {open ? words.less : words.more(count)}
      </Button>
      {open && (
        <>
          <div className={styles.two}>
            {draft.kind !== 'SHIFT' && <Team form={form} />}
            <Text form={form} field="tags" label={words.tags} hint={words.tagsHint} needs="tags" />
          </div>
          <Uses form={form} />
          <div className={styles.two}>
            {numbersOf(draft.kind).map((field) => (
              <Line
                key={field}
                form={form}
                id={field}
                {...words.numbers[field]}
                needs={field}
                accepts={howTyped(field).accepts}
                value={draft.numbers[field]}
                onChange={(typed) => set({ numbers: { ...draft.numbers, [field]: typed } })}
              />
            ))}
          </div>
          <div className={styles.two}>
            <Text
              form={form}
              field="wants"
              label={words.wants}
              hint={words.wantsHint}
              needs="wants"
              accepts={COUNT}
            />
            <Text
              form={form}
              field="wantSkills"
              label={words.wantSkills}
              hint={words.wantSkillsHint}
              needs="wants"
            />
          </div>
          <div className={styles.two}>
            {form.roles.map((role) => (
              <InRole key={role.number} form={form} role={role.number} name={role.name} />
            ))}
          </div>
          {form.isNew && (
            <div className={styles.two}>
              <Field label={words.repeat} id="repeat">
                <Choice
                  id="repeat"
                  value={draft.repeatUnit}
                  options={words.repeats}
                  onChange={(repeatUnit) => set({ repeatUnit })}
                />
              </Field>
              {draft.repeatUnit && (
                <Field label={words.times} id="times" fault={form.faultAt('repeat')}>
                  <Input
                    id="times"
                    inputMode="numeric"
                    value={draft.repeatTimes}
                    placeholder="2"
                    onChange={(e) =>
                      set({ repeatTimes: e.target.value.replace(/\D/g, '').slice(0, 3) })
                    }
                  />
                </Field>
              )}
            </div>
          )}
          <Dates form={form} />
          <Exceptions form={form} visits={visits} />
        </>
      )}
    </>
  );
}

function Dates({ form }: { form: RecordFormState }) {
  const { dates } = form.draft;
  const put = (index: number, some: Partial<DateDraft>) =>
    form.set({ dates: dates.map((d, i) => (i === index ? { ...d, ...some } : d)) });
  return (
    <fieldset className={styles.fieldset}>
      <legend>{words.dates}</legend>
      {dates.map((date, i) => {
        const bad = date.when.trim() !== '' && readDue(date.when) === null;
        return (
          <div key={i} className={styles.line3}>
            <Input
              aria-label={words.dateName(i + 1)}
              placeholder={words.dateNameHint}
              maxLength={60}
              value={date.name}
              onChange={(e) => put(i, { name: e.target.value })}
            />
            <Input
              aria-label={words.dateWhen(i + 1)}
              placeholder={words.dueHint}
              status={bad || form.faultAt(`dates/${i}`) ? 'error' : undefined}
              value={date.when}
              onChange={(e) => put(i, { when: e.target.value })}
            />
            <Button
              type="text"
              aria-label={words.drop}
              onClick={() => form.set({ dates: dates.filter((_, k) => k !== i) })}
            >
              ×
            </Button>
          </div>
        );
      })}
      <Button size="small" onClick={() => form.set({ dates: [...dates, { name: '', when: '' }] })}>
        {words.addDate}
      </Button>
    </fieldset>
  );
}

function Exceptions({ form, visits }: { form: RecordFormState; visits: number }) {
  const { exceptions } = form.draft;
  const put = (index: number, some: Partial<ExceptionDraft>) =>
    form.set({ exceptions: exceptions.map((e, i) => (i === index ? { ...e, ...some } : e)) });
  return (
    <fieldset className={styles.fieldset}>
      <legend>{words.exceptions}</legend>
      {exceptions.map((one, i) => (
        <div key={i} className={styles.exception}>
          <div className={styles.line3}>
            <Choice
              aria-label={words.exceptionSort(i + 1)}
              value={one.sort}
              options={words.exceptionSorts}
              onChange={(sort) => put(i, { sort: sort as ExceptionDraft['sort'] })}
            />
            {one.sort === 'NOT_SENT' ? (
              <span />
            ) : (
              <Pick
                id={`exception${i}`}
                options={form.calendars}
                value={one.calendar}
                none={words.noCalendar}
                onChange={(calendar) => put(i, { calendar })}
              />
            )}
            <Button
              type="text"
              aria-label={words.drop}
              onClick={() => form.set({ exceptions: exceptions.filter((_, k) => k !== i) })}
            >
              ×
            </Button>
          </div>
          <div className={styles.line3}>
            <Input
              aria-label={words.exceptionReason(i + 1)}
              placeholder={words.exceptionReasonHint}
              status={form.faultAt(`exceptions/${i}`) ? 'error' : undefined}
              maxLength={200}
              value={one.reason}
              onChange={(e) => put(i, { reason: e.target.value })}
            />
            {visits > 1 ? (
              <Choice
                aria-label={words.exceptionVisit(i + 1)}
                value={one.visit ?? 0}
                options={[
                  { value: 0, label: words.allVisits },
                  ...Array.from({ length: visits }, (_, k) => ({
                    value: k + 1,
                    label: words.visit(k + 1),
                  })),
                ]}
                onChange={(visit) => put(i, { visit: visit === 0 ? null : visit })}
              />
            ) : (
              <span />
            )}
            <span />
          </div>
          {form.faultAt(`exceptions/${i}`) && (
            <div className={styles.fault}>{form.faultAt(`exceptions/${i}`)}</div>
          )}
        </div>
      ))}
      <Button
        size="small"
        onClick={() =>
          form.set({
            exceptions: [
              ...exceptions,
              { sort: 'NOT_SENT', calendar: null, visit: null, reason: '' },
            ],
          })
        }
      >
        {words.addException}
      </Button>
    </fieldset>
  );
}

/** Further places or things that it takes. */
function Uses({ form }: { form: RecordFormState }) {
  return (
    <Field label={words.uses} id="uses" fault={form.faultAt('uses')}>
      <Choice
        multiple
        id="uses"
        options={form.places}
        value={form.draft.uses}
        disabled={!form.may('uses')}
        placeholder={words.usesHint}
        style={{ width: '100%' }}
        onChange={(uses) => form.set({ uses })}
      />
    </Field>
  );
}
