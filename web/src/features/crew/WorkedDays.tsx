import { Checkbox, Form, Input } from 'antd';
import { Choice } from '../../shared/ui/Choice';
import { DateField } from '../../shared/ui/Moments';
import { Rows } from '../../shared/ui/Dialog';
import styles from './crew.module.css';
import { useRegions, type WorkedDaysChange } from './regionQueries';
import { words } from './words';

/** In which region something lies and when it is closed; a place may have a week of its own. */
export interface WorkedDaysValues {
  region?: number;
  week?: WorkedDaysChange['week'];
  closures: { first: string; last?: string; why?: string }[];
}

export function workedDaysSaid({ region, week, closures }: WorkedDaysValues): WorkedDaysChange {
  return {
    region: region ?? null,
    ...(week && week.length > 0 && { week }),
    closures: closures.map(({ first, last, why }) => ({
      first,
      last: last || first,
      why: why ?? '',
    })),
  };
}

export function WorkedDaysParts({ of }: { of: 'place' | 'house' }) {
  const regions = useRegions();
  return (
    <>
      <Form.Item
        label={words.liesIn}
        name="region"
        extra={of === 'place' ? words.liesInWhy : words.houseLiesInWhy}
      >
        <Choice
          allowClear
          style={{ width: 280 }}
          placeholder={of === 'place' ? words.asTheHouse : words.noRegion}
          options={(regions.data ?? []).map((one) => ({ value: one.id, label: one.name }))}
        />
      </Form.Item>
      {of === 'place' && <OwnWeek why={words.ownWeekWhy} />}
      <h3 className={styles.part}>{words.closures}</h3>
      <p className={styles.quiet}>{of === 'place' ? words.closuresWhy : words.houseClosuresWhy}</p>
      <Rows
        name="closures"
        className={styles.closure}
        fresh={() => ({})}
        add={words.addClosure}
        remove={words.takeOff}
      >
        {(field) => (
          <>
            <Form.Item
              name={[field.name, 'first']}
              rules={[{ required: true, message: words.dayMissing }]}
            >
              <DateField aria-label={words.leaveFirst} />
            </Form.Item>
            <Form.Item name={[field.name, 'last']}>
              <DateField aria-label={words.leaveLast} />
            </Form.Item>
            <Form.Item name={[field.name, 'why']}>
              <Input maxLength={80} placeholder={words.closedWhy} aria-label={words.closedWhy} />
            </Form.Item>
          </>
        )}
      </Rows>
    </>
  );
}

/** A week where it differs; no day chosen: as what is around it. */
export function OwnWeek({ why }: { why: string }) {
  return (
    <Form.Item label={words.ownWeek} name="week" extra={why}>
      <Checkbox.Group
        options={words.days.map(({ value, label }) => ({ value, label: label.slice(0, 3) }))}
      />
    </Form.Item>
  );
}
