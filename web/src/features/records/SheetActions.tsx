import { Button, Dropdown, Form, Input } from 'antd';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { ProblemError } from '../../shared/api/client';
import { usePaperKey } from '../../shared/ui/usePaperKey';
import { takesWork, useCalendars, usePeople } from '../../shared/api/house';
import { addDays } from '../../shared/time';
import { Choice } from '../../shared/ui/Choice';
import { Answers, Dialog } from '../../shared/ui/Dialog';
import { DateField } from '../../shared/ui/Moments';
import { useTray } from '../../shared/ui/tray';
import { useTakers } from '../cover';
import { againOn, dayOf, handedOver, onDay, withException } from './later';
import type { Change, RecordView } from './model';
import { fetchRecord, useSeveralLookedAt, type Several } from './queries';
import styles from './records.module.css';
import { words } from './words';

/** What is asked before something is done with a record. */
type Asked = 'handOver' | 'copy' | 'again' | 'oneMore';

/** Which field of it is typed into first. */
const FIRST: Record<Asked, string> = {
  handOver: 'person',
  copy: 'day',
  again: 'day',
  oneMore: 'calendar',
};

interface Values {
  person?: number;
  from?: number;
  day?: string;
  calendar?: number;
  reason?: string;
}

/** Does something with a record as it is now, after a look at what that does to calendars. */
export function useLookedAtRecord(record: RecordView) {
  const several = useSeveralLookedAt();
  const tray = useTray();
  const plan = (
    said: string,
    item: (now: RecordView, tag: string) => Several[number],
    done?: (made: number | undefined) => void,
  ) =>
    fetchRecord(record.id).then(
      ({ data, tag }) =>
        several.mutate([item(data, tag)], {
          onSuccess: (answer) => {
            tray.tell({
              text: `${said}: ${words.outcome(answer.entries ?? 0, answer.calendars ?? 0)}`,
              act: answer.act,
            });
            done?.(answer.record?.id);
          },
        }),
      (error: unknown) =>
        tray.tell({ text: error instanceof ProblemError ? error.message : words.failed }),
    );
  return {
    error: several.error,
    pending: several.isPending,
    change: (said: string, how: (now: RecordView) => Change, done?: () => void) =>
      plan(
        said,
        (now, ifMatch) => ({
          record: now.id,
          ifMatch,
          change: how(now) as Several[number]['change'],
        }),
        done,
      ),
    make: (said: string, how: (now: RecordView) => Change, done?: (made?: number) => void) =>
      plan(said, (now) => ({ like: now.id, make: how(now) as Several[number]['make'] }), done),
  };
}

/** What else can be done with a record: each asks what it needs and is looked at first. */
export function SheetActions({
  record,
  onOpen,
}: {
  record: RecordView;
  onOpen: (id: number) => void;
}) {
  const [asked, setAsked] = useState<Asked | null>(null);
  const deeds = useLookedAtRecord(record);
  const may = (field: string) => record.mayChange.includes(field);
  const ref = record.ref ?? words.work;
  const people = (record.people ?? []).filter((p) => p.person != null);
  const open = record.state !== 'DONE' && record.state !== 'CANCELLED';
  const spans = (record.visits ?? []).some((visit) => visit.start ?? visit.first);
  const navigate = useNavigate();
  const paper = () => void navigate(`/records/${record.id}/paper`);
  usePaperKey(`/records/${record.id}/paper`);
  if (!may('title')) {
    return <Button onClick={paper}>{words.sheetOnPaper}</Button>;
  }
  const items = [
    open && may('people') && people.length > 0 && { key: 'handOver', label: words.handOver },
    { key: 'copy', label: words.copyTo },
    open && record.kind === 'JOB' && spans && { key: 'again', label: words.comeAgain },
    may('exceptions') && { key: 'oneMore', label: words.oneMore },
    { key: 'paper', label: words.sheetOnPaper },
    record.state !== 'CANCELLED' && { key: 'off', label: words.callOff },
  ].filter((one) => one !== false);
  const close = () => setAsked(null);
  const done = ({ from, person, day, calendar, reason }: Values) => {
    if (asked === 'handOver' && from !== undefined && person !== undefined) {
      void deeds.change(words.handedOver(ref), (now) => handedOver(now, from, person), close);
    } else if (asked === 'copy' && day) {
      void deeds.make(
        words.copied(ref),
        (now) => onDay(now, day),
        (made) => {
          close();
          if (made !== undefined) {
            onOpen(made);
          }
        },
      );
    } else if (asked === 'again' && day) {
      void deeds.change(words.comesAgain(ref), (now) => againOn(now, day), close);
    } else if (asked === 'oneMore' && calendar !== undefined) {
      const one = { sort: 'ALSO_HERE' as const, calendar, reason: reason ?? '' };
      void deeds.change(words.putThere(ref), (now) => withException(now, one), close);
    }
  };
  return (
    <>
      <Dropdown
        trigger={['click']}
        menu={{
          items,
          onClick: ({ key }) =>
            key === 'paper'
              ? paper()
              : key === 'off'
                ? void deeds.change(words.calledOff(ref), () => ({ state: 'CANCELLED' }))
                : setAsked(key as Asked),
        }}
      >
        <Button loading={deeds.pending}>{words.moreActions}</Button>
      </Dropdown>
      {asked && (
        <Dialog title={words.asks[asked](ref)} focus={FIRST[asked]} onClose={close}>
          <Form<Values>
            layout="vertical"
            requiredMark={false}
            initialValues={{
              from: people[0]?.person,
              day: addDays(dayOf(record) ?? '', asked === 'again' ? 7 : 1),
            }}
            onFinish={done}
          >
            {asked === 'handOver' && <HandOver record={record} />}
            {(asked === 'copy' || asked === 'again') && (
              <Form.Item label={words.onDay} name="day" rules={[required(words.onDayMissing)]}>
                <DateField />
              </Form.Item>
            )}
            {asked === 'oneMore' && <OneMore />}
            <Answers
              pending={deeds.pending}
              error={deeds.error}
              save={words.asksDone[asked]}
              onClose={close}
            />
          </Form>
        </Dialog>
      )}
      {!asked && deeds.error && <p role="alert">{deeds.error.message}</p>}
    </>
  );
}

const required = (message: string) => ({ required: true, message });

/** As many as are seen at once. */
const MOST_BEST = 5;

/** From whom and to whom, the best at a touch, each with what the trial says of them. */
function HandOver({ record }: { record: RecordView }) {
  const form = Form.useFormInstance<Values>();
  const from = Form.useWatch<number | undefined>('from', form);
  const everybody = usePeople();
  const visit = (record.visits ?? []).find((one) => one.start ?? one.first);
  const takers = useTakers(
    visit && from !== undefined
      ? { record: record.id, visit: visit.no, from, days: 0, minutes: 0 }
      : null,
  );
  const on = new Map(
    (record.people ?? []).flatMap((p) => (p.person == null ? [] : [[p.person, p.name] as const])),
  );
  // The trial tells the best first; of what has no time of its own nothing is tried.
  const best = [...(takers.data?.keys() ?? [])];
  const place = (id: number) => (best.includes(id) ? best.indexOf(id) : best.length);
  const theirs = everybody.data?.find((one) => one.id === from)?.teams ?? [];
  const apart = (teams: number[]) => (teams.some((team) => theirs.includes(team)) ? 0 : 1);
  const crew = (everybody.data ?? [])
    .filter((one) => takesWork(one) && one.id !== from)
    .sort((a, b) => place(a.id) - place(b.id) || apart(a.teams) - apart(b.teams))
    .map((one) => ({
      value: one.id,
      label: one.name,
      hint: takers.data?.get(one.id)?.text,
    }));
  return (
    <>
      {on.size > 1 && (
        <Form.Item label={words.handFrom} name="from">
          <Choice options={[...on].map(([value, label]) => ({ value, label }))} />
        </Form.Item>
      )}
      {on.size === 1 && (
        <Form.Item name="from" hidden>
          <Input />
        </Form.Item>
      )}
      <Form.Item label={words.handTo} name="person" rules={[required(words.handToMissing)]}>
        <Choice options={crew} />
      </Form.Item>
      <ul className={styles.best}>
        {(takers.isLoading ? [] : crew).slice(0, MOST_BEST).map((one) => (
          <li key={one.value}>
            <button
              type="button"
              onClick={() => {
                form.setFieldValue('person', one.value);
                form.submit();
              }}
            >
              <strong>{one.label}</strong>
              <span>{one.hint}</span>
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}

function OneMore() {
  const calendars = useCalendars();
  return (
    <>
      <Form.Item label={words.calendar} name="calendar" rules={[required(words.calendarMissing)]}>
        <Choice
          options={(calendars.data ?? []).map((one) => ({ value: one.id, label: one.name }))}
        />
      </Form.Item>
      <Reason />
    </>
  );
}

function Reason() {
  return (
    <Form.Item label={words.because} name="reason" rules={[required(words.becauseMissing)]}>
      <Input maxLength={200} placeholder={words.exceptionReasonHint} />
    </Form.Item>
  );
}

/** Keeps a record off one calendar, with a reason. */
export function NeverHere({
  record,
  calendar,
  name,
}: {
  record: RecordView;
  calendar: number;
  name: string;
}) {
  const [open, setOpen] = useState(false);
  const deeds = useLookedAtRecord(record);
  return (
    <>
      <Button
        type="link"
        size="small"
        aria-label={`${words.neverHere}: ${name}`}
        onClick={() => setOpen(true)}
      >
        {words.neverHere}
      </Button>
      {open && (
        <Dialog
          focus="reason"
          title={words.neverOn(record.ref ?? words.work, name)}
          onClose={() => setOpen(false)}
        >
          <Form<{ reason: string }>
            layout="vertical"
            requiredMark={false}
            onFinish={({ reason }) =>
              void deeds.change(
                words.tookOff(record.ref ?? words.work),
                (now) => withException(now, { sort: 'NEVER_HERE', calendar, reason }),
                () => setOpen(false),
              )
            }
          >
            <Reason />
            <Answers
              pending={deeds.pending}
              error={deeds.error}
              save={words.neverHereDo}
              onClose={() => setOpen(false)}
            />
          </Form>
        </Dialog>
      )}
    </>
  );
}
