import { Button } from 'antd';
import { nowMoment } from '../../shared/time';
import { First } from '../../shared/ui/First';
import styles from './cover.module.css';
import type { Clash, Cover, Gap } from './queries';
import { askName, clashText, gapKey, gapWhen, words } from './words';

const HOUR = 3_600_000;

/** So many are told at once; who has more wrong begins with the nearest. */
const FIRST = 100;

/** What is short, what clashes, what is due on top of each other; to choose one of them. */
export function Wrong({
  cover,
  chosen,
  onGap,
  onClash,
  onFill,
}: {
  cover: Cover;
  chosen: Gap | Clash | undefined;
  onGap: (gap: Gap) => void;
  onClash: (clash: Clash) => void;
  onFill: () => void;
}) {
  const { gaps, asks } = cover;
  const askOf = (gap: Gap) => asks.find((one) => one.key === gap.ask);
  const open = inTurn(cover.clashes.filter((one) => !one.letStand));
  const standing = cover.clashes.filter((one) => one.letStand);
  const coming = gaps.filter((gap) => Date.parse(gap.end) > nowMoment()).length;
  const line = (one: Clash) => (
    <li key={one.key}>
      <button type="button" aria-pressed={one === chosen} onClick={() => onClash(one)}>
        <strong>{one.name ?? words.aPlace}</strong>
        {one.never && <b>{words.never}</b>}
        <span>{clashText(one)}</span>
      </button>
    </li>
  );
  return (
    <aside className={styles.list} aria-label={words.wrong}>
      <h1>{words.heading}</h1>
      <h2>{words.short(gaps.length)}</h2>
      {gaps.length === 0 && <p className={styles.quiet}>{words.noGaps}</p>}
      <ul>
        <First
          of={gaps}
          most={FIRST}
          line={(gap) => (
            <li key={gapKey(gap)}>
              <button type="button" aria-pressed={gap === chosen} onClick={() => onGap(gap)}>
                <strong>
                  {askName(askOf(gap))}
                  {gap.skills.length > 0 && <i> · {[...new Set(gap.skills)].join(', ')}</i>}
                </strong>
                <b>{words.missing(gap.shortBy)}</b>
                <span>
                  {gapWhen(gap, askOf(gap)?.zone ?? cover.zone)} · {soon(gap)}
                </span>
              </button>
            </li>
          )}
        />
      </ul>
      {coming > 0 && (
        <p>
          <Button size="small" type="primary" onClick={onFill}>
            {words.suggest(coming)}
          </Button>
        </p>
      )}
      <h2>{words.clashes(open.length)}</h2>
      {open.length === 0 && <p className={styles.quiet}>{words.noClashes}</p>}
      <ul>
        <First of={open} most={FIRST} line={line} />
      </ul>
      {cover.pileUps.length > 0 && <h2>{words.pileUps(cover.pileUps.length)}</h2>}
      <ul>
        <First of={cover.pileUps} most={FIRST} line={line} />
      </ul>
      {standing.length > 0 && <h2>{words.standing(standing.length)}</h2>}
      <ul>
        <First of={standing} most={FIRST} line={line} />
      </ul>
    </aside>
  );
}

/** Those not yet over by start, then those over, the latest first. */
function inTurn(clashes: Clash[]): Clash[] {
  const coming = clashes.filter((one) => Date.parse(one.end) >= nowMoment());
  const over = clashes.filter((one) => Date.parse(one.end) < nowMoment());
  return [...coming, ...over.reverse()];
}

/** How long until it begins. */
function soon(gap: Gap): string {
  const begins = Date.parse(gap.start) - nowMoment();
  if (Date.parse(gap.end) < nowMoment()) {
    return words.over;
  }
  return begins <= 0 ? words.now : words.inHours(Math.ceil(begins / HOUR));
}
