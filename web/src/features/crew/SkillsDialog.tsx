import { Checkbox, Form, Input } from 'antd';
import { tagOf, toldOf } from '../../shared/ui/useFormOf';
import { DateField } from '../../shared/ui/Moments';
import { Answers, Dialog, Rows } from '../../shared/ui/Dialog';
import styles from './crew.module.css';
import { useSetSkills, useSkills, type Person } from './queries';
import { words } from './words';

interface Values {
  skills: { skill: string; first?: string; last?: string }[];
  notAlone: boolean;
}

/** What somebody can, each with the days on which it holds, and whether they may stand alone. */
export function SkillsDialog({ person, onClose }: { person: Person; onClose: () => void }) {
  const known = useSkills(person.id);
  const set = useSetSkills(person.id);
  const [form] = Form.useForm<Values>();
  return (
    <Dialog
      title={words.skillsTitle(person.name)}
      reads={[known]}
      loading={words.loading}
      onClose={onClose}
    >
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
                skills: values.skills.map(({ skill, first, last }) => ({
                  skill,
                  ...(first && { first }),
                  ...(last && { last }),
                })),
              },
              { onSuccess: onClose, onError: (error) => toldOf(form, error) },
            )
          }
        >
          <Rows
            name="skills"
            className={styles.skill}
            fresh={() => ({ skill: '' })}
            add={words.skillAdd}
            remove={words.skillOff}
          >
            {(field) => (
              <>
                <Form.Item
                  label={words.skill}
                  name={[field.name, 'skill']}
                  rules={[{ required: true, message: words.skillMissing }]}
                >
                  <Input maxLength={40} />
                </Form.Item>
                <Form.Item label={words.skillFirst} name={[field.name, 'first']}>
                  <DateField short />
                </Form.Item>
                <Form.Item label={words.skillLast} name={[field.name, 'last']}>
                  <DateField short />
                </Form.Item>
              </>
            )}
          </Rows>
          <Form.Item name="notAlone" valuePropName="checked" className={styles.alone}>
            <Checkbox>{words.notAlone}</Checkbox>
          </Form.Item>
          <Answers pending={set.isPending} error={set.error} onClose={onClose} />
        </Form>
      )}
    </Dialog>
  );
}
