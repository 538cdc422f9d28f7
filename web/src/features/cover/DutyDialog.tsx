import { Button, Checkbox, Form, Input, InputNumber, Modal } from 'antd';
import type { Schemas } from '../../shared/api/client';
import { usePlaces } from '../../shared/api/house';
import { Choice } from '../../shared/ui/Choice';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { tagOf, toldOf } from '../../shared/ui/useFormOf';
import styles from './cover.module.css';
import { useDuties, useDutyDeeds, type DutyWish } from './queries';
import { words } from './words';

interface Values {
  name: string;
  place: number;
  skill?: string;
  meanwhile: boolean;
  spans: DutyWish['spans'];
  lifted?: string;
}

/** What must be stood: a place, how many, with which skill, over which hours. */
export function DutyDialog({ id, onClose }: { id: number | null; onClose: () => void }) {
  const duties = useDuties();
  return (
    <Modal
      open
      width={720}
      title={id === null ? words.newDuty : words.changeDuty}
      footer={null}
      onCancel={onClose}
      styles={{ body: { maxHeight: 'calc(100vh - 190px)', overflowY: 'auto' } }}
    >
      {duties.isPending && <Loading what={words.loading} />}
      {duties.error && <Fault error={duties.error} again={() => void duties.refetch()} />}
      {duties.data && (
        <DutyForm known={duties.data.find((one) => one.id === id)} onClose={onClose} />
      )}
    </Modal>
  );
}

function wishOf(
  { name, place, skill, meanwhile, spans, lifted }: Values,
  role: number | undefined,
): DutyWish {
  return {
    name,
    place,
    ...(role !== undefined && { role }),
    skill: skill?.trim() ?? '',
    meanwhile,
    spans: spans.map(({ weekdays, from, until, count, first, last }) => ({
      weekdays,
      from,
      until,
      count,
      ...(first && { first }),
      ...(last && { last }),
    })),
    lifted: (lifted ?? '').split(/[\s,]+/).filter(Boolean),
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
        spans: known?.spans ?? [
          { weekdays: [1, 2, 3, 4, 5, 6, 7], from: '08:00', until: '20:00', count: 1 },
        ],
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
      <Form.Item name="meanwhile" valuePropName="checked">
        <Checkbox>{words.meanwhile}</Checkbox>
      </Form.Item>
      {error && <Fault error={error} />}
      <div className={styles.foot}>
        <Button type="primary" htmlType="submit" loading={add.isPending || change.isPending}>
          {words.save}
        </Button>
        <Button onClick={onClose}>{words.cancel}</Button>
        <span className={styles.grow} />
        {known && (
          <Button
            danger
            loading={remove.isPending}
            onClick={() => remove.mutate(known.id, { onSuccess: onClose })}
          >
            {words.dutyOff}
          </Button>
        )}
      </div>
    </Form>
  );
}

/** The hours of the week over which so many stand, some of them for a season alone. */
function Spans() {
  return (
    <Form.List name="spans">
      {(fields, { add: more, remove: less }) => (
        <>
          {fields.map((field) => (
            <div key={field.key} className={styles.span}>
              <Form.Item label={words.dutyCount} name={[field.name, 'count']}>
                <InputNumber min={1} max={99} precision={0} />
              </Form.Item>
              <Form.Item label={words.dutyFrom} name={[field.name, 'from']}>
                <Input type="time" required />
              </Form.Item>
              <Form.Item label={words.dutyUntil} name={[field.name, 'until']}>
                <Input type="time" required />
              </Form.Item>
              <Form.Item label={words.seasonFirst} name={[field.name, 'first']}>
                <Input type="date" />
              </Form.Item>
              <Form.Item label={words.seasonLast} name={[field.name, 'last']}>
                <Input type="date" />
              </Form.Item>
              <Button
                size="small"
                aria-label={words.spanOff}
                disabled={fields.length === 1}
                onClick={() => less(field.name)}
              >
                −
              </Button>
              <Form.Item className={styles.weekdays} name={[field.name, 'weekdays']}>
                <Checkbox.Group options={words.weekdays} aria-label={words.dutyDays} />
              </Form.Item>
            </div>
          ))}
          <Button
            size="small"
            onClick={() =>
              more({ weekdays: [1, 2, 3, 4, 5, 6, 7], from: '20:00', until: '08:00', count: 1 })
            }
          >
            {words.spanAdd}
          </Button>
        </>
      )}
    </Form.List>
  );
}
