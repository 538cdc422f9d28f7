import { Button } from 'antd';
import type { UseQueryResult } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '../../shared/api/client';
import { spanText } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { copyText, isTrouble, type Copy } from './copies';
import { Section } from './Section';
import styles from './records.module.css';
import { reason, words } from './words';

type Lands = Schemas['Lands'];

/** Each calendar a record stands on, how much it sees, and on demand why. */
export function Landings({
  query,
  title,
  planned = false,
  copies = [],
}: {
  query: UseQueryResult<Schemas['LandingView']>;
  title: (n: number) => string;
  planned?: boolean;
  /** The record's copies in outside calendars, each told under its calendar. */
  copies?: Copy[];
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
        {lands.map((landing) => (
          <Landing
            key={landing.calendar + landing.family + (landing.visit ?? '')}
            landing={landing}
            why={why}
            planned={planned}
            copies={copies.filter((copy) => copy.calendar === landing.calendar)}
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

function Landing({
  landing,
  why,
  planned,
  copies,
}: {
  landing: Lands;
  why: boolean;
  planned: boolean;
  copies: Copy[];
}) {
  const kept = landing.details.filter((d) => d.because?.startsWith('not for'));
  const shown = landing.details.filter((d) => d.shown).map((d) => d.label.toLowerCase());
  return (
    <li className={styles.landing}>
      <div>
        <strong>{landing.name}</strong>
        <div className={styles.small}>
          {landing.visit ? words.visit(landing.visit) + ', ' : ''}
          {words.families[landing.family]}
          {landing.times ? `, ${spanText(landing.times)}` : ''}
          {landing.late ? ' · ' + words.late : ''}
          {landing.unhanded ? ' · ' + words.unhanded : ''}
        </div>
        <div className={styles.small}>{shown.join(', ')}</div>
        {copies.map((copy, at) => (
          <div
            key={at}
            className={`${styles.small} ${isTrouble(copy) ? styles.brick : copy.state === 'SENT' ? '' : styles.amber}`}
          >
            {words.copyIn(copy.there)}: {copyText(copy)}
          </div>
        ))}
        {why && (
          <ul className={styles.reasons}>
            {landing.why.map((w) => (
              <li key={w.code + w.subject}>{reason(w)}</li>
            ))}
            {kept.map((d) => (
              <li key={d.label}>
                {d.label}: {d.because}
              </li>
            ))}
          </ul>
        )}
      </div>
      <div
        className={styles.count}
        title={landing.details.map((d) => `${d.label}: ${d.because ?? 'shown'}`).join('\n')}
      >
        {words.seesOf(landing.asked, landing.ofDetails)}
        {landing.waits ? (
          <div className={styles.amber}>{words.waits[landing.waits]}</div>
        ) : (
          !planned && <div>{words.served}</div>
        )}
      </div>
    </li>
  );
}
