import { Button, Checkbox, Form, Input, Upload } from 'antd';
import { tagOf, toldOf } from '../../shared/ui/useFormOf';
import { DateField } from '../../shared/ui/Moments';
import { Answers, Dialog, Rows } from '../../shared/ui/Dialog';
import styles from './crew.module.css';
import { useReadHolidays, useRegionDeeds, type Holiday, type Region } from './regionQueries';
import { OwnWeek } from './WorkedDays';
import { words } from './words';

interface Values {
  name: string;
  week?: Region['week'];
  holidays: Holiday[];
}

/** A region's name, week and holidays, which a calendar file may bring. */
export function RegionDialog({ region, onClose }: { region: Region; onClose: () => void }) {
  const { set, remove } = useRegionDeeds();
  const read = useReadHolidays();
  const [form] = Form.useForm<Values>();
  const bringIn = (file: File) =>
    read.mutate(file, {
      onSuccess: ({ holidays }) => {
        const here: Holiday[] = form.getFieldValue('holidays') ?? [];
        const known = new Set(here.map((one) => one.day));
        form.setFieldValue(
          'holidays',
          [...here, ...holidays.filter((one) => !known.has(one.day))].sort((one, other) =>
            one.day < other.day ? -1 : 1,
          ),
        );
      },
    });
  const error = set.error ?? remove.error ?? read.error;
  return (
    <Dialog width={640} title={words.regionTitle(region.name)} onClose={onClose}>
      <Form<Values>
        form={form}
        layout="vertical"
        requiredMark={false}
        initialValues={region}
        onFinish={({ name, week, holidays }) =>
          set.mutate(
            {
              id: region.id,
              tag: tagOf(form),
              name,
              ...(week && week.length > 0 && { week }),
              holidays: holidays.map(({ day, name, half }) => ({ day, name: name ?? '', half })),
            },
            { onSuccess: onClose, onError: (error) => toldOf(form, error) },
          )
        }
      >
        <Form.Item label={words.name} name="name" rules={[{ required: true }]}>
          <Input maxLength={80} />
        </Form.Item>
        <OwnWeek why={words.regionWeekWhy} />
        <div className={styles.holidaysBar}>
          <h3 className={styles.part}>{words.holidays}</h3>
          <Upload
            accept=".ics,text/calendar"
            showUploadList={false}
            beforeUpload={(file) => {
              bringIn(file);
              return false;
            }}
          >
            <Button size="small" loading={read.isPending}>
              {words.readHolidays}
            </Button>
          </Upload>
        </div>
        {read.data && (
          <p className={styles.quiet} role="status">
            {words.holidaysRead(read.data.holidays.length, read.data.until)}
          </p>
        )}
        {read.data && read.data.notRead.length > 0 && (
          <ul className={styles.notRead}>
            {read.data.notRead.map((one) => (
              <li key={one.number}>{words.notRead(one.number, one.summary, one.why)}</li>
            ))}
          </ul>
        )}
        <Holidays />
        <p className={styles.quiet}>{words.halfWhy}</p>
        <Answers pending={set.isPending} error={error} onClose={onClose}>
          <Button
            danger
            loading={remove.isPending}
            onClick={() => remove.mutate(region.id, { onSuccess: onClose })}
          >
            {words.removeRegion}
          </Button>
        </Answers>
      </Form>
    </Dialog>
  );
}

function Holidays() {
  return (
    <Rows
      name="holidays"
      className={styles.holiday}
      fresh={() => ({ half: false })}
      add={words.addHoliday}
      remove={words.takeOff}
    >
      {(field) => (
        <>
          <Form.Item
            name={[field.name, 'day']}
            rules={[{ required: true, message: words.dayMissing }]}
          >
            <DateField aria-label={words.day} />
          </Form.Item>
          <Form.Item name={[field.name, 'name']}>
            <Input maxLength={80} aria-label={words.holiday} />
          </Form.Item>
          <Form.Item name={[field.name, 'half']} valuePropName="checked">
            <Checkbox>{words.half}</Checkbox>
          </Form.Item>
        </>
      )}
    </Rows>
  );
}
