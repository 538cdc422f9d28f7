import { Button, Popconfirm } from 'antd';
import { momentText } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import styles from './copies.module.css';
import { Proof } from './LinkProof';
import { valueText, type Link } from './model';
import { useLinkDeeds, useStanding } from './queries';
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

/** What still stands there of a link that is being ended, and the way to end it all the same. */
function Leaving({ link }: { link: Link }) {
  const standing = useStanding(link.id);
  const { leave } = useLinkDeeds();
  const all = standing.data ?? [];
  return (
    <>
      {(standing.error ?? leave.error) && <Fault error={(standing.error ?? leave.error)!} />}
      {all.length > 0 && (
        <details>
          <summary>{words.standsThere(all.length)}</summary>
          <ul className={styles.nearest}>
            {all.map((one, at) => (
              <li key={at}>
                <span>{valueText('TIMES', one.when)}</span>
                <span>{one.title}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
      <Popconfirm
        placement="topLeft"
        title={words.leaveWhy}
        okText={words.leave}
        cancelText={words.cancel}
        onConfirm={() => leave.mutate(link.id)}
      >
        <Button size="small" loading={leave.isPending}>
          {words.leave}
        </Button>
      </Popconfirm>
    </>
  );
}

function One({ link }: { link: Link }) {
  const { end, again, prove, stop, goOn } = useLinkDeeds();
  const written = link.calendars.find((one) => one.writes !== undefined);
  const error = end.error ?? again.error ?? prove.error ?? stop.error ?? goOn.error;
  return (
    <li>
      <div className={styles.linkHead}>
        <strong>
          {link.account} · {link.host}
        </strong>
        <span className={styles.quiet}>
          {link.ends ? words.ending : link.stopped ? words.stopped : link.owner}
        </span>
        <span className={styles.grow} />
        <Button size="small" loading={again.isPending} onClick={() => again.mutate(link.id)}>
          {words.again}
        </Button>
        {link.stopped ? (
          <Button
            size="small"
            type="primary"
            loading={goOn.isPending}
            onClick={() => goOn.mutate(link.id)}
          >
            {words.goOn}
          </Button>
        ) : (
          <Button
            size="small"
            disabled={link.ends}
            loading={stop.isPending}
            onClick={() => stop.mutate(link.id)}
          >
            {words.stop}
          </Button>
        )}
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
          {link.faultSince && words.since(momentText(link.faultSince))}
          {link.faultWords}
        </p>
      )}
      {error && <Fault error={error} />}
      {link.ends && <Leaving link={link} />}
      <ul className={styles.outlets}>
        {link.calendars.map((one) => (
          <li key={one.id}>
            <span>{one.name}</span>
            <span>{one.overruled ? words.overruled : (one.writesName ?? '')}</span>
            <span>
              {one.writes !== undefined || one.sent + one.open > 0
                ? link.ends
                  ? words.toTakeOff(one.open)
                  : words.counts(one.sent, one.open)
                : ''}
              {one.refused > 0 && (
                <strong className={styles.bad}> · {words.refused(one.refused)}</strong>
              )}
            </span>
            <span className={styles.quiet}>
              {one.readsBusy && `${words.busy}, `}
              {one.readAt ? words.readAt(momentText(one.readAt)) : words.neverRead}
            </span>
          </li>
        ))}
      </ul>
      {prove.data && <Proof proof={prove.data} />}
    </li>
  );
}
