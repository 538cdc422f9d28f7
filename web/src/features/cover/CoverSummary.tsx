import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import styles from './cover.module.css';
import { useCover } from './queries';
import { askName, clashText, gapWhen, words } from './words';

/** What is short and clashes in these days, in words; for paper. */
export function CoverSummary({ from, until }: { from: string; until: string }) {
  const asked = useCover(from, until);
  const cover = asked.data;
  // On paper nothing short and nothing known of it would look the same.
  if (asked.error) {
    return <Fault error={asked.error} reads />;
  }
  if (!cover || cover.from !== from || cover.until !== until) {
    return <Loading what={words.loading} />;
  }
  const ask = (key: string) => cover.asks.find((one) => one.key === key);
  const open = cover.clashes.filter((one) => !one.letStand);
  return (
    <section className={styles.summary} aria-label={words.heading}>
      <h2>
        {words.short(cover.gaps.length)}{' '}
        <span>
          {cover.sharePerMille === undefined ? words.noShare : words.share(cover.sharePerMille)}
        </span>
      </h2>
      <ul>
        {cover.gaps.map((gap) => (
          <li key={gap.ask + gap.start}>
            <strong>{askName(ask(gap.ask))}</strong>{' '}
            {gapWhen(gap, ask(gap.ask)?.zone ?? cover.zone)}, {words.missing(gap.shortBy)}
          </li>
        ))}
      </ul>
      <h2>{words.clashes(open.length)}</h2>
      <ul>
        {open.map((one) => (
          <li key={one.key}>
            <strong>{one.name ?? words.aPlace}</strong> {clashText(one)}
          </li>
        ))}
      </ul>
    </section>
  );
}
