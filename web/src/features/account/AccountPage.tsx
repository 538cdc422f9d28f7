import { Button, Checkbox, Form, Input } from 'antd';
import type { UseQueryResult } from '@tanstack/react-query';
import { useState } from 'react';
import { useCalendars } from '../../shared/api/house';
import { longDayText, momentText } from '../../shared/time';
import { Choice } from '../../shared/ui/Choice';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { letterKeysOn, setLetterKeys } from '../../shared/ui/keys';
import { DateField } from '../../shared/ui/Moments';
import styles from './account.module.css';
import {
  useAppPasswords,
  useChangePassword,
  useEndSession,
  useFeeds,
  useMakeAppPassword,
  useMakeFeed,
  useSessions,
  useWithdraw,
  useWithdrawFeed,
} from './queries';
import { OwnTitle } from './OwnTitle';
import { Shares } from './Shares';
import { words, type Level } from './words';

export function AccountPage({ email }: { email: string }) {
  return (
    <div className={styles.page}>
      <h1 className={styles.heading}>{words.heading}</h1>
      <div className={styles.parts}>
        <Calendars email={email} />
        <Shares />
        <Feeds />
        <AsFile />
        <OwnTitle />
        <Password />
        <Sessions />
        <Keys />
      </div>
    </div>
  );
}

function Calendars({ email }: { email: string }) {
  const list = useAppPasswords();
  const make = useMakeAppPassword();
  const withdraw = useWithdraw();
  const [label, setLabel] = useState('');
  const [password, setPassword] = useState('');
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
          if (label.trim() && password) {
            make.mutate(
              { label, password },
              {
                onSuccess: () => {
                  setLabel('');
                  setPassword('');
                },
              },
            );
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
        <Input.Password
          aria-label={words.yourPassword}
          placeholder={words.yourPassword}
          autoComplete="current-password"
          value={password}
          onChange={(e) => setPassword(e.target.value)}
        />
        <Button
          type="primary"
          htmlType="submit"
          disabled={!label.trim() || !password}
          loading={make.isPending}
        >
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
      <Kept
        list={list}
        none={words.none}
        told={(one) => [one.label, `${words.made} ${momentText(one.madeAt)}`]}
        withdraw={withdraw}
      />
    </section>
  );
}

interface Secret {
  id: number;
  label: string;
  lastUsedAt?: string;
}

/** Secrets that were made, when each was last used, and the way to withdraw it. */
function Kept<T extends Secret>({
  list,
  none,
  told,
  withdraw,
}: {
  list: UseQueryResult<T[]>;
  none: string;
  told: (one: T) => [name: string, fact: string];
  withdraw: { isPending: boolean; variables?: number; mutate: (id: number) => void };
}) {
  return (
    <>
      {list.isPending && <Loading what={words.loading} />}
      {list.error && <Fault error={list.error} reads />}
      {list.data?.length === 0 && <p className={styles.quiet}>{none}</p>}
      <ul className={styles.list}>
        {list.data?.map((one) => {
          const [name, fact] = told(one);
          return (
            <li key={one.id}>
              <strong>{name}</strong>
              <span className={styles.quiet}>
                {fact} ·{' '}
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
          );
        })}
      </ul>
    </>
  );
}

/** Secret addresses of calendars, for programs that only subscribe. */
function Feeds() {
  const feeds = useFeeds();
  const calendars = useCalendars();
  const make = useMakeFeed();
  const withdraw = useWithdrawFeed();
  const [calendar, setCalendar] = useState<number | null>(null);
  const [level, setLevel] = useState<Level>('ALL');
  const [label, setLabel] = useState('');
  const [until, setUntil] = useState('');
  const options = (calendars.data ?? []).map((c) => ({ value: c.id, label: c.name }));
  return (
    <section className={styles.part}>
      <h2>{words.feeds}</h2>
      <p>{words.feedsWhy}</p>
      <form
        className={styles.feed}
        onSubmit={(event) => {
          event.preventDefault();
          if (calendar !== null && label.trim()) {
            make.mutate(
              { calendar, label, level, ...(until && { until }) },
              { onSuccess: () => setLabel('') },
            );
          }
        }}
      >
        <Choice
          aria-label={words.feedCalendar}
          placeholder={words.feedCalendar}
          value={calendar}
          options={options}
          onChange={setCalendar}
        />
        <Choice
          aria-label={words.feedLevel}
          value={level}
          options={words.levels}
          onChange={setLevel}
        />
        <Input
          aria-label={words.feedLabel}
          placeholder={words.feedLabel}
          maxLength={80}
          value={label}
          onChange={(e) => setLabel(e.target.value)}
        />
        <label>
          {words.feedUntil}
          <DateField value={until} onChange={setUntil} />
        </label>
        <Button
          type="primary"
          htmlType="submit"
          disabled={calendar === null || !label.trim()}
          loading={make.isPending}
        >
          {words.makeFeed}
        </Button>
      </form>
      {make.error && <Fault error={make.error} />}
      {make.data && (
        <p className={styles.once} role="status">
          <code>{window.location.origin + make.data.address}</code>
          <span>{words.once}</span>
        </p>
      )}
      <Kept
        list={feeds}
        none={words.noFeeds}
        told={(one) => [
          `${one.label} · ${one.calendarName}`,
          [
            words.levels.find((l) => l.value === one.level)?.label ?? '',
            ...(one.until ? [words.over(longDayText(one.until))] : []),
          ].join(' · '),
        ]}
        withdraw={withdraw}
      />
    </section>
  );
}

/** A calendar as it is now, to be kept or sent on. */
function AsFile() {
  const calendars = useCalendars();
  const [calendar, setCalendar] = useState<number | null>(null);
  const address = (sort: string) =>
    calendar === null ? undefined : `/api/v1/calendars/${calendar}.${sort}`;
  return (
    <section className={styles.part}>
      <h2>{words.asFile}</h2>
      <p>{words.asFileWhy}</p>
      <div className={styles.line}>
        <Choice
          className={styles.fileOf}
          aria-label={words.fileOf}
          placeholder={words.feedCalendar}
          value={calendar}
          options={(calendars.data ?? []).map((c) => ({ value: c.id, label: c.name }))}
          onChange={setCalendar}
        />
        <Button disabled={calendar === null} href={address('ics')}>
          {words.ics}
        </Button>
        <Button disabled={calendar === null} href={address('csv')}>
          {words.csv}
        </Button>
      </div>
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

const FEW = 4;

/** Where one is signed in, each to be ended; the last used first. */
function Sessions() {
  const sessions = useSessions();
  const end = useEndSession();
  const [all, setAll] = useState(false);
  const shown = sessions.data?.slice(0, all ? undefined : FEW) ?? [];
  const more = (sessions.data?.length ?? 0) - shown.length;
  return (
    <section className={styles.part}>
      <h2>{words.sessions}</h2>
      {sessions.isPending && <Loading what={words.loading} />}
      {sessions.error && <Fault error={sessions.error} reads />}
      {end.error && <Fault error={end.error} />}
      <ul className={styles.list}>
        {shown.map((one) => (
          <li key={one.id}>
            <strong>{deviceName(one.device)}</strong>
            <span className={styles.quiet}>
              {words.since(momentText(one.since))} · {words.used} {momentText(one.lastUsedAt)}
            </span>
            {one.here ? (
              <em>{words.here}</em>
            ) : (
              <Button
                size="small"
                aria-label={`${words.endIt}: ${deviceName(one.device)}`}
                loading={end.isPending && end.variables === one.id}
                onClick={() => end.mutate(one.id)}
              >
                {words.endIt}
              </Button>
            )}
          </li>
        ))}
      </ul>
      {more > 0 && (
        <Button type="link" size="small" onClick={() => setAll(true)}>
          {words.more(more)}
        </Button>
      )}
    </section>
  );
}

/** What sort of device a browser says it is on. */
function deviceName(agent: string): string {
  if (!agent) {
    return words.unknownDevice;
  }
  if (agent.includes('Tablet')) {
    return words.tablet;
  }
  return agent.includes('Mobi') ? words.phone : words.computer;
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
