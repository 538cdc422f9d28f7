import { Button, Checkbox, Form, Input, InputNumber } from 'antd';
import { useHouse } from '../../shared/api/house';
import { Choice } from '../../shared/ui/Choice';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { useTray } from '../../shared/ui/tray';
import { saved, tagOf, toldOf, useFormOf } from '../../shared/ui/useFormOf';
import styles from './crew.module.css';
import { useChangeHouse, type HouseChange } from './queries';
import { words } from './words';

/** What the organisation settles for all: its week, and what readers outside see at most. */
export function House() {
  const house = useHouse();
  const change = useChangeHouse();
  const tray = useTray();
  const form = useFormOf<HouseChange>(house.data);
  if (house.isPending) {
    return <Loading what={words.loading} />;
  }
  if (house.error) {
    return <Fault error={house.error} reads />;
  }
  return (
    <Form<HouseChange>
      form={form}
      className={styles.house}
      layout="vertical"
      requiredMark={false}
      initialValues={house.data}
      onFinish={(values) =>
        change.mutate(
          { ...values, tag: tagOf(form) },
          {
            onSuccess: () => {
              saved(form);
              tray.tell({ text: words.settled });
            },
            onError: (error) => toldOf(form, error),
          },
        )
      }
    >
      <Form.Item label={words.houseName} name="name" rules={[{ required: true }]}>
        <Input maxLength={80} />
      </Form.Item>
      <Form.Item label={words.week} extra={words.weekWhy} name="week">
        <Checkbox.Group options={words.days} />
      </Form.Item>
      <Form.Item label={words.outside} extra={words.outsideWhy} name="outsideLimit">
        <Choice options={words.outsideLevels} />
      </Form.Item>
      <Form.Item label={words.outsideReason} extra={words.outsideReasonWhy} name="outsideReason">
        <Input maxLength={200} />
      </Form.Item>
      <Form.Item extra={words.trustsWhy} name="trustsOwnFeeds" valuePropName="checked">
        <Checkbox>{words.trusts}</Checkbox>
      </Form.Item>
      <Form.Item label={words.copiesWait} extra={words.copiesWaitWhy} name="copiesWait">
        <InputNumber
          min={0}
          max={300}
          precision={0}
          style={{ width: 130 }}
          suffix={words.seconds}
        />
      </Form.Item>
      <Form.Item
        label={words.readingInterval}
        extra={words.readingIntervalWhy}
        name="readingInterval"
      >
        <InputNumber
          min={60}
          max={86400}
          precision={0}
          style={{ width: 130 }}
          suffix={words.seconds}
        />
      </Form.Item>
      <Form.Item label={words.decidedBy} extra={words.decidedByWhy} name="linksDecidedBy">
        <Choice options={words.deciders} />
      </Form.Item>
      {change.error && <Fault error={change.error} />}
      <Button type="primary" htmlType="submit" loading={change.isPending}>
        {words.save}
      </Button>
    </Form>
  );
}
