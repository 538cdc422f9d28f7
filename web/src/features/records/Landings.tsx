import { Button } from 'antd';
import type { UseQueryResult } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '../../shared/api/client';
import { spanText } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { copyText, isTrouble, type Copy } from './copies';
import type { RecordView } from './model';
import { Section } from './Section';
import { NeverHere } from './SheetActions';
import styles from './records.module.css';
import { reason, words } from './words';

type Lands = Schemas['Lands'];

/** Each calendar a record stands on, how much it sees, and on demand why. */
export function Landings({
  query,
  title,
  planned = false,
  copies = [],
  record,
}: {
  query: UseQueryResult<Schemas['LandingView']>;
  title: (n: number) => string;
  planned?: boolean;
  /** The record's copies in outside calendars, each told under its calendar. */
  copies?: Copy[];
  /** Where it may be kept off a calendar. */
  record?: RecordView;
}) {
  const [why, setWhy] = useState(false);
  if (query.error) {
    return (
      <Section name={title(0)}>
        <Fault error={query.error} />
      </Section>
    );
  }
  const lands = query.data?.lands ?? [];
  const calendars = new Set(lands.map((l) => l.calendar)).size;
  const aside = query.data && (
    <Button type="link" size="small" aria-expanded={why} onClick={() => setWhy(!why)}>
      {why ? words.hideWhy : words.why}
    </Button>
  );
  return (
    <Section
      name={!query.data ? words.looking : calendars === 0 ? words.landsNowhere : title(calendars)}
      aside={aside}
    >
      <ul className={styles.lands}>
        {byCalendar(lands).map((some) => (
          <OnCalendar
            key={some[0]!.calendar}
            lands={some}
            why={why}
            planned={planned}
            copies={copies.filter((copy) => copy.calendar === some[0]!.calendar)}
            record={record}
          />
        ))}
      </ul>
      {why && (query.data?.nowhere.length ?? 0) > 0 && (
        <>
          <h4 className={styles.notThere}>{words.notThere}</h4>
          <ul className={styles.lands}>
            {query.data?.nowhere.map((n) => (
              <li key={n.calendar + reason(n.why)} className={styles.quiet}>
                {n.name}: {reason(n.why)}
              </li>
            ))}
          </ul>
        </>
      )}
    </Section>
  );
}

function byCalendar(lands: Lands[]): Lands[][] {
  const found = new Map<number, Lands[]>();
  lands.forEach((one) => found.set(one.calendar, [...(found.get(one.calendar) ?? []), one]));
  return [...found.values()];
}

/** What stands on one calendar: its visits and families together, each reason once. */
function OnCalendar({
  lands,
  why,
  planned,
  copies,
  record,
}: {
  lands: Lands[];
  why: boolean;
  planned: boolean;
  copies: Copy[];
  record?: RecordView;
}) {
  const first = lands[0]!;
  const once = (all: string[]) => [...new Set(all)];
  const details = lands.flatMap((one) => one.details);
  const shown = once(details.filter((d) => d.shown).map((d) => d.label.toLowerCase()));
  const kept = details.filter((d) => d.because?.startsWith('not for'));
  const waits = lands.find((one) => one.waits)?.waits;
  return (
    <li className={styles.landing}>
      <div>
        <strong>{first.name}</strong>
        {lands.map((one) => (
          <div key={one.family + (one.visit ?? '')} className={styles.small}>
            {entryText(one)}
          </div>
        ))}
        <div className={styles.small}>{shown.join(', ')}</div>
        {latest(copies).map((copy) => (
          <div
            key={copy.there + copy.state}
            className={`${styles.small} ${isTrouble(copy) ? styles.brick : copy.state === 'SENT' ? '' : styles.amber}`}
          >
            {words.copyIn(copy.there)}: {copyText(copy)}
          </div>
        ))}
        {why && (
          <ul className={styles.reasons}>
            {once(lands.flatMap((one) => one.why.map(reason))).map((text) => (
              <li key={text}>{text}</li>
            ))}
            {once(kept.map((d) => `${d.label}: ${d.because}`)).map((text) => (
              <li key={text}>{text}</li>
            ))}
          </ul>
        )}
        {why && record?.mayChange.includes('exceptions') && (
          <NeverHere record={record} calendar={first.calendar} name={first.name} />
        )}
      </div>
      <div
        className={styles.count}
        title={first.details.map((d) => `${d.label}: ${d.because ?? 'shown'}`).join('\n')}
      >
        {words.seesOf(first.asked, first.ofDetails)}
        {waits ? (
          <div className={styles.amber}>{words.waits[waits]}</div>
        ) : (
          !planned && <div>{words.served}</div>
        )}
      </div>
    </li>
  );
}

function entryText(one: Lands): string {
  return [
    [
      one.visit && words.visit(one.visit),
      words.families[one.family],
      one.times && spanText(one.times),
    ]
      .filter(Boolean)
      .join(', '),
    one.late && words.late,
    one.unhanded && words.unhanded,
  ]
    .filter(Boolean)
    .join(' · ');
}

/** Of the copies in one calendar that stand alike, the last that was sent. */
function latest(copies: Copy[]): Copy[] {
  const found = new Map<string, Copy>();
  for (const copy of copies) {
    const key = [copy.there, copy.state, copy.faultWords].join('|');
    const before = found.get(key);
    if (!before || (copy.sentAt ?? '') > (before.sentAt ?? '')) {
      found.set(key, copy);
    }
  }
  return [...found.values()];
}
