import { Button, Popconfirm } from 'antd';
import { momentText } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import styles from './copies.module.css';
import type { Link } from './model';
import { useLinkDeeds } from './queries';
import { words } from './words';

/** The accounts, how each is, and what its calendars are for. */
export function LinkList({ links }: { links: Link[] }) {
  return (
    <ul className={styles.links}>
      {links.map((link) => (
        <One key={link.id} link={link} />
      ))}
    </ul>
  );
}

function One({ link }: { link: Link }) {
  const { end, again, prove } = useLinkDeeds();
  const written = link.calendars.find((one) => one.writes !== undefined);
  return (
    <li>
      <div className={styles.linkHead}>
        <strong>
          {link.account} · {link.host}
        </strong>
        <span className={styles.quiet}>{link.ends ? words.ending : link.owner}</span>
        <span className={styles.grow} />
        <Button size="small" loading={again.isPending} onClick={() => again.mutate(link.id)}>
          {words.again}
        </Button>
        {written && (
          <Button
            size="small"
            loading={prove.isPending}
            onClick={() => prove.mutate({ id: link.id, calendar: written.id })}
          >
            {words.prove}
          </Button>
        )}
        <Popconfirm
          title={words.endWhy}
          okText={words.end}
          cancelText={words.cancel}
          onConfirm={() => end.mutate(link.id)}
        >
          <Button size="small" disabled={link.ends} loading={end.isPending}>
            {words.end}
          </Button>
        </Popconfirm>
      </div>
      {link.faultWords && (
        <p className={styles.bad}>
          {link.faultWords} {link.faultSince && words.since(momentText(link.faultSince))}
        </p>
      )}
      {(end.error ?? again.error ?? prove.error) && (
        <Fault error={end.error ?? again.error ?? prove.error} />
      )}
      <ul className={styles.outlets}>
        {link.calendars.map((one) => (
          <li key={one.id}>
            <span>{one.name}</span>
            <span>{one.writesName ?? ''}</span>
            <span>
              {one.writes !== undefined || one.sent + one.open > 0
                ? words.counts(one.sent, one.open)
                : ''}
            </span>
            <span className={styles.quiet}>
              {one.readsBusy && `${words.busy}, `}
              {one.readAt ? words.readAt(momentText(one.readAt)) : words.neverRead}
            </span>
          </li>
        ))}
      </ul>
      {prove.data && (
        <div className={styles.proof} role="status">
          <p className={prove.data.good ? styles.good : styles.bad}>{prove.data.words}</p>
          {prove.data.steps
            .filter((step) => step.sent)
            .map((step) => (
              <dl key={step.what} className={styles.sides}>
                <div>
                  <dt>
                    {step.what}: {words.sent.toLowerCase()}
                  </dt>
                  <dd>{step.sent}</dd>
                </div>
                <div>
                  <dt>
                    {words.theirs.toLowerCase()}, {words.proven[String(step.good)]}
                  </dt>
                  <dd>{step.read}</dd>
                </div>
              </dl>
            ))}
        </div>
      )}
    </li>
  );
}
