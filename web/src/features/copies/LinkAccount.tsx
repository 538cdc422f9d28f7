import { Button, Checkbox, Input } from 'antd';
import type { Schemas } from '../../shared/api/client';
import { Fault } from '../../shared/ui/Fault';
import styles from './copies.module.css';
import type { Tried } from './model';
import { words } from './words';

const PASSWORD = 'outside-password';

type Account = Schemas['OutsideAccount'];

/** Where the account is, and whether it is right. */
export function LinkAccount({
  account,
  house,
  tried,
  onChange,
  onHouse,
  onTry,
}: {
  account: Account;
  house: boolean | null;
  tried: Tried;
  onChange: (next: Account) => void;
  onHouse: (value: boolean) => void;
  onTry: () => void;
}) {
  const type = (part: keyof Account) => (event: { target: { value: string } }) =>
    onChange({ ...account, [part]: event.target.value });
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        onTry();
      }}
    >
      <div className={styles.account}>
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
            id={PASSWORD}
            type="password"
            value={account.password}
            maxLength={500}
            autoComplete="new-password"
            onChange={type('password')}
          />
        </label>
      </div>
      {house !== null && (
        <p>
          <Checkbox checked={house} onChange={(event) => onHouse(event.target.checked)}>
            {words.house}
          </Checkbox>
        </p>
      )}
      {tried.error && <Fault error={tried.error} />}
      {tried.data && (
        <p role="status" className={tried.data.found ? styles.good : styles.bad}>
          {tried.data.words}
        </p>
      )}
      <div className={styles.answers}>
        <Button
          type="primary"
          htmlType="submit"
          loading={tried.isPending}
          disabled={!account.address || !account.user || !account.password}
        >
          {words.tryIt}
        </Button>
        {tried.data?.elsewhere && (
          <Button
            onClick={() => {
              onChange({ ...account, address: tried.data?.elsewhere ?? '', password: '' });
              document.getElementById(PASSWORD)?.focus();
            }}
          >
            {words.elsewhere(tried.data.elsewhere)}
          </Button>
        )}
      </div>
    </form>
  );
}
