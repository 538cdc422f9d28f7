import { Button, Form } from 'antd';
import { useState } from 'react';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { useTray } from '../../shared/ui/tray';
import { saved, tagOf, toldOf, useFormOf } from '../../shared/ui/useFormOf';
import { Table } from '../../shared/ui/Table';
import { AddLine } from './AddLine';
import styles from './crew.module.css';
import { RegionDialog } from './RegionDialog';
import { useRegionDeeds, useRegions, useSetWorkedDays, useWorkedDays } from './regionQueries';
import { WorkedDaysParts, workedDaysSaid, type WorkedDaysValues } from './WorkedDays';
import { words } from './words';

/** Where the same days are holidays, and where the house itself lies. */
export function RegionList() {
  const regions = useRegions();
  const { add } = useRegionDeeds();
  const [open, setOpen] = useState<number | null>(null);
  if (regions.error) {
    return <Fault error={regions.error} reads />;
  }
  if (!regions.data) {
    return <Loading what={words.loading} />;
  }
  const opened = regions.data.find((one) => one.id === open);
  return (
    <div className={styles.regions}>
      <AddLine
        label={words.addRegion}
        pending={add.isPending}
        error={add.error}
        onAdd={(name, _code, done) =>
          add.mutate(name, {
            onSuccess: ({ id }) => {
              done();
              setOpen(id);
            },
          })
        }
      />
      {regions.data.length === 0 && <p className={styles.teach}>{words.noRegions}</p>}
      {regions.data.length > 0 && (
        <div className={styles.scroll}>
          <Table heads={[words.region, words.week, words.holidays, { unseen: words.change }]}>
            {regions.data.map((one) => (
              <tr key={one.id}>
                <th scope="row">{one.name}</th>
                <td>{one.week ? words.weekShort(one.week) : words.asTheHouse}</td>
                <td>
                  {one.holidays.length === 0
                    ? words.none
                    : words.holidayCount(one.holidays.length, one.holidays.at(-1)!.day)}
                </td>
                <td className={styles.buttons}>
                  <Button
                    size="small"
                    aria-label={`${words.change}: ${one.name}`}
                    onClick={() => setOpen(one.id)}
                  >
                    {words.change}
                  </Button>
                </td>
              </tr>
            ))}
          </Table>
        </div>
      )}
      <OfHouse />
      {opened && <RegionDialog key={opened.id} region={opened} onClose={() => setOpen(null)} />}
    </div>
  );
}

function OfHouse() {
  const days = useWorkedDays();
  const set = useSetWorkedDays();
  const tray = useTray();
  const form = useFormOf<WorkedDaysValues>(days.data);
  if (days.error) {
    return <Fault error={days.error} reads />;
  }
  if (!days.data) {
    return <Loading what={words.loading} />;
  }
  return (
    <Form<WorkedDaysValues>
      form={form}
      className={styles.ofHouse}
      layout="vertical"
      requiredMark={false}
      initialValues={days.data}
      onFinish={(values) =>
        set.mutate(
          { tag: tagOf(form), ...workedDaysSaid(values) },
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
      <h2 className={styles.part}>{words.theHouse}</h2>
      <WorkedDaysParts of="house" />
      {set.error && <Fault error={set.error} />}
      <div className={`${styles.answers} ${styles.alone}`}>
        <Button type="primary" htmlType="submit" loading={set.isPending}>
          {words.save}
        </Button>
      </div>
    </Form>
  );
}
