import { Form, Input } from 'antd';
import { Answers, Dialog } from '../../shared/ui/Dialog';
import { tagOf, toldOf } from '../../shared/ui/useFormOf';
import { useChangePlace, useRenameTeam, type Place, type Team } from './queries';
import { words } from './words';

interface Values {
  name: string;
  code: string;
  zone?: string;
}

/** What a place is called and in which zone it lies. */
export function PlaceNameDialog({ place, onClose }: { place: Place; onClose: () => void }) {
  const change = useChangePlace(place.id);
  const [form] = Form.useForm<Values>();
  return (
    <Dialog title={words.nameTitle(place.name)} onClose={onClose}>
      <Form<Values>
        form={form}
        layout="vertical"
        requiredMark={false}
        initialValues={{ ...place, tag: place.tag }}
        onFinish={({ name, code, zone }) =>
          change.mutate(
            { tag: tagOf(form), name, code, zone: zone?.trim() ? zone.trim() : null },
            { onSuccess: onClose, onError: (error) => toldOf(form, error) },
          )
        }
      >
        <Form.Item label={words.name} name="name" rules={[{ required: true }]}>
          <Input maxLength={100} />
        </Form.Item>
        <Form.Item label={words.code} name="code" rules={[{ required: true }]}>
          <Input maxLength={12} />
        </Form.Item>
        <Form.Item label={words.zone} name="zone" extra={words.placeZoneWhy}>
          <Input maxLength={60} placeholder={words.zoneHint} />
        </Form.Item>
        <Answers pending={change.isPending} error={change.error} onClose={onClose} />
      </Form>
    </Dialog>
  );
}

/** What a team is called. */
export function TeamNameDialog({ team, onClose }: { team: Team; onClose: () => void }) {
  const change = useRenameTeam(team.id);
  const [form] = Form.useForm<Pick<Values, 'name'>>();
  return (
    <Dialog title={words.nameTitle(team.name)} onClose={onClose}>
      <Form<Pick<Values, 'name'>>
        form={form}
        layout="vertical"
        requiredMark={false}
        initialValues={{ name: team.name, tag: team.tag }}
        onFinish={({ name }) =>
          change.mutate(
            { tag: tagOf(form), name },
            { onSuccess: onClose, onError: (error) => toldOf(form, error) },
          )
        }
      >
        <Form.Item label={words.name} name="name" rules={[{ required: true }]}>
          <Input maxLength={80} />
        </Form.Item>
        <Answers pending={change.isPending} error={change.error} onClose={onClose} />
      </Form>
    </Dialog>
  );
}
