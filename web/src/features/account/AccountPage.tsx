import { Button, Checkbox, Form, Input } from 'antd';
import { useState } from 'react';
import { momentText } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { letterKeysOn, setLetterKeys } from '../../shared/ui/keys';
import styles from './account.module.css';
import { useAppPasswords, useChangePassword, useMakeAppPassword, useWithdraw } from './queries';
import { words } from './words';

export function AccountPage({ email }: { email: string }) {
  return (
    <div className={styles.page}>
      <h1 className={styles.heading}>{words.heading}</h1>
      <Calendars email={email} />
      <Password />
      <Keys />
    </div>
  );
}

function Calendars({ email }: { email: string }) {
  const list = useAppPasswords();
  const make = useMakeAppPassword();
  const withdraw = useWithdraw();
  const [label, setLabel] = useState('');
  return (
    <section className={styles.part}>
      <h2>{words.calendars}</h2>
      <p>{words.calendarsWhy}</p>
      <dl className={styles.facts}>
        <dt>{words.address}</dt>
        <dd>
          <code>{window.location.origin}/dav/</code>
        </dd>
        <dt>{words.user}</dt>
        <dd>
          <code>{email}</code>
        </dd>
      </dl>
      <form
        className={styles.line}
        onSubmit={(event) => {
          event.preventDefault();
          if (label.trim()) {
            make.mutate(label, { onSuccess: () => setLabel('') });
          }
        }}
      >
        <Input
          aria-label={words.label}
          placeholder={words.label}
          maxLength={60}
          value={label}
          onChange={(e) => setLabel(e.target.value)}
        />
        <Button type="primary" htmlType="submit" disabled={!label.trim()} loading={make.isPending}>
          {words.make}
        </Button>
      </form>
      {make.error && <Fault error={make.error} />}
      {make.data?.text && (
        <p className={styles.once} role="status">
          <code>{make.data.text}</code>
          <span>{words.once}</span>
        </p>
      )}
      {list.error && <Fault error={list.error} again={() => void list.refetch()} />}
      {list.data?.length === 0 && <p className={styles.quiet}>{words.none}</p>}
      <ul className={styles.list}>
        {list.data?.map((one) => (
          <li key={one.id}>
            <strong>{one.label}</strong>
            <span className={styles.quiet}>
              {words.made} {momentText(one.madeAt)} ·{' '}
              {one.lastUsedAt ? `${words.used} ${momentText(one.lastUsedAt)}` : words.never}
            </span>
            <Button
              size="small"
              aria-label={`${words.withdraw} ${one.label}`}
              loading={withdraw.isPending && withdraw.variables === one.id}
              onClick={() => withdraw.mutate(one.id)}
            >
              {words.withdraw}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Password() {
  const change = useChangePassword();
  const [form] = Form.useForm<{ old: string; password: string }>();
  return (
    <section className={styles.part}>
      <h2>{words.password}</h2>
      <Form
        form={form}
        layout="vertical"
        requiredMark={false}
        onFinish={(values) => change.mutate(values, { onSuccess: () => form.resetFields() })}
      >
        <Form.Item label={words.old} name="old" rules={[{ required: true }]}>
          <Input.Password autoComplete="current-password" />
        </Form.Item>
        <Form.Item label={words.fresh} name="password" rules={[{ required: true }]}>
          <Input.Password autoComplete="new-password" />
        </Form.Item>
        {change.error && <Fault error={change.error} />}
        {change.isSuccess && <p role="status">{words.changed}</p>}
        <Button htmlType="submit" loading={change.isPending}>
          {words.change}
        </Button>
      </Form>
    </section>
  );
}

function Keys() {
  const [on, setOn] = useState(letterKeysOn);
  return (
    <section className={styles.part}>
      <h2>{words.keys}</h2>
      <Checkbox
        checked={on}
        onChange={(event) => {
          setLetterKeys(event.target.checked);
          setOn(event.target.checked);
        }}
      >
        {words.lettersOn}
      </Checkbox>
    </section>
  );
}
