import { Button } from 'antd';
import { useCallback, useState } from 'react';
import { Link } from 'react-router';
import { useRead } from '../../shared/api/ask';
import { api } from '../../shared/api/client';
import { useCalendars, usePeople, usePlaces, useTeams } from '../../shared/api/house';
import { keys } from '../../shared/api/keys';
import styles from './today.module.css';
import { words } from './words';

const PUT_AWAY = 'first-steps';

/** What a new house wants first, each a line that leads there; it goes with the first work. */
export function FirstSteps() {
  // Whoever comes with the keyboard begins where there is something to do.
  const begin = useCallback((link: HTMLAnchorElement | null) => link?.focus(), []);
  const [away, setAway] = useState(localStorage.getItem(PUT_AWAY) === 'away');
  const people = usePeople();
  const teams = useTeams();
  const places = usePlaces();
  const calendars = useCalendars();
  const records = useRead(keys.anyRecord, () =>
    api.GET('/api/v1/records', { params: { query: { limit: 1 } } }),
  );
  const known = people.data && teams.data && places.data && records.data && calendars.data;
  if (away || !known || records.data.items.length > 0) {
    return null;
  }
  const steps = [
    { to: '/crew/people', done: people.data.length > 1, ...words.steps.people },
    { to: '/crew/teams', done: teams.data.length > 0, ...words.steps.teams },
    { to: '/crew/places', done: places.data.length > 0, ...words.steps.places },
    { to: '/rules', done: false, ...words.steps.rules },
    { to: '/records/new', done: false, ...words.steps.record },
  ];
  const next = steps.findIndex((step) => !step.done);
  return (
    <section className={styles.steps} aria-label={words.stepsHeading}>
      <h2>{words.stepsHeading}</h2>
      <ol>
        {steps.map((step, i) => (
          <li key={step.to} className={step.done ? styles.stepDone : ''}>
            <Link to={step.to} ref={i === next ? begin : undefined}>
              {step.name}
            </Link>
            <span>{step.done ? words.stepDone : step.why}</span>
          </li>
        ))}
      </ol>
      <Button
        size="small"
        type="text"
        onClick={() => {
          localStorage.setItem(PUT_AWAY, 'away');
          setAway(true);
        }}
      >
        {words.stepsAway}
      </Button>
    </section>
  );
}
