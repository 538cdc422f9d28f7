import { Checkbox } from 'antd';
import { api, take, type Schemas } from '../api/client';
import styles from './look.module.css';
import { words } from './words';

type End = Schemas['EndsWith'];

/** What ends with somebody who leaves; feeds and shares can be made anew by whoever does it. */
export function Ends({
  all,
  anew,
  onAnew,
}: {
  all: End[];
  anew: ReadonlySet<End>;
  onAnew: (next: ReadonlySet<End>) => void;
}) {
  const choose = (one: End, chosen: boolean) => {
    const next = new Set(anew);
    if (chosen) {
      next.add(one);
    } else {
      next.delete(one);
    }
    onAnew(next);
  };
  return (
    <section className={styles.seen} aria-label={words.endsHeading}>
      <h3>{words.endsHeading}</h3>
      <ul>
        {counted(all).map(({ one, count }) => (
          <li key={text(one)}>
            <strong>{count > 1 ? `${text(one)} × ${count}` : text(one)}</strong>
            {canBeMadeAnew(one) && (
              <Checkbox
                checked={anew.has(one)}
                aria-label={`${words.anew}: ${text(one)}`}
                onChange={(event) => choose(one, event.target.checked)}
              >
                {words.anew}
              </Checkbox>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Makes it anew, and gives the address where there is one to pass on. */
export async function makeAnew(one: End): Promise<{ label: string; address: string }[]> {
  const { calendar, reader, level, until } = one;
  if (one.sort === 'SHARE' && calendar !== undefined && reader !== undefined && level) {
    await take(
      api.POST('/api/v1/shares', { body: { calendar, reader, level, ...(until && { until }) } }),
    );
    return [];
  }
  if (one.sort === 'FEED' && calendar !== undefined) {
    const label = one.label ?? '';
    const made = await take(
      api.POST('/api/v1/feeds', {
        body: { calendar, label, ...(level && { level }), ...(until && { until }) },
      }),
    );
    return [{ label, address: window.location.origin + made.address }];
  }
  return [];
}

function canBeMadeAnew(one: End): boolean {
  return one.sort === 'FEED' || one.sort === 'SHARE';
}

function text(one: End): string {
  return words.ends[one.sort](one.label ?? '', one.calendarName ?? '', one.readerName ?? '');
}

/** Those that are told alike on one line, and each that can be made anew on its own. */
function counted(all: End[]): { one: End; count: number }[] {
  const found: { one: End; count: number }[] = [];
  for (const one of all) {
    const alike = canBeMadeAnew(one) ? undefined : found.find((f) => f.one.sort === one.sort);
    if (alike) {
      alike.count += 1;
    } else {
      found.push({ one, count: 1 });
    }
  }
  return found;
}
