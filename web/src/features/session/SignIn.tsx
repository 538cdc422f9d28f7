import { Button, Form, Input } from 'antd';
import { Fault } from '../../shared/ui/Fault';
import { Gate } from './Gate';
import { useSignIn, type Session } from './queries';
import styles from './session.module.css';
import { words } from './words';

export function SignIn({ session }: { session: Session }) {
  const { demo } = session;
  const signIn = useSignIn();
  return (
    <Gate title={`${words.title} · ${session.house}`}>
      <Form
        layout="vertical"
        requiredMark={false}
        onFinish={(values: { email: string; password: string }) => signIn.mutate(values)}
      >
        <Form.Item label={words.email} name="email" rules={[{ required: true }]}>
          <Input autoFocus autoComplete="username" inputMode="email" />
        </Form.Item>
        <Form.Item label={words.password} name="password" rules={[{ required: true }]}>
          <Input.Password autoComplete="current-password" />
        </Form.Item>
        {signIn.error && <Fault error={signIn.error} />}
        <Button
          type="primary"
          htmlType="submit"
          block
          loading={signIn.isPending}
          style={{ marginTop: 12 }}
        >
          {words.go}
        </Button>
      </Form>
      {demo && (
        <div className={styles.demo}>
          {words.demo(demo.password)}
          <div className={styles.accounts}>
            {demo.emails.map((email) => (
              <Button
                key={email}
                type="link"
                size="small"
                onClick={() => signIn.mutate({ email, password: demo.password })}
              >
                {email}
              </Button>
            ))}
          </div>
        </div>
      )}
    </Gate>
  );
}
