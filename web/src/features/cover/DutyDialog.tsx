import { Button, Checkbox, Form, Input, InputNumber } from 'antd';
import type { Schemas } from '../../shared/api/client';
import { usePlaces } from '../../shared/api/house';
import { Choice } from '../../shared/ui/Choice';
import { tagOf, toldOf } from '../../shared/ui/useFormOf';
import { ClockField, DateField, YearDayField } from '../../shared/ui/Moments';
import { Answers, Dialog, Rows } from '../../shared/ui/Dialog';
import styles from './cover.module.css';
import { useDuties, useDutyDeeds, type DutyWish } from './queries';
import { words } from './words';

interface Values {
  name: string;
  place: number;
  skill?: string;
  meanwhile: boolean;
  spans: SpanValues[];
  lifted?: string;
  others: OtherValues[];
}

/** How many stand, and what each of them needs, where it is not the same for all. */
interface StandValues {
  from: string;
  until: string;
  count: number;
  /** As "sluice, any". */
  oneByOne?: string;
}

type OtherValues = StandValues & { day: string };

type SpanValues = StandValues & {
  weekdays: number[];
  first?: string;
  last?: string;
  season?: { first?: string; last?: string };
};

type Stand = Pick<DutyWish['spans'][number], 'from' | 'until' | 'count' | 'places'>;

function standOf({ from, until, count, oneByOne }: StandValues): Stand {
  const skills = (oneByOne ?? '').split(',').map((one) => one.trim());
  const places = skills.map((skill) => (skill && skill !== words.any ? { skill } : {}));
  return skills.join('') ? { from, until, count: places.length, places } : { from, until, count };
}

const typed = ({ from, until, count, places }: Stand): StandValues => ({
  from,
  until,
  count,
  oneByOne: places?.map((one) => one.skill ?? words.any).join(', '),
});

/** What must be stood: a place, how many, with which skill, over which hours. */
export function DutyDialog({ id, onClose }: { id: number | null; onClose: () => void }) {
  const duties = useDuties();
  return (
    <Dialog
      width={720}
      title={id === null ? words.newDuty : words.changeDuty}
      reads={[duties]}
      loading={words.loading}
      onClose={onClose}
    >
      {duties.data && (
        <DutyForm known={duties.data.find((one) => one.id === id)} onClose={onClose} />
      )}
    </Dialog>
  );
}

function wishOf(
  { name, place, skill, meanwhile, spans, lifted, others }: Values,
  role: number | undefined,
): DutyWish {
  return {
    name,
    place,
    ...(role !== undefined && { role }),
    skill: skill?.trim() ?? '',
    meanwhile,
    spans: spans.map(({ weekdays, first, last, season, ...hours }) => ({
      weekdays,
      ...standOf(hours),
      ...(first && { first }),
      ...(last && { last }),
      ...(season?.first && season.last && { season: { first: season.first, last: season.last } }),
    })),
    lifted: (lifted ?? '').split(/[\s,]+/).filter(Boolean),
    others: others.map(({ day, ...hours }) => ({ day, ...standOf(hours) })),
  };
}

function DutyForm({ known, onClose }: { known: Schemas['Duty'] | undefined; onClose: () => void }) {
  const places = usePlaces();
  const { add, change, remove } = useDutyDeeds();
  const error = add.error ?? change.error ?? remove.error;
  const [form] = Form.useForm<Values>();
  const save = (values: Values) => {
    const body = wishOf(values, known?.role);
    if (known) {
      change.mutate(
        { id: known.id, tag: tagOf(form), ...body },
        { onSuccess: onClose, onError: (error) => toldOf(form, error) },
      );
    } else {
      add.mutate(body, { onSuccess: onClose });
    }
  };
  return (
    <Form<Values>
      form={form}
      layout="vertical"
      requiredMark={false}
      initialValues={{
        tag: known?.tag,
        name: known?.name,
        place: known?.place,
        skill: known?.skill,
        meanwhile: known?.meanwhile ?? false,
        lifted: known?.lifted?.join(' '),
        spans: known?.spans.map((one) => ({ ...one, ...typed(one) })) ?? [
          { weekdays: [1, 2, 3, 4, 5, 6, 7], from: '08:00', until: '20:00', count: 1 },
        ],
        others: known?.others.map((one) => ({ ...one, ...typed(one) })) ?? [],
      }}
      onFinish={save}
    >
      <div className={styles.three}>
        <Form.Item
          label={words.dutyName}
          name="name"
          rules={[{ required: true, message: words.dutyNameMissing }]}
        >
          <Input maxLength={80} autoFocus />
        </Form.Item>
        <Form.Item
          label={words.dutyPlace}
          name="place"
          rules={[{ required: true, message: words.dutyPlaceMissing }]}
        >
          <Choice
            options={(places.data ?? []).map((one) => ({ value: one.id, label: one.name }))}
          />
        </Form.Item>
        <Form.Item label={words.dutySkill} name="skill">
          <Input maxLength={40} placeholder={words.anybody} />
        </Form.Item>
      </div>
      <Spans />
      <Form.Item
        label={words.lifted}
        name="lifted"
        extra={words.liftedWhy}
        className={styles.lifted}
      >
        <Input placeholder="2026-12-25" />
      </Form.Item>
      <h3 className={styles.heads}>{words.otherHours}</h3>
      <OtherDays />
      <Form.Item name="meanwhile" valuePropName="checked">
        <Checkbox>{words.meanwhile}</Checkbox>
      </Form.Item>
      <Answers pending={add.isPending || change.isPending} error={error} onClose={onClose}>
        {known && (
          <Button
            danger
            loading={remove.isPending}
            onClick={() => remove.mutate(known.id, { onSuccess: onClose })}
          >
            {words.dutyOff}
          </Button>
        )}
      </Answers>
    </Form>
  );
}

/** The hours of the week over which so many stand, some of them for a season alone. */
function Spans() {
  return (
    <Rows
      name="spans"
      className={styles.span}
      fresh={() => ({ weekdays: [1, 2, 3, 4, 5, 6, 7], from: '20:00', until: '08:00', count: 1 })}
      add={words.spanAdd}
      remove={words.spanOff}
      least={1}
    >
      {(field) => (
        <>
          <Form.Item className={styles.weekdays} name={[field.name, 'weekdays']}>
            <Checkbox.Group options={words.weekdays} aria-label={words.dutyDays} />
          </Form.Item>
          <StandFields name={field.name} />
          <Form.Item label={words.yearFirst} name={[field.name, 'season', 'first']}>
            <YearDayField />
          </Form.Item>
          <Form.Item label={words.yearLast} name={[field.name, 'season', 'last']}>
            <YearDayField />
          </Form.Item>
          <Form.Item label={words.seasonFirst} name={[field.name, 'first']}>
            <DateField short />
          </Form.Item>
          <Form.Item label={words.seasonLast} name={[field.name, 'last']}>
            <DateField short />
          </Form.Item>
        </>
      )}
    </Rows>
  );
}

/** Days on which other hours hold. */
function OtherDays() {
  return (
    <Rows
      name="others"
      className={styles.other}
      fresh={() => ({ from: '08:00', until: '12:00', count: 1 })}
      add={words.otherAdd}
      remove={words.spanOff}
    >
      {(field) => (
        <>
          <Form.Item
            label={words.otherDay}
            name={[field.name, 'day']}
            rules={[{ required: true, message: words.otherDayMissing }]}
          >
            <DateField short />
          </Form.Item>
          <StandFields name={field.name} />
        </>
      )}
    </Rows>
  );
}

function StandFields({ name }: { name: number }) {
  return (
    <>
      <Form.Item label={words.dutyCount} name={[name, 'count']}>
        <InputNumber min={1} max={99} precision={0} />
      </Form.Item>
      <Form.Item label={words.dutyFrom} name={[name, 'from']}>
        <ClockField />
      </Form.Item>
      <Form.Item label={words.dutyUntil} name={[name, 'until']}>
        <ClockField />
      </Form.Item>
      <Form.Item label={words.oneByOne} name={[name, 'oneByOne']} tooltip={words.oneByOneWhy}>
        <Input maxLength={400} placeholder={words.asTheDuty} />
      </Form.Item>
    </>
  );
}
