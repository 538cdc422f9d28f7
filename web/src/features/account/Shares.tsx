import { Button, Checkbox, Input } from 'antd';
import { useState } from 'react';
import { useCalendars, useHouse, usePeople } from '../../shared/api/house';
import { longDayText } from '../../shared/time';
import { Choice } from '../../shared/ui/Choice';
import { Fault } from '../../shared/ui/Fault';
import styles from './account.module.css';
import { useShareDeeds, useShares } from './queries';
import { words, type Level } from './words';

/** Calendars shown to one more reader: offered here, accepted by them, changed and withdrawn. */
export function Shares() {
  const shares = useShares();
  const deeds = useShareDeeds();
  const calendars = useCalendars();
  const people = usePeople();
  const house = useHouse();
  const [calendar, setCalendar] = useState<number | null>(null);
  const [reader, setReader] = useState<number | null>(null);
  const [level, setLevel] = useState<Level>('TIMES_AND_PLACE');
  const [until, setUntil] = useState('');
  const [mayPassOn, setMayPassOn] = useState(false);
  const levelText = (one: string) => words.levels.find((l) => l.value === one)?.label ?? one;
  const failed =
    deeds.offer.error ?? deeds.change.error ?? deeds.accept.error ?? deeds.withdraw.error;
  return (
    <section className={styles.part}>
      <h2>{words.shares}</h2>
      <p>{words.sharesWhy}</p>
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
          <Input type="date" value={until} onChange={(event) => setUntil(event.target.value)} />
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
      {failed && <Fault error={failed} />}
      {shares.error && <Fault error={shares.error} again={() => void shares.refetch()} />}
      {shares.data?.length === 0 && <p className={styles.quiet}>{words.noShares}</p>}
      <ul className={styles.list}>
        {shares.data?.map((one) => (
          <li key={one.id}>
            <strong>
              {words.shareOf(one.calendarName, one.mine ? one.givenBy : one.reader, one.mine)}
            </strong>
            <span className={styles.quiet}>
              {one.holds
                ? words.limited(
                    levelText(one.holds),
                    levelText(one.level),
                    house.data?.outsideReason ?? '',
                  )
                : levelText(one.level)}
              {one.until && ` · ${words.over(longDayText(one.until))}`}
              {one.mayPassOn && ` · ${words.passOn.toLowerCase()}`}
              {!one.accepted && ` · ${words.notAccepted}`}
            </span>
            {one.mine && !one.accepted && (
              <Button
                size="small"
                type="primary"
                loading={deeds.accept.isPending && deeds.accept.variables === one.id}
                onClick={() => deeds.accept.mutate(one.id)}
              >
                {words.accept}
              </Button>
            )}
            {!one.mine && (
              <Choice
                size="small"
                aria-label={`${words.shareLevel}: ${one.calendarName}, ${one.reader}`}
                value={one.level}
                options={words.levels}
                onChange={(next) =>
                  deeds.change.mutate({
                    id: one.id,
                    tag: one.tag,
                    level: next,
                    mayPassOn: one.mayPassOn,
                    ...(one.until && { until: one.until }),
                  })
                }
              />
            )}
            <Button
              size="small"
              aria-label={`${words.withdraw} ${one.calendarName}, ${one.reader}`}
              loading={deeds.withdraw.isPending && deeds.withdraw.variables === one.id}
              onClick={() => deeds.withdraw.mutate(one.id)}
            >
              {one.mine ? words.leave : words.withdraw}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
