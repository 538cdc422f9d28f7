import { Link } from 'react-router';
import styles from './cover.module.css';
import { useCover } from './queries';
import { words } from './words';

/** How much is short and clashes in these days, and the way to it. */
export function CoverCounts({ from, until }: { from: string; until: string }) {
  const cover = useCover(from, until).data;
  if (!cover || cover.from !== from || cover.until !== until) {
    return null;
  }
  const open = cover.clashes.filter((one) => !one.letStand);
  const to = (on?: string) => `/cover?from=${from}&zoom=weeks${on ? `&on=${on}` : ''}`;
  return (
    <span className={styles.counts}>
      {cover.gaps.length > 0 && <Link to={to()}>{words.gaps(cover.gaps.length)}</Link>}
      {open.length > 0 && <Link to={to(open[0]?.key)}>{words.clashCount(open.length)}</Link>}
    </span>
  );
}
