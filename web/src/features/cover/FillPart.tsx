import { gapText } from '../../shared/time';
import { Fault } from '../../shared/ui/Fault';
import { Loading } from '../../shared/ui/Loading';
import styles from './cover.module.css';
import { Proposals, type Proposal } from './Proposals';
import { useCoverDeeds, useFill, type Ask } from './queries';
import { askName, words } from './words';

/** A fill for all that is short. */
export function FillPart({
  from,
  until,
  asks,
  onClose,
}: {
  from: string;
  until: string;
  asks: Ask[];
  onClose: () => void;
}) {
  const fill = useFill(from, until, true);
  const { give } = useCoverDeeds();
  if (fill.isPending) {
    return <Loading what={words.filling} />;
  }
  if (fill.error) {
    return <Fault error={fill.error} reads />;
  }
  const proposals = fill.data.map(
    ({ ask: key, start, end, person, name, nearest, reasons }): Proposal => {
      const ask = asks.find((one) => one.key === key);
      return {
        label: askName(ask),
        what: askName(ask),
        when: gapText(start, end, ask?.zone ?? 'UTC'),
        name,
        nearest,
        reasons,
        ...(person !== undefined && {
          give: async () => (await give.mutateAsync({ ask: key, start, end, person })).act,
        }),
      };
    },
  );
  return (
    <section className={styles.who} aria-label={words.fill}>
      <h2>
        {words.fill} <span>{words.fillWhy}</span>
      </h2>
      <Proposals all={proposals} give={words.giveAll} done={words.filled} onClose={onClose} />
    </section>
  );
}
