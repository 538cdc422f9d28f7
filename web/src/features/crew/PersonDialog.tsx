import { Form, Input } from 'antd';
import type { Schemas } from '../../shared/api/client';
import { Choice } from '../../shared/ui/Choice';
import { tagOf, toldOf } from '../../shared/ui/useFormOf';
import { Answers, Dialog } from '../../shared/ui/Dialog';
import { choices } from '../../shared/words';
import { useChangePerson, type Person, type Team } from './queries';
import { words } from './words';

type Values = Schemas['CrewPersonChange'];

export function PersonDialog({
  person,
  teams,
  onClose,
}: {
  person: Person;
  teams: Team[];
  onClose: () => void;
}) {
  const change = useChangePerson(person.id);
  const [form] = Form.useForm<Values>();
  const right = Form.useWatch('right', form);
  return (
    <Dialog title={words.changeTitle(person.name)} onClose={onClose}>
      <Form
        form={form}
        layout="vertical"
        requiredMark={false}
        initialValues={{
          tag: person.tag,
          name: person.name,
          standing: person.standing,
          right: person.right,
          coordinates: person.coordinates,
        }}
        onFinish={(values) =>
          change.mutate(
            { ...values, tag: tagOf(form) },
            { onSuccess: onClose, onError: (error) => toldOf(form, error) },
          )
        }
      >
        <Form.Item label={words.name} name="name" rules={[{ required: true }]}>
          <Input maxLength={100} />
        </Form.Item>
        <Form.Item label={words.standing} name="standing">
          <Choice options={choices(words.standings)} />
        </Form.Item>
        <Form.Item label={words.right} name="right">
          <Choice options={choices(words.rights)} />
        </Form.Item>
        {right === 'TEAM_COORDINATOR' && (
          <Form.Item label={words.coordinates} name="coordinates">
            <Choice multiple options={teams.map((t) => ({ value: t.id, label: t.name }))} />
          </Form.Item>
        )}
        <Answers pending={change.isPending} error={change.error} onClose={onClose} />
      </Form>
    </Dialog>
  );
}
