import { Button, Form, Input } from 'antd';
import { useParams } from 'react-router';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { Gate } from './Gate';
import { useAccept, useInvitation, useSignIn } from './queries';
import styles from './session.module.css';
import { words } from './words';

interface Answer {
  name?: string;
  email?: string;
  password: string;
}

/** Where an invitation leads: one sets one's own password and is in. */
export function Welcome() {
  const token = useParams().token ?? '';
  const invitation = useInvitation(token);
  const accept = useAccept(token);
  const signIn = useSignIn();
  if (invitation.isPending) {
    return <Loading what={words.loadingInvitation} />;
  }
  if (invitation.error) {
    return (
      <Gate title={words.title}>
        <Fault error={invitation.error} />
        <p>
          <a href="/">{words.ended}</a>
        </p>
      </Gate>
    );
  }
  const first = !invitation.data.name;
  const begin = async (answer: Answer) => {
    await accept.mutateAsync(answer);
    const email = answer.email ?? invitation.data.email ?? '';
    await signIn.mutateAsync({ email, password: answer.password });
    window.location.assign('/');
  };
  return (
    <Gate title={first ? words.first : words.welcome(invitation.data.name ?? '')}>
      <p className={styles.why}>{first ? words.firstWhy : invitation.data.email}</p>
      <Form
        layout="vertical"
        requiredMark={false}
        onFinish={(answer: Answer) => {
          begin(answer).catch(() => undefined);
        }}
      >
        {first && (
          <>
            <Form.Item label={words.name} name="name" rules={[{ required: true }]}>
              <Input autoFocus autoComplete="name" />
            </Form.Item>
            <Form.Item label={words.email} name="email" rules={[{ required: true }]}>
              <Input autoComplete="username" inputMode="email" />
            </Form.Item>
          </>
        )}
        <Form.Item
          label={words.password}
          name="password"
          rules={[{ required: true }]}
          extra={words.choose}
        >
          <Input.Password autoComplete="new-password" autoFocus={!first} />
        </Form.Item>
        {(accept.error ?? signIn.error) && <Fault error={accept.error ?? signIn.error} />}
        <Button type="primary" htmlType="submit" block loading={accept.isPending}>
          {words.begin}
        </Button>
      </Form>
    </Gate>
  );
}
