import { Checkbox, Form, Input, InputNumber } from 'antd';
import { usePlaces } from '../../shared/api/house';
import { Choice } from '../../shared/ui/Choice';
import { partSaved, tagOf, toldOf } from '../../shared/ui/useFormOf';
import { Answers, Dialog, Rows } from '../../shared/ui/Dialog';
import { ClockField } from '../../shared/ui/Moments';
import styles from './crew.module.css';
import { usePlaceTerms, useSetPlaceTerms, type Place, type PlaceTerms } from './queries';
import { useSetWorkedDays, useWorkedDays } from './regionQueries';
import { WorkedDaysParts, workedDaysSaid, type WorkedDaysValues } from './WorkedDays';
import { words } from './words';

/** What a place holds at once, where it is, and how long ways from it take. */
export function PlaceDialog({ place, onClose }: { place: Place; onClose: () => void }) {
  const terms = usePlaceTerms(place.id);
  const days = useWorkedDays(place.id);
  const set = useSetPlaceTerms(place.id);
  const setDays = useSetWorkedDays(place.id);
  const error = set.error ?? setDays.error;
  const [form] = Form.useForm<PlaceTerms & WorkedDaysValues>();
  const save = async ({
    capacity,
    ofPeople,
    address,
    latitude,
    longitude,
    ways,
    opening,
    ...worked
  }: PlaceTerms & WorkedDaysValues) => {
    await set.mutateAsync(
      {
        tag: tagOf(form, 'terms'),
        capacity: capacity ?? null,
        ofPeople,
        address: address?.trim() ? address.trim() : null,
        latitude: latitude ?? null,
        longitude: longitude ?? null,
        ways,
        opening,
      },
      { onError: (error) => toldOf(form, error, 'terms') },
    );
    partSaved(form, 'terms');
    await setDays.mutateAsync(
      { tag: tagOf(form, 'days'), ...workedDaysSaid(worked) },
      { onError: (error) => toldOf(form, error, 'days') },
    );
    onClose();
  };
  return (
    <Dialog
      width={640}
      title={words.placeTitle(place.name)}
      reads={[terms, days]}
      loading={words.loading}
      onClose={onClose}
    >
      {terms.data && days.data && (
        <Form<PlaceTerms & WorkedDaysValues>
          form={form}
          layout="vertical"
          requiredMark={false}
          initialValues={{
            ...terms.data,
            ...days.data,
            tags: { terms: terms.data.tag, days: days.data.tag },
          }}
          // What failed is told below.
          onFinish={(values) => void save(values).catch(() => undefined)}
        >
          <div className={styles.adds}>
            <Form.Item label={words.holds} name="capacity">
              <InputNumber min={1} precision={0} placeholder={words.unsaid} />
            </Form.Item>
            <Form.Item name="ofPeople" valuePropName="checked">
              <Checkbox>{words.ofPeople}</Checkbox>
            </Form.Item>
          </div>
          <Form.Item label={words.address} name="address">
            <Input maxLength={200} autoComplete="off" />
          </Form.Item>
          <div className={styles.adds}>
            <Form.Item label={words.latitude} name="latitude">
              <InputNumber min={-90} max={90} />
            </Form.Item>
            <Form.Item label={words.longitude} name="longitude">
              <InputNumber min={-180} max={180} />
            </Form.Item>
          </div>
          <h3 className={styles.part}>{words.opening}</h3>
          <p className={styles.quiet}>{words.openingWhy}</p>
          <Opening />
          <h3 className={styles.part}>{words.ways}</h3>
          <p className={styles.quiet}>{words.waysWhy}</p>
          <Ways place={place} />
          <h3 className={styles.part}>{words.workedDays}</h3>
          <WorkedDaysParts of="place" />
          <Answers pending={set.isPending || setDays.isPending} error={error} onClose={onClose} />
        </Form>
      )}
    </Dialog>
  );
}

/** When work can be done there. */
function Opening() {
  return (
    <Rows
      name="opening"
      className={styles.opening}
      fresh={(count) => ({ weekday: (count % 7) + 1, from: '08:00', until: '17:00' })}
      add={words.addHours}
      remove={words.takeOff}
    >
      {(field) => (
        <>
          <Form.Item name={[field.name, 'weekday']}>
            <Choice options={words.weekdays} aria-label={words.weekday} />
          </Form.Item>
          <Form.Item name={[field.name, 'from']}>
            <ClockField aria-label={words.from} />
          </Form.Item>
          <Form.Item name={[field.name, 'until']}>
            <ClockField aria-label={words.until} />
          </Form.Item>
        </>
      )}
    </Rows>
  );
}

/** How long it takes from here to other places. */
function Ways({ place }: { place: Place }) {
  const places = usePlaces();
  const others = (places.data ?? [])
    .filter((one) => one.id !== place.id)
    .map((one) => ({ value: one.id, label: one.name }));
  return (
    <Rows
      name="ways"
      className={styles.way}
      fresh={() => ({ minutes: 15 })}
      add={words.addWay}
      remove={words.takeOff}
    >
      {(field) => (
        <>
          <Form.Item
            name={[field.name, 'to']}
            rules={[{ required: true, message: words.wayMissing }]}
          >
            <Choice options={others} aria-label={words.wayTo} />
          </Form.Item>
          <Form.Item name={[field.name, 'minutes']}>
            <InputNumber min={0} precision={0} suffix={words.minutes} aria-label={words.minutes} />
          </Form.Item>
        </>
      )}
    </Rows>
  );
}
