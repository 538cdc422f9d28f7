import { Button, Checkbox } from 'antd';
import { usePeople } from '../../shared/api/house';
import { Choice } from '../../shared/ui/Choice';
import { Fault } from '../../shared/ui/Fault';
import { DateField } from '../../shared/ui/Moments';
import styles from './copies.module.css';
import type { Found, Looked, Wish } from './model';
import { words } from './words';

interface Source {
  id: number;
  name: string;
}

/** What each of the account's calendars is for: written to, read, or left alone. */
export function LinkCalendars({
  said,
  found,
  sources,
  locked,
  readsBusy,
  from,
  wish,
  onFrom,
  onWish,
  ready,
  look,
  onBack,
  onNext,
}: {
  said: string;
  found: Found[];
  sources: Source[];
  locked: boolean;
  readsBusy: boolean;
  from: string;
  wish: (one: Found) => Wish;
  onFrom: (day: string) => void;
  onWish: (one: Found, next: Partial<Wish>) => void;
  ready: boolean;
  look: Looked;
  onBack: () => void;
  onNext: () => void;
}) {
  const writes = found.some((one) => wish(one).writes !== null);
  return (
    <>
      <p role="status" className={styles.good}>
        {said}
      </p>
      {locked && <p className={styles.quiet}>{words.lockedWhy}</p>}
      <ul className={styles.found}>
        {found.map((one) => (
          <FoundCalendar
            key={one.href}
            one={one}
            wish={wish(one)}
            sources={sources}
            readsBusy={readsBusy}
            onWish={(next) => onWish(one, next)}
          />
        ))}
      </ul>
      {writes && (
        <p className={styles.account}>
          <label>
            {words.from}
            <DateField value={from} onChange={onFrom} />
          </label>
        </p>
      )}
      {look.error && <Fault error={look.error} />}
      <div className={styles.answers}>
        <Button type="primary" disabled={!ready} loading={look.isPending} onClick={onNext}>
          {words.lookFirst}
        </Button>
        <Button onClick={onBack}>{words.back}</Button>
      </div>
    </>
  );
}

/** One calendar of the account. */
function FoundCalendar({
  one,
  wish,
  sources,
  readsBusy,
  onWish,
}: {
  one: Found;
  wish: Wish;
  sources: Source[];
  readsBusy: boolean;
  onWish: (next: Partial<Wish>) => void;
}) {
  const people = usePeople();
  return (
    <li>
      <strong>{one.name}</strong>
      {one.mayWrite === false ? (
        <span className={styles.quiet}>{words.mayNot}</span>
      ) : (
        sources.length > 0 && (
          <label>
            {words.writes}
            <Choice
              aria-label={`${one.name}: ${words.writes}`}
              value={wish.writes ?? 0}
              options={[
                { value: 0, label: words.nothing },
                ...sources.map((c) => ({ value: c.id, label: c.name })),
              ]}
              onChange={(id) => onWish({ writes: id === 0 ? null : id })}
            />
          </label>
        )
      )}
      {wish.writes !== null && (
        <>
          <label>
            {words.takes}
            <Choice
              multiple
              aria-label={`${one.name}: ${words.takes}`}
              placeholder={words.everything}
              value={wish.families}
              options={words.families}
              onChange={(families) => onWish({ families })}
            />
          </label>
          <label>
            {words.also}
            <Choice
              aria-label={`${one.name}: ${words.also}`}
              value={wish.alsoRead}
              options={words.alsoOptions}
              onChange={(also) => onWish({ alsoRead: also })}
            />
          </label>
          {wish.alsoRead === 'PEOPLE' && (
            <label>
              {words.whichPeople}
              <Choice
                multiple
                aria-label={`${one.name}: ${words.whichPeople}`}
                value={wish.people}
                options={(people.data ?? []).map((p) => ({ value: p.id, label: p.name }))}
                onChange={(list) => onWish({ people: list })}
              />
            </label>
          )}
        </>
      )}
      {readsBusy && (
        <Checkbox
          checked={wish.readsBusy}
          onChange={(event) => onWish({ readsBusy: event.target.checked })}
        >
          {words.reads}
        </Checkbox>
      )}
    </li>
  );
}
