import { Button, InputNumber } from 'antd';
import { Choice } from '../../shared/ui/Choice';
import type { Reminder } from './model';
import styles from './rules.module.css';
import { words } from './words';

const MOST = 5;

/** How long before its due time or start an entry rings, any few times. */
export function Reminders({
  reminders,
  onChange,
}: {
  reminders: Reminder[];
  onChange: (reminders: Reminder[]) => void;
}) {
  const set = (at: number, reminder: Reminder) =>
    onChange(reminders.map((one, i) => (i === at ? reminder : one)));
  return (
    <>
      {reminders.map((one, i) => (
        <div key={i} className={styles.reminder}>
          <InputNumber
            size="small"
            min={0}
            max={99_999}
            precision={0}
            aria-label={words.reminderAmount}
            value={one.amount}
            onChange={(amount) => set(i, { ...one, amount: amount ?? 0 })}
          />
          <Choice
            size="small"
            className={styles.unit}
            aria-label={words.reminderUnit}
            value={one.unit}
            options={Object.entries(words.units).map(([value, [, label]]) => ({ value, label }))}
            onChange={(unit) => set(i, { ...one, unit: unit as typeof one.unit })}
          />
          <Button
            size="small"
            type="text"
            aria-label={words.remove}
            onClick={() => onChange(reminders.filter((_, at) => at !== i))}
          >
            ×
          </Button>
        </div>
      ))}
      {reminders.length < MOST && (
        <Button
          size="small"
          onClick={() => onChange([...reminders, { amount: 30, unit: 'MINUTES' }])}
        >
          {words.remind}
        </Button>
      )}
    </>
  );
}
