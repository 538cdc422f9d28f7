import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Link as Account } from './model';
import { momentText } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { Changes } from './Changes';
import styles from './copies.module.css';
import { LinkForm } from './LinkForm';
import { LinkList } from './LinkList';
import { copyText, isTrouble, type Copy } from '../records';
import {
  useCopies,
  useDecided,
  useGoOn,
  useHeld,
  useLinks,
  useOutsideChanges,
  useSendNow,
} from './queries';
import { words } from './words';

/** What stands of ours elsewhere: what was changed there, what is on its way, and by which links. */
export function CopiesPage({ person, mayHouse }: { person: number; mayHouse: boolean }) {
  const copies = useCopies();
  const changes = useOutsideChanges();
  const links = useLinks();
  const decided = useDecided();
  const [adding, setAdding] = useState(false);
  if (copies.isPending || links.isPending || changes.isPending) {
    return <Loading what={words.loading} />;
  }
  const error = copies.error ?? links.error ?? changes.error;
  if (error) {
    return <Fault error={error} reads />;
  }
  const still = (copies.data ?? []).filter((one) => one.state === 'ASKED_OFF');
  const open = (copies.data ?? []).filter(
    (one) => one.dueIn !== undefined && one.state !== 'ASKED_OFF',
  );
  const by = decided.data?.find((one) => one.person === person)?.by ?? 'HELD';
  const all = (links.data ?? []).filter((one) => one.mine);
  const others = (links.data ?? []).filter((one) => !one.mine);
  return (
    <div className={styles.page}>
      <div className={styles.bar}>
        <h1 className={styles.heading}>{words.heading}</h1>
        <span className={styles.quiet}>{words.why}</span>
        <span className={styles.grow} />
        {!adding && (
          <Button type={all.length === 0 ? 'primary' : 'default'} onClick={() => setAdding(true)}>
            {words.link}
          </Button>
        )}
      </div>
      {mayHouse && <Held />}
      {adding && (
        <LinkForm
          person={person}
          mayHouse={mayHouse}
          locked={by === 'LOCK'}
          onDone={() => setAdding(false)}
        />
      )}
      <Changes changes={changes.data ?? []} />
      {still.length > 0 && <Still copies={still} />}
      {open.length > 0 && <Open copies={open} />}
      {(all.length > 0 || !adding) && (
        <section className={styles.part} aria-label={words.links}>
          <h2>
            {words.links} {all.length > 0 && <span className="number">{all.length}</span>}
          </h2>
          {words.decidedBy[by] && <p className={styles.quiet}>{words.decidedBy[by]}</p>}
          {all.length === 0 ? (
            <div className={styles.empty}>
              <strong>{words.noLinks}</strong>
              <p>{words.noLinksWhy}</p>
            </div>
          ) : (
            <LinkList links={all} />
          )}
          {all.length > 0 && all.every(isWell) && <p className={styles.quiet}>{words.none}</p>}
        </section>
      )}
      {others.length > 0 && (
        <section className={styles.part} aria-label={words.ofOthers}>
          <h2>
            {words.ofOthers} <span className="number">{others.length}</span>
          </h2>
          <ul className={styles.others}>
            {others.map((one) => (
              <li key={one.id}>
                <strong>{one.owner}</strong>
                <span>
                  {words.counts(
                    one.calendars.reduce((n, c) => n + c.sent, 0),
                    one.calendars.reduce((n, c) => n + c.open, 0),
                  )}
                </span>
                <span className={one.faultWords || refused(one) > 0 ? styles.bad : styles.quiet}>
                  {one.faultSince && words.since(momentText(one.faultSince))}
                  {one.faultWords ?? (refused(one) > 0 ? words.refused(refused(one)) : words.well)}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

function refused(link: Account): number {
  return link.calendars.reduce((n, one) => n + one.refused, 0);
}

/** Nothing is on its way or in trouble by it. */
function isWell(link: Account): boolean {
  return (
    !link.faultWords &&
    refused(link) === 0 &&
    link.calendars.every((calendar) => calendar.open === 0)
  );
}

const FEW = 3;
const MOST = 60;

interface Group {
  copies: Copy[];
  titles: Map<number, string>;
}

/** Copies of which the same is to be said, in one line; what is in trouble first. */
function groups(copies: Copy[]): Group[] {
  const found = new Map<string, Group>();
  for (const copy of copies) {
    const waits = copy.state === 'WAITS' || copy.state === 'SENDING';
    const state = copy.faultWords && waits ? copy.faultWords : copy.state + copy.faultWords;
    const key = [copy.link, copy.calendar, copy.there, state].join('|');
    const group = found.get(key) ?? { copies: [], titles: new Map<number, string>() };
    group.copies.push(copy);
    group.titles.set(copy.record, copy.title);
    found.set(key, group);
  }
  const rank = (group: Group) => (group.copies.some(isTrouble) ? 0 : 1);
  return [...found.values()].sort((one, other) => rank(one) - rank(other));
}

function Open({ copies }: { copies: Copy[] }) {
  const send = useSendNow();
  return (
    <section className={styles.part} aria-label={words.copies}>
      <h2>
        {words.copies} <span className="number">{copies.length}</span>
        <span className={styles.grow} />
        <Button size="small" loading={send.isPending} onClick={() => send.mutate()}>
          {words.sendNow}
        </Button>
      </h2>
      {send.error && <Fault error={send.error} />}
      <ul className={styles.open}>
        {groups(copies)
          .slice(0, MOST)
          .map((group, at) => (
            <Together key={at} group={group} />
          ))}
      </ul>
    </section>
  );
}

function Together({ group }: { group: Group }) {
  const [all, setAll] = useState(false);
  const first = group.copies[0];
  if (!first) {
    return null;
  }
  const titles = [...group.titles].slice(0, all ? MOST : FEW);
  return (
    <li>
      <span>
        {first.calendarName}
        {first.there && <span className={styles.quiet}> · {first.there}</span>}
      </span>
      <span>{words.copyCount(group.copies.length)}</span>
      <span>
        {titles.map(([record, title], n) => (
          <span key={record}>
            {n > 0 && ', '}
            <Link to={`/records/${record}`}>{title}</Link>
          </span>
        ))}
        {group.titles.size > titles.length && (
          <Button className={styles.inline} type="link" size="small" onClick={() => setAll(true)}>
            {words.more(group.titles.size - titles.length)}
          </Button>
        )}
      </span>
      <span className={isTrouble(first) ? styles.bad : styles.onTheWay}>{copyText(first)}</span>
    </li>
  );
}

/** What people still see though it should be gone, and what may be done about it. */
function Still({ copies }: { copies: Copy[] }) {
  return (
    <section className={styles.part} aria-label={words.still}>
      <h2>
        {words.still} <span className="number">{copies.length}</span>
      </h2>
      <p className={styles.quiet}>{words.stillWhy}</p>
      <ul className={styles.open}>
        {copies.slice(0, 100).map((one, at) => (
          <li key={at}>
            <Link to={`/records/${one.record}`}>{one.title}</Link>
            <span>{one.calendarName}</span>
            <span>
              {one.shows.length > 0 && words.shows(one.shows)}
              {one.mayShow.length > 0 && (
                <>
                  {one.shows.length > 0 && ' · '}
                  <Link to={`/records/${one.record}?edit=1`}>{words.replace(one.mayShow)}</Link>
                </>
              )}
            </span>
            <span className={isTrouble(one) ? styles.bad : styles.onTheWay}>{copyText(one)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Held() {
  const held = useHeld();
  const goOn = useGoOn();
  if (!held.data?.held) {
    return null;
  }
  return (
    <section className={styles.part} role="alert">
      <p>{words.held(held.data.open)}</p>
      {goOn.error && <Fault error={goOn.error} />}
      <Button type="primary" loading={goOn.isPending} onClick={() => goOn.mutate()}>
        {words.goOn}
      </Button>
    </section>
  );
}
