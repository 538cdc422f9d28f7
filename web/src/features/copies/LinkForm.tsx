import { Button } from 'antd';
import { useState } from 'react';
import { useCalendars } from '../../shared/api/house';
import styles from './copies.module.css';
import { LinkAccount } from './LinkAccount';
import { LinkCalendars } from './LinkCalendars';
import { LinkLook } from './LinkLook';
import { LinkProof } from './LinkProof';
import { bodyOf, NOTHING, type Found, type Wish } from './model';
import { useLinkDeeds } from './queries';
import { words } from './words';

/** Step by step: the account, what its calendars are for, a look at what that would do, a proof. */
export function LinkForm({
  person,
  mayHouse,
  locked,
  onDone,
}: {
  person: number;
  mayHouse: boolean;
  locked: boolean;
  onDone: () => void;
}) {
  const deeds = useLinkDeeds();
  const calendars = useCalendars();
  const [step, setStep] = useState(0);
  const [account, setAccount] = useState({ address: '', user: '', password: '' });
  const [ofTheHouse, setOfTheHouse] = useState(false);
  const [from, setFrom] = useState('');
  const [wishes, setWishes] = useState<Record<string, Wish>>({});
  const [made, setMade] = useState<number | null>(null);
  const found = deeds.tryIt.data?.found ? deeds.tryIt.data.calendars : [];
  const own = calendars.data?.find((c) => c.sort === 'OWN' && c.owner === person);
  const sources = ofTheHouse ? (calendars.data ?? []) : own && !locked ? [own] : [];
  const wish = (one: Found) => wishes[one.href] ?? NOTHING;
  const wanted = found.filter((one) => wish(one).writes !== null || wish(one).readsBusy);
  const body = {
    ...account,
    ofTheHouse,
    calendars: wanted.map((one) => bodyOf(one, wish(one), from)),
  };
  return (
    <section className={styles.part} aria-label={words.link}>
      <h2>
        {words.steps[step]}
        <span className={styles.quiet}>{words.stepOf(step + 1, words.steps.length)}</span>
        <span className={styles.grow} />
        {made === null && (
          <Button size="small" onClick={onDone}>
            {words.cancel}
          </Button>
        )}
      </h2>
      {step === 0 && (
        <LinkAccount
          account={account}
          house={mayHouse ? ofTheHouse : null}
          tried={deeds.tryIt}
          onChange={(next) => {
            setAccount(next);
            deeds.tryIt.reset();
          }}
          onHouse={(value) => {
            setOfTheHouse(value);
            setWishes({});
          }}
          onTry={() =>
            deeds.tryIt.mutate(account, {
              onSuccess: (tried) => tried.calendars.length > 0 && setStep(1),
            })
          }
        />
      )}
      {step === 1 && (
        <LinkCalendars
          said={deeds.tryIt.data?.words ?? ''}
          found={found}
          sources={sources}
          locked={locked && !ofTheHouse}
          readsBusy={!ofTheHouse}
          from={from}
          wish={wish}
          onFrom={setFrom}
          onWish={(one, next) => setWishes({ ...wishes, [one.href]: { ...wish(one), ...next } })}
          ready={wanted.length > 0}
          look={deeds.look}
          onBack={() => setStep(0)}
          onNext={() => deeds.look.mutate(body, { onSuccess: () => setStep(2) })}
        />
      )}
      {step === 2 && (
        <LinkLook
          look={deeds.look.data ?? []}
          add={deeds.add}
          onBack={() => setStep(1)}
          onLink={() =>
            deeds.add.mutate(body, {
              onSuccess: ({ id }) => {
                setMade(id);
                setStep(3);
              },
            })
          }
        />
      )}
      {step === 3 && made !== null && <LinkProof link={made} onDone={onDone} />}
    </section>
  );
}
