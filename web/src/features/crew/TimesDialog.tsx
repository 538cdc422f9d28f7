import { Button, Checkbox, Form, Input, InputNumber } from 'antd';
import { Link } from 'react-router';
import { usePlaces } from '../../shared/api/house';
import { leaveText, spanText } from '../../shared/time';
import { Choice } from '../../shared/ui/Choice';
import { leftBy } from '../cover';
import { Fault } from '../../shared/ui/Fault';
import { partSaved, tagOf, toldOf } from '../../shared/ui/useFormOf';
import { ClockField, DateField } from '../../shared/ui/Moments';
import { Answers, Dialog, Rows } from '../../shared/ui/Dialog';
import styles from './crew.module.css';
import { useAddLeave, useTimes, useTimesDeeds, type Person, type WorkTimes } from './queries';
import { words } from './words';

interface Row {
  weekday: number;
  from: string;
  until: string;
  place?: number;
  first?: string;
  last?: string;
}

interface Values {
  hours: Row[];
  contract?: number;
  zone?: string;
  lastDay?: string;
}

/** When somebody works and when they are away. */
export function TimesDialog({ person, onClose }: { person: Person; onClose: () => void }) {
  const times = useTimes(person.id);
  return (
    <Dialog
      width={860}
      title={words.timesTitle(person.name)}
      reads={[times]}
      loading={words.loading}
      onClose={onClose}
    >
      {times.data && (
        <>
          <Leave person={person} times={times.data} />
          <Days person={person} times={times.data} />
          <Week person={person} times={times.data} onClose={onClose} />
        </>
      )}
    </Dialog>
  );
}

function Leave({ person, times }: { person: Person; times: WorkTimes }) {
  const addLeave = useAddLeave();
  const { agree, removeLeave } = useTimesDeeds(person.id);
  const [form] = Form.useForm<{
    first: string;
    last?: string;
    from?: string;
    until?: string;
    sick: boolean;
  }>();
  const error = addLeave.error ?? agree.error ?? removeLeave.error;
  return (
    <section aria-label={words.leaves}>
      <h3 className={styles.part}>{words.leaves}</h3>
      {times.leave.length === 0 && <p className={styles.quiet}>{words.noLeave}</p>}
      {times.leave.map((one) => (
        <div key={one.id} className={styles.line}>
          <span>{leaveText(one)}</span>
          <span className={one.agreed ? styles.quiet : styles.asks}>
            {[one.sick && words.sick, !one.agreed && words.askedFor].filter(Boolean).join(', ')}
          </span>
          {!one.agreed && (
            <Button size="small" type="primary" onClick={() => agree.mutate(one.id)}>
              {words.agree}
            </Button>
          )}
          <Link to={leftBy({ ...one, person: person.id, name: person.name })}>
            {words.whatIsLeft}
          </Link>
          <Button
            size="small"
            aria-label={`${words.takeOff}: ${leaveText(one)}`}
            onClick={() => removeLeave.mutate(one.id)}
          >
            {words.takeOff}
          </Button>
        </div>
      ))}
      <Form
        form={form}
        className={styles.adds}
        layout="vertical"
        requiredMark={false}
        initialValues={{ sick: false }}
        onFinish={({ first, last, from, until, sick }) =>
          addLeave.mutate(
            {
              person: person.id,
              first,
              ...(last && { last }),
              ...(from && { from }),
              ...(until && { until }),
              sick,
            },
            { onSuccess: () => form.resetFields() },
          )
        }
      >
        <Form.Item label={words.leaveFirst} name="first" rules={[{ required: true, message: '' }]}>
          <DateField />
        </Form.Item>
        <Form.Item label={words.leaveLast} name="last">
          <DateField />
        </Form.Item>
        <Form.Item label={words.leaveFrom} name="from">
          <ClockField />
        </Form.Item>
        <Form.Item label={words.until} name="until">
          <ClockField />
        </Form.Item>
        <Form.Item name="sick" valuePropName="checked">
          <Checkbox>{words.sick}</Checkbox>
        </Form.Item>
        <Button htmlType="submit" loading={addLeave.isPending}>
          {words.addLeave}
        </Button>
      </Form>
      {error && <Fault error={error} />}
    </section>
  );
}

/** Days on which other hours hold. */
function Days({ person, times }: { person: Person; times: WorkTimes }) {
  const places = usePlaces();
  const { setDay, removeDay } = useTimesDeeds(person.id);
  const [form] = Form.useForm<{ day: string; from?: string; until?: string; place?: number }>();
  const placeName = (id?: number) => places.data?.find((one) => one.id === id)?.name;
  const error = setDay.error ?? removeDay.error;
  return (
    <section aria-label={words.otherDays}>
      <h3 className={styles.part}>{words.otherDays}</h3>
      {times.days.map((one) => (
        <div key={`${one.day}@${one.place ?? ''}`} className={styles.line}>
          <span>{spanText({ first: one.day, last: one.day })}</span>
          <span className={styles.quiet}>
            {one.times.length === 0
              ? words.notAtWork
              : one.times.map((t) => `${t.from} – ${t.until}`).join(', ')}
            {one.place && ` · ${placeName(one.place) ?? ''}`}
          </span>
          <Button
            size="small"
            aria-label={`${words.takeOff}: ${one.day}`}
            onClick={() => removeDay.mutate({ day: one.day, place: one.place })}
          >
            {words.takeOff}
          </Button>
        </div>
      ))}
      <Form
        form={form}
        className={styles.adds}
        layout="vertical"
        requiredMark={false}
        onFinish={({ day, from, until, place }) =>
          setDay.mutate(
            { tag: times.tags.days, day, place, times: from && until ? [{ from, until }] : [] },
            { onSuccess: () => form.resetFields() },
          )
        }
      >
        <Form.Item label={words.day} name="day" rules={[{ required: true, message: '' }]}>
          <DateField />
        </Form.Item>
        <Form.Item label={words.from} name="from">
          <ClockField />
        </Form.Item>
        <Form.Item label={words.until} name="until">
          <ClockField />
        </Form.Item>
        <Form.Item label={words.onlyAt} name="place" className={styles.where}>
          <PlaceChoice />
        </Form.Item>
        <Button htmlType="submit" loading={setDay.isPending}>
          {words.addDay}
        </Button>
      </Form>
      {error && <Fault error={error} />}
    </section>
  );
}

function PlaceChoice(props: { value?: number; onChange?: (value: number) => void }) {
  const places = usePlaces();
  return (
    <Choice
      {...props}
      allowClear
      placeholder={words.everywhere}
      style={{ width: '100%' }}
      options={(places.data ?? []).map((one) => ({ value: one.id, label: one.name }))}
    />
  );
}

function Week({
  person,
  times,
  onClose,
}: {
  person: Person;
  times: WorkTimes;
  onClose: () => void;
}) {
  const { setHours, setTerms } = useTimesDeeds(person.id);
  const error = setHours.error ?? setTerms.error;
  const [form] = Form.useForm<Values>();
  const save = async ({ hours, contract, zone, lastDay }: Values) => {
    await setHours.mutateAsync(
      { tag: tagOf(form, 'hours'), hours: hours.map(said) },
      { onError: (error) => toldOf(form, error, 'hours') },
    );
    partSaved(form, 'hours');
    await setTerms.mutateAsync(
      {
        tag: tagOf(form, 'terms'),
        zone: zone?.trim() ? zone.trim() : null,
        contractMinutes: contract == null ? null : Math.round(contract * 60),
        lastDay: lastDay || null,
      },
      { onError: (error) => toldOf(form, error, 'terms') },
    );
    onClose();
  };
  return (
    <Form<Values>
      form={form}
      layout="vertical"
      requiredMark={false}
      initialValues={{
        tags: times.tags,
        hours: times.hours,
        zone: times.zone,
        lastDay: times.lastDay,
        contract: times.contractMinutes == null ? undefined : times.contractMinutes / 60,
      }}
      onFinish={(values) => void save(values).catch(() => undefined)}
    >
      <h3 className={styles.part}>{words.hoursOfWeek}</h3>
      <Hours first={times.hours[0]} />
      <div className={styles.terms}>
        <Form.Item label={words.contract} name="contract">
          <InputNumber min={0} max={168} suffix={words.hoursUnit} />
        </Form.Item>
        <Form.Item label={words.zone} name="zone" extra={words.zoneWhy}>
          <Input maxLength={60} placeholder={words.zoneHint} />
        </Form.Item>
        <Form.Item label={words.lastDay} name="lastDay" extra={words.lastDayWhy}>
          <DateField />
        </Form.Item>
      </div>
      <Answers pending={setHours.isPending || setTerms.isPending} error={error} onClose={onClose} />
    </Form>
  );
}

/** The hours of each weekday; more of them are like the first. */
function Hours({ first }: { first: Row | undefined }) {
  return (
    <Rows
      name="hours"
      className={styles.hours}
      fresh={(count) => ({
        weekday: (count % 7) + 1,
        from: first?.from ?? '08:00',
        until: first?.until ?? '16:00',
      })}
      add={words.addHours}
      remove={words.takeOff}
    >
      {(field, at) => (
        <>
          <Form.Item label={at === 0 && words.weekday} name={[field.name, 'weekday']}>
            <Choice options={words.weekdays} aria-label={words.weekday} />
          </Form.Item>
          <Form.Item label={at === 0 && words.from} name={[field.name, 'from']}>
            <ClockField aria-label={words.from} />
          </Form.Item>
          <Form.Item label={at === 0 && words.until} name={[field.name, 'until']}>
            <ClockField aria-label={words.until} />
          </Form.Item>
          <Form.Item label={at === 0 && words.onlyAt} name={[field.name, 'place']}>
            <PlaceChoice />
          </Form.Item>
          <Form.Item label={at === 0 && words.holdsFrom} name={[field.name, 'first']}>
            <DateField short aria-label={words.holdsFrom} />
          </Form.Item>
          <Form.Item label={at === 0 && words.holdsUntil} name={[field.name, 'last']}>
            <DateField short aria-label={words.holdsUntil} />
          </Form.Item>
        </>
      )}
    </Rows>
  );
}

/** Without what was left empty. */
function said({ weekday, from, until, place, first, last }: Row): Row {
  return {
    weekday,
    from,
    until,
    ...(place && { place }),
    ...(first && { first }),
    ...(last && { last }),
  };
}
