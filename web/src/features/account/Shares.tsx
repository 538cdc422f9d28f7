import { Button, Checkbox } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../shared/api/client';
import { useCalendars, useHouse, usePeople } from '../../shared/api/house';
import { longDayText } from '../../shared/time';
import { Choice } from '../../shared/ui/Choice';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import { DateField } from '../../shared/ui/Moments';
import styles from './account.module.css';
import { useShareDeeds, useShares } from './queries';
import { words, type Level } from './words';

/** Calendars shown to one more reader: offered here, accepted by them, changed and withdrawn. */
export function Shares() {
  const shares = useShares();
  const deeds = useShareDeeds();
  const failed =
    deeds.offer.error ?? deeds.change.error ?? deeds.accept.error ?? deeds.withdraw.error;
  return (
    <section className={styles.part}>
      <h2>{words.shares}</h2>
      <p>{words.sharesWhy}</p>
      <Offer deeds={deeds} />
      {failed && <Fault error={failed} />}
      {shares.isPending && <Loading what={words.loading} />}
      {shares.error && <Fault error={shares.error} reads />}
      {shares.data?.length === 0 && <p className={styles.quiet}>{words.noShares}</p>}
      <ul className={styles.list}>
        {shares.data?.map((share) => (
          <ShareRow key={share.id} share={share} deeds={deeds} />
        ))}
      </ul>
    </section>
  );
}

type Deeds = ReturnType<typeof useShareDeeds>;

/** A calendar offered to somebody. */
function Offer({ deeds }: { deeds: Deeds }) {
  const calendars = useCalendars();
  const people = usePeople();
  const [calendar, setCalendar] = useState<number | null>(null);
  const [reader, setReader] = useState<number | null>(null);
  const [level, setLevel] = useState<Level>('TIMES_AND_PLACE');
  const [until, setUntil] = useState('');
  const [mayPassOn, setMayPassOn] = useState(false);
  return (
    <form
      className={styles.share}
      onSubmit={(event) => {
        event.preventDefault();
        if (calendar !== null && reader !== null) {
          deeds.offer.mutate(
            { calendar, reader, level, mayPassOn, ...(until && { until }) },
            { onSuccess: () => setReader(null) },
          );
        }
      }}
    >
      <Choice
        aria-label={words.shareCalendar}
        placeholder={words.shareCalendar}
        value={calendar}
        options={(calendars.data ?? []).map((c) => ({ value: c.id, label: c.name }))}
        onChange={setCalendar}
      />
      <Choice
        aria-label={words.shareReader}
        placeholder={words.shareReader}
        value={reader}
        options={(people.data ?? []).map((p) => ({ value: p.id, label: p.name }))}
        onChange={setReader}
      />
      <Choice
        aria-label={words.shareLevel}
        value={level}
        options={words.levels}
        onChange={setLevel}
      />
      <label>
        {words.shareUntil}
        <DateField value={until} onChange={setUntil} />
      </label>
      <Checkbox checked={mayPassOn} onChange={(event) => setMayPassOn(event.target.checked)}>
        {words.passOn}
      </Checkbox>
      <Button
        type="primary"
        htmlType="submit"
        disabled={calendar === null || reader === null}
        loading={deeds.offer.isPending}
      >
        {words.offer}
      </Button>
    </form>
  );
}

const levelText = (level: string) =>
  words.levels.find((one) => one.value === level)?.label ?? level;

function ShareRow({ share, deeds }: { share: Schemas['Share']; deeds: Deeds }) {
  const house = useHouse();
  return (
    <li>
      <strong>
        {words.shareOf(share.calendarName, share.mine ? share.givenBy : share.reader, share.mine)}
      </strong>
      <span className={styles.quiet}>
        {share.holds
          ? words.limited(
              levelText(share.holds),
              levelText(share.level),
              house.data?.outsideReason ?? '',
            )
          : levelText(share.level)}
        {share.until && ` · ${words.over(longDayText(share.until))}`}
        {share.mayPassOn && ` · ${words.passOn.toLowerCase()}`}
        {!share.accepted && ` · ${words.notAccepted}`}
      </span>
      {share.mine && !share.accepted && (
        <Button
          size="small"
          type="primary"
          loading={deeds.accept.isPending && deeds.accept.variables === share.id}
          onClick={() => deeds.accept.mutate(share.id)}
        >
          {words.accept}
        </Button>
      )}
      {!share.mine && (
        <Choice
          size="small"
          aria-label={`${words.shareLevel}: ${share.calendarName}, ${share.reader}`}
          value={share.level}
          options={words.levels}
          onChange={(next) =>
            deeds.change.mutate({
              id: share.id,
              tag: share.tag,
              level: next,
              mayPassOn: share.mayPassOn,
              ...(share.until && { until: share.until }),
            })
          }
        />
      )}
      <Button
        size="small"
        aria-label={`${words.withdraw} ${share.calendarName}, ${share.reader}`}
        loading={deeds.withdraw.isPending && deeds.withdraw.variables === share.id}
        onClick={() => deeds.withdraw.mutate(share.id)}
      >
        {share.mine ? words.leave : words.withdraw}
      </Button>
    </li>
  );
}
