import generateConfig from '@rc-component/picker/generate/dayjs';
import { DatePicker } from 'antd';
import dayjs, { type Dayjs } from 'dayjs';
import { readClock, readDue } from '../time';

const CLOCK = 'HH:mm';
const DAY = 'ddd D MMM YYYY';
const SHORT_DAY = 'D MMM YYYY';

/** What people type is read as everywhere else. */
function parse(_: string, text: string, formats: string[]): Dayjs | null {
  if (formats.includes(CLOCK)) {
    const clock = readClock(text);
    return clock ? dayjs(`2000-01-01T${clock}`) : null;
  }
  const due = readDue(text);
  return due ? dayjs((due.date ?? due.at ?? '').slice(0, 10)) : null;
}

/** A picker of days and times of day, whose week begins on Monday. */
export const Picker = DatePicker.generatePicker<Dayjs>({
  ...generateConfig,
  locale: {
    ...generateConfig.locale,
    parse,
    getWeekFirstDay: () => 1,
    getWeekFirstDate: (_, day) => day.subtract((day.day() + 6) % 7, 'day'),
  },
});

interface Props {
  id?: string;
  /** Empty where nothing is said. */
  value?: string;
  onChange?: (value: string) => void;
  'aria-label'?: string;
}

/** A day, typed as "Fri" or "27 Nov" or picked; its value is 2026-11-27; short for narrow rows. */
export function DateField({ value, onChange, short, ...rest }: Props & { short?: boolean }) {
  return (
    <Picker
      {...rest}
      format={short ? SHORT_DAY : DAY}
      placeholder=""
      value={value ? dayjs(value) : null}
      onChange={(day) => onChange?.(day?.format('YYYY-MM-DD') ?? '')}
    />
  );
}

/** A day of every year, typed as "1 Apr" or picked; its value is 04-01. */
export function YearDayField({ value, onChange, ...rest }: Props) {
  return (
    <Picker
      {...rest}
      format="D MMM"
      placeholder=""
      // A year that has every day.
      value={value ? dayjs(`2028-${value}`) : null}
      onChange={(day) => onChange?.(day?.format('MM-DD') ?? '')}
    />
  );
}

/** A time of day, typed as "8" or "8:30" or picked; its value is 08:30. */
export function ClockField({ value, onChange, ...rest }: Props) {
  return (
    <Picker
      {...rest}
      picker="time"
      format={CLOCK}
      minuteStep={5}
      needConfirm={false}
      showNow={false}
      placeholder=""
      value={value ? dayjs(`2000-01-01T${value}`) : null}
      onChange={(time) => onChange?.(time?.format(CLOCK) ?? '')}
    />
  );
}
