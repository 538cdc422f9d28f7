import { Button, Input } from 'antd';
import { useState } from 'react';
import { Fault } from '../../shared/ui/Fault';
import styles from './account.module.css';
import { useOwnTitle, useSetOwnTitle } from './queries';
import { words } from './words';

/** What one calls things on one's own calendar, unless the house says otherwise. */
export function OwnTitle() {
  const own = useOwnTitle();
  const save = useSetOwnTitle();
  const [typed, setTyped] = useState<string | null>(null);
  if (!own.data) {
    return own.error ? <Fault error={own.error} reads /> : null;
  }
  const title = typed ?? own.data.title;
  return (
    <section className={styles.part}>
      <h2>{words.ownTitle}</h2>
      <p>{own.data.fixed ? words.ownTitleFixed(own.data.fixed) : words.ownTitleWhy}</p>
      <form
        className={styles.line}
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate({ title, tag: own.data.tag }, { onSuccess: () => setTyped(null) });
        }}
      >
        <Input
          aria-label={words.ownTitle}
          placeholder={words.ownTitleHint}
          maxLength={300}
          disabled={own.data.fixed !== undefined}
          value={title}
          onChange={(event) => setTyped(event.target.value)}
        />
        <Button
          type="primary"
          htmlType="submit"
          disabled={title === own.data.title}
          loading={save.isPending}
        >
          {words.ownTitleSave}
        </Button>
      </form>
      {save.error && <Fault error={save.error} />}
      <p className={styles.quiet}>
        {words.ownTitleKnows} {own.data.details.map((name) => `{${name}}`).join(' ')}
      </p>
    </section>
  );
}
