import { Button, Checkbox, Form, Input, Modal } from 'antd';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { tagOf, toldOf } from '../../shared/ui/useFormOf';
import styles from './crew.module.css';
import { useSetSkills, useSkills, type Person } from './queries';
import { words } from './words';

interface Values {
  skills: { skill: string; last?: string }[];
  notAlone: boolean;
}

/** What somebody can, each with its last day, and whether they may stand alone. */
export function SkillsDialog({ person, onClose }: { person: Person; onClose: () => void }) {
  const known = useSkills(person.id);
  const set = useSetSkills(person.id);
  const [form] = Form.useForm<Values>();
  return (
    <Modal open title={words.skillsTitle(person.name)} footer={null} onCancel={onClose}>
      {known.isPending && <Loading what={words.loading} />}
      {known.error && <Fault error={known.error} again={() => void known.refetch()} />}
      {known.data && (
        <Form<Values>
          form={form}
          layout="vertical"
          requiredMark={false}
          initialValues={known.data}
          onFinish={(values) =>
            set.mutate(
              {
                tag: tagOf(form),
                notAlone: values.notAlone,
                skills: values.skills.map(({ skill, last }) => ({ skill, ...(last && { last }) })),
              },
              { onSuccess: onClose, onError: (error) => toldOf(form, error) },
            )
          }
        >
          <Form.List name="skills">
            {(fields, { add, remove }) => (
              <>
                {fields.map((field) => (
                  <div key={field.key} className={styles.skill}>
                    <Form.Item
                      label={words.skill}
                      name={[field.name, 'skill']}
                      rules={[{ required: true, message: words.skillMissing }]}
                    >
                      <Input maxLength={40} />
                    </Form.Item>
                    <Form.Item label={words.skillLast} name={[field.name, 'last']}>
                      <Input type="date" />
                    </Form.Item>
                    <Button
                      size="small"
                      aria-label={words.skillOff}
                      onClick={() => remove(field.name)}
                    >
                      −
                    </Button>
                  </div>
                ))}
                <Button size="small" onClick={() => add({ skill: '' })}>
                  {words.skillAdd}
                </Button>
              </>
            )}
          </Form.List>
          <Form.Item name="notAlone" valuePropName="checked" className={styles.alone}>
            <Checkbox>{words.notAlone}</Checkbox>
          </Form.Item>
          {set.error && <Fault error={set.error} />}
          <div className={styles.answers}>
            <Button type="primary" htmlType="submit" loading={set.isPending}>
              {words.save}
            </Button>
            <Button onClick={onClose}>{words.cancel}</Button>
          </div>
        </Form>
      )}
    </Modal>
  );
}
