import { Button, Form, InputNumber } from 'antd';
import { usePeople, usePlaces } from '../../shared/api/house';
import { Choice } from '../../shared/ui/Choice';
import { Rows } from '../../shared/ui/Dialog';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { useTray } from '../../shared/ui/tray';
import { saved, tagOf, toldOf, useFormOf } from '../../shared/ui/useFormOf';
import styles from './crew.module.css';
import { useMargins, useSetMargins, type Margin } from './queries';
import { words } from './words';

/** Of whom or what a margin is, as it is chosen: house, a kind, place 3 or person 7. */
const HOUSE = 'house';

interface Row {
  of: string;
  before?: number | null;
  after?: number | null;
}

const ofWhat = ({ kind, place, person }: Margin) =>
  kind ?? (place ? `place ${place}` : person ? `person ${person}` : HOUSE);

function said({ of, before, after }: Row): Margin {
  const [what, id] = of.split(' ');
  return {
    ...(id ? { [what!]: Number(id) } : of !== HOUSE && { kind: of as Margin['kind'] }),
    ...(before != null && { before }),
    ...(after != null && { after }),
  };
}

/** The margins of work that states none itself; whose count stands above the list. */
export function Margins() {
  const margins = useMargins();
  const places = usePlaces();
  const people = usePeople();
  const set = useSetMargins();
  const tray = useTray();
  const form = useFormOf<{ margins: Row[] }>(margins.data);
  if (margins.error) {
    return <Fault error={margins.error} reads />;
  }
  if (!margins.data || !places.data || !people.data) {
    return <Loading what={words.loading} />;
  }
  const options = [
    { value: HOUSE, label: words.theHouse },
    ...words.marginKinds,
    ...places.data.map((one) => ({ value: `place ${one.id}`, label: one.name, hint: one.code })),
    ...people.data
      .filter((one) => one.standing !== 'LEFT')
      .map((one) => ({ value: `person ${one.id}`, label: one.name })),
  ];
  return (
    <Form<{ margins: Row[] }>
      form={form}
      className={styles.house}
      requiredMark={false}
      initialValues={{
        tag: margins.data.tag,
        margins: margins.data.margins.map((one) => ({ ...one, of: ofWhat(one) })),
      }}
      onFinish={(values) =>
        set.mutate(
          { tag: tagOf(form), margins: values.margins.map(said) },
          {
            onSuccess: () => {
              saved(form);
              tray.tell({ text: words.marginsSet });
            },
            onError: (error) => toldOf(form, error),
          },
        )
      }
    >
      <p className={styles.quiet}>{words.marginsWhy}</p>
      <Rows
        name="margins"
        className={styles.margins}
        fresh={() => ({})}
        add={words.addMargin}
        remove={words.takeOff}
      >
        {(field) => (
          <>
            <Form.Item
              name={[field.name, 'of']}
              rules={[{ required: true, message: words.marginMissing }]}
            >
              <Choice
                options={options}
                placeholder={words.marginOf}
                aria-label={words.marginOf}
                style={{ width: '100%' }}
              />
            </Form.Item>
            <Minutes name={[field.name, 'before']} label={words.marginBefore} />
            <Minutes name={[field.name, 'after']} label={words.marginAfter} />
          </>
        )}
      </Rows>
      {set.error && <Fault error={set.error} />}
      <div className={styles.last}>
        <Button type="primary" htmlType="submit" loading={set.isPending}>
          {words.save}
        </Button>
      </div>
    </Form>
  );
}

/** Empty: not set. */
function Minutes({ name, label }: { name: [number, string]; label: string }) {
  return (
    <Form.Item name={name}>
      <InputNumber
        min={0}
        max={1440}
        precision={0}
        suffix={label}
        aria-label={label}
        style={{ width: '100%' }}
      />
    </Form.Item>
  );
}
