import { Button, Form, InputNumber } from 'antd';
import { Choice } from '../../shared/ui/Choice';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { useTray } from '../../shared/ui/tray';
import { saved, tagOf, toldOf, useFormOf } from '../../shared/ui/useFormOf';
import styles from './crew.module.css';
import { useLimits, useSetLimits, type Limit, type LimitsChange } from './queries';
import { words } from './words';

/** What of it is said in hours; the rest are counts. */
const IN_HOURS: Limit['kind'][] = ['REST', 'LONGEST', 'WEEK', 'PERIOD'];

/** As it is chosen: one that warns may ask for a reason too. */
type Level = Limit['level'] | 'REASON';

const levelOf = (limit: Limit): Level =>
  limit.level === 'WARN' && limit.asksReason ? 'REASON' : limit.level;

type Values = Record<string, { level: Level; amount?: number }> & {
  weekBegins: LimitsChange['weekBegins'];
  periodWeeks: number;
  travelSpeed: number;
};

/** What the house does not want of people's work, and how far it minds. */
export function Limits() {
  const limits = useLimits();
  const set = useSetLimits();
  const tray = useTray();
  const form = useFormOf<Values>(limits.data);
  if (limits.error) {
    return <Fault error={limits.error} reads />;
  }
  if (!limits.data) {
    return <Loading what={words.loading} />;
  }
  const per = (kind: Limit['kind']) => (IN_HOURS.includes(kind) ? 60 : 1);
  const all = limits.data.limits;
  const initial = Object.fromEntries(
    all.map((one) => [
      one.kind,
      { level: levelOf(one), amount: one.amount == null ? undefined : one.amount / per(one.kind) },
    ]),
  );
  return (
    <Form
      form={form}
      className={styles.house}
      requiredMark={false}
      initialValues={{
        ...initial,
        tag: limits.data.tag,
        weekBegins: limits.data.weekBegins,
        periodWeeks: limits.data.periodWeeks,
        travelSpeed: limits.data.travelSpeed,
      }}
      onFinish={(values: Values) =>
        set.mutate(
          {
            tag: tagOf(form),
            weekBegins: values.weekBegins,
            periodWeeks: values.periodWeeks,
            travelSpeed: values.travelSpeed,
            limits: all.map(({ kind }) => ({
              kind,
              level: values[kind]!.level === 'NEVER' ? 'NEVER' : 'WARN',
              asksReason: values[kind]!.level === 'REASON',
              ...(values[kind]!.amount != null && {
                amount: Math.round(values[kind]!.amount * per(kind)),
              }),
            })),
          },
          {
            onSuccess: () => {
              saved(form);
              tray.tell({ text: words.limitsSet });
            },
            onError: (error) => toldOf(form, error),
          },
        )
      }
    >
      <p className={styles.quiet}>{words.limitsWhy}</p>
      {all.map((one) => (
        <div key={one.kind} className={styles.limit}>
          <span>{words.limits[one.kind]}</span>
          {one.amount == null ? (
            <span />
          ) : (
            <Form.Item name={[one.kind, 'amount']}>
              <InputNumber
                min={0}
                suffix={per(one.kind) === 60 ? words.hoursUnit : words.limitUnits[one.kind]}
                aria-label={words.limits[one.kind]}
              />
            </Form.Item>
          )}
          <Form.Item name={[one.kind, 'level']}>
            <Choice
              options={words.levels}
              aria-label={`${words.limits[one.kind]}: ${words.minds}`}
            />
          </Form.Item>
        </div>
      ))}
      <Reckoning />
      {set.error && <Fault error={set.error} />}
      <div className={styles.last}>
        <Button type="primary" htmlType="submit" loading={set.isPending}>
          {words.save}
        </Button>
      </div>
    </Form>
  );
}

/** How hours and ways are reckoned. */
function Reckoning() {
  return (
    <>
      <div className={styles.limit}>
        <span>{words.periodWeeks}</span>
        <Form.Item name="periodWeeks">
          <InputNumber min={0} max={53} suffix={words.weeksUnit} aria-label={words.periodWeeks} />
        </Form.Item>
        <span className={styles.quiet}>{words.zeroIsNone}</span>
      </div>
      <div className={styles.limit}>
        <span>{words.weekBegins}</span>
        <Form.Item name="weekBegins">
          <Choice options={words.days} aria-label={words.weekBegins} />
        </Form.Item>
        <span />
      </div>
      <div className={styles.limit}>
        <span>{words.travelSpeed}</span>
        <Form.Item name="travelSpeed">
          <InputNumber min={1} max={300} suffix={words.speedUnit} aria-label={words.travelSpeed} />
        </Form.Item>
        <span className={styles.quiet}>{words.asTheCrowFlies}</span>
      </div>
    </>
  );
}
