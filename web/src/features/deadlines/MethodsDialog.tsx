import { Form, Input, InputNumber } from 'antd';
import { choices } from '../../shared/words';
import { Choice } from '../../shared/ui/Choice';
import { Answers, Dialog, Rows } from '../../shared/ui/Dialog';
import { tagOf, toldOf } from '../../shared/ui/useFormOf';
import type { Schemas } from '../../shared/api/client';
import styles from './deadlines.module.css';
import { useChainDeeds, useMethods } from './queries';
import { words } from './words';

interface Values {
  methods: Schemas['NoticeMethod'][];
}

/** The ways in which a notice goes out, and what each adds. */
export function MethodsDialog({ onClose }: { onClose: () => void }) {
  const methods = useMethods();
  const { setMethods } = useChainDeeds();
  const [form] = Form.useForm<Values>();
  return (
    <Dialog
      width={560}
      title={words.methodsTitle}
      reads={[methods]}
      loading={words.loading}
      onClose={onClose}
    >
      <p>{words.methodsWhy}</p>
      {methods.data && (
        <Form<Values>
          form={form}
          requiredMark={false}
          initialValues={methods.data}
          onFinish={(values) =>
            setMethods.mutate(
              { tag: tagOf(form), methods: values.methods },
              { onSuccess: onClose, onError: (error) => toldOf(form, error) },
            )
          }
        >
          <Form.Item name="tag" hidden>
            <Input />
          </Form.Item>
          <Rows
            name="methods"
            className={styles.method}
            fresh={() => ({ number: 1, unit: 'DAYS' })}
            add={words.addMethod}
            remove={words.removeMethod}
          >
            {(field) => (
              <>
                <Form.Item name={[field.name, 'id']} hidden>
                  <InputNumber />
                </Form.Item>
                <Form.Item name={[field.name, 'name']} rules={[{ required: true }]}>
                  <Input maxLength={80} aria-label={words.methodName} />
                </Form.Item>
                <Form.Item name={[field.name, 'number']} rules={[{ required: true }]}>
                  <InputNumber min={0} max={9999} aria-label={words.adds} />
                </Form.Item>
                <Form.Item name={[field.name, 'unit']}>
                  <Choice aria-label={words.adds} options={choices(words.units)} />
                </Form.Item>
              </>
            )}
          </Rows>
          <Answers pending={setMethods.isPending} error={setMethods.error} onClose={onClose} />
        </Form>
      )}
    </Dialog>
  );
}
