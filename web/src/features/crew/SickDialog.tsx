import { Form } from 'antd';
import { useNavigate } from 'react-router';
import { takesWork, usePeople } from '../../shared/api/house';
import { today } from '../../shared/time';
import { Choice } from '../../shared/ui/Choice';
import { Answers, Dialog } from '../../shared/ui/Dialog';
import { DateField } from '../../shared/ui/Moments';
import { leftBy } from '../cover';
import styles from './crew.module.css';
import { useAddLeave } from './queries';
import { words } from './words';

interface Values {
  person?: number;
  first: string;
  last?: string;
}

/** Notes that somebody is sick and leads to the work they leave. */
export function SickDialog({ person, onClose }: { person?: number; onClose: () => void }) {
  const people = usePeople();
  const add = useAddLeave();
  const navigate = useNavigate();
  const crew = (people.data ?? []).filter(takesWork);
  const save = ({ person: id, first, last = first }: Values) => {
    const chosen = crew.find((one) => one.id === id);
    if (chosen) {
      add.mutate(
        { person: chosen.id, first, last, sick: true },
        {
          onSuccess: () =>
            void navigate(leftBy({ person: chosen.id, name: chosen.name, first, last })),
        },
      );
    }
  };
  return (
    <Dialog
      title={words.sickTitle}
      reads={[people]}
      loading={words.loading}
      focus={person === undefined ? 'person' : undefined}
      onClose={onClose}
    >
      {people.data && (
        <Form<Values>
          layout="vertical"
          requiredMark={false}
          initialValues={{ person, first: today(), last: today() }}
          onFinish={save}
        >
          <Form.Item
            label={words.sickWho}
            name="person"
            rules={[{ required: true, message: words.sickWhoMissing }]}
          >
            <Choice options={crew.map((one) => ({ value: one.id, label: one.name }))} />
          </Form.Item>
          <div className={styles.adds}>
            <Form.Item label={words.leaveFirst} name="first">
              <DateField />
            </Form.Item>
            <Form.Item label={words.leaveLast} name="last">
              <DateField />
            </Form.Item>
          </div>
          <p className={styles.quiet}>{words.sickNext}</p>
          <Answers
            pending={add.isPending}
            error={add.error}
            save={words.sickSave}
            onClose={onClose}
          />
        </Form>
      )}
    </Dialog>
  );
}
