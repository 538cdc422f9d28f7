import { Button, Checkbox, Input } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../shared/api/client';
import { Choice } from '../../shared/ui/Choice';
import { Fault } from '../../shared/ui/Fault';
import { useTray } from '../../shared/ui/tray';
import { useCalendars } from '../records';
import styles from './copies.module.css';
import { useLinkDeeds } from './queries';
import { words } from './words';

type Found = Schemas['FoundCalendar'];

interface Wish {
  writes: number | null;
  alsoRead: 'UNSAID' | 'NOBODY' | 'OTHERS';
  readsBusy: boolean;
}

const NOTHING: Wish = { writes: null, alsoRead: 'UNSAID', readsBusy: false };

/** First the account, looked at; then what each of its calendars is for. */
export function LinkForm({
  ownName,
  mayHouse,
  onDone,
}: {
  ownName: string;
  mayHouse: boolean;
  onDone: () => void;
}) {
  const { tryIt, add } = useLinkDeeds();
  const calendars = useCalendars();
  const tray = useTray();
  const [account, setAccount] = useState({ address: '', user: '', password: '' });
  const [ofTheHouse, setOfTheHouse] = useState(false);
  const [wishes, setWishes] = useState<Record<string, Wish>>({});
  const found = tryIt.data?.found ? tryIt.data.calendars : null;
  const own = calendars.data?.find((c) => c.name === ownName);
  const sources = ofTheHouse ? (calendars.data ?? []) : own ? [own] : [];
  const wish = (one: Found) => wishes[one.href] ?? NOTHING;
  const set = (one: Found, next: Partial<Wish>) =>
    setWishes({ ...wishes, [one.href]: { ...wish(one), ...next } });
  const wanted = (found ?? []).filter((one) => wish(one).writes !== null || wish(one).readsBusy);
  const type = (part: keyof typeof account) => (event: { target: { value: string } }) => {
    setAccount({ ...account, [part]: event.target.value });
    tryIt.reset();
  };
  return (
    <section className={styles.part} aria-label={words.link}>
      <h2>{words.link}</h2>
      <form
        className={styles.account}
        onSubmit={(event) => {
          event.preventDefault();
          tryIt.mutate(account);
        }}
      >
        <label>
          {words.address}
          <Input
            autoFocus
            value={account.address}
            maxLength={300}
            autoComplete="off"
            onChange={type('address')}
          />
        </label>
        <label>
          {words.user}
          <Input value={account.user} maxLength={200} autoComplete="off" onChange={type('user')} />
        </label>
        <label>
          {words.password}
          <Input
            type="password"
            value={account.password}
            maxLength={500}
            autoComplete="new-password"
            onChange={type('password')}
          />
        </label>
        <div className={styles.answers}>
          <Button
            type={found ? 'default' : 'primary'}
            htmlType="submit"
            loading={tryIt.isPending}
            disabled={!account.address || !account.user || !account.password}
          >
            {words.tryIt}
          </Button>
          <Button onClick={onDone}>{words.cancel}</Button>
          {mayHouse && (
            <Checkbox
              checked={ofTheHouse}
              onChange={(event) => {
                setOfTheHouse(event.target.checked);
                setWishes({});
              }}
            >
              {words.house}
            </Checkbox>
          )}
        </div>
      </form>
      {tryIt.error && <Fault error={tryIt.error} />}
      {tryIt.data && (
        <p role="status" className={tryIt.data.found ? styles.good : styles.bad}>
          {tryIt.data.words}
        </p>
      )}
      {found && found.length > 0 && (
        <>
          <ul className={styles.found}>
            {found.map((one) => (
              <li key={one.href}>
                <strong>{one.name}</strong>
                {one.mayWrite === false ? (
                  <span className={styles.quiet}>{words.mayNot}</span>
                ) : (
                  <label>
                    {words.writes}
                    <Choice
                      aria-label={`${one.name}: ${words.writes}`}
                      value={wish(one).writes ?? 0}
                      options={[
                        { value: 0, label: words.nothing },
                        ...sources.map((c) => ({ value: c.id, label: c.name })),
                      ]}
                      onChange={(id) => set(one, { writes: id === 0 ? null : id })}
                    />
                  </label>
                )}
                {wish(one).writes !== null && (
                  <label>
                    {words.also}
                    <Choice
                      aria-label={`${one.name}: ${words.also}`}
                      value={wish(one).alsoRead}
                      options={words.alsoOptions}
                      onChange={(also) => set(one, { alsoRead: also as Wish['alsoRead'] })}
                    />
                  </label>
                )}
                {!ofTheHouse && (
                  <Checkbox
                    checked={wish(one).readsBusy}
                    onChange={(event) => set(one, { readsBusy: event.target.checked })}
                  >
                    {words.reads}
                  </Checkbox>
                )}
              </li>
            ))}
          </ul>
          {add.error && <Fault error={add.error} />}
          <Button
            type="primary"
            disabled={wanted.length === 0}
            loading={add.isPending}
            onClick={() =>
              add.mutate(
                {
                  ...account,
                  ofTheHouse,
                  calendars: wanted.map((one) => ({
                    href: one.href,
                    ...(wish(one).writes !== null && { writes: wish(one).writes ?? undefined }),
                    alsoRead: wish(one).alsoRead,
                    readsBusy: wish(one).readsBusy,
                  })),
                },
                {
                  onSuccess: () => {
                    tray.tell({ text: words.linked });
                    onDone();
                  },
                },
              )
            }
          >
            {words.save}
          </Button>
        </>
      )}
    </section>
  );
}
