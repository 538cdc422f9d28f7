import { errorText } from '../../shared/api/client';
import { gapText } from '../../shared/time';
import { useTray } from '../../shared/ui/tray';
import { Candidates } from './Candidates';
import styles from './cover.module.css';
import { useCoverDeeds, useWhoCould, type Ask, type Gap } from './queries';
import { askName, words } from './words';

/** Everybody for a gap, each with what speaks against it and the way to give it. */
export function WhoCould({ gap, ask }: { gap: Gap; ask: Ask }) {
  const name = askName(ask);
  const who = useWhoCould(gap);
  const { give } = useCoverDeeds();
  const tray = useTray();
  return (
    <section className={styles.who} aria-label={words.forWhat(name)}>
      <h2>
        {name}, {gapText(gap.start, gap.end, ask.zone)}{' '}
        <span>{words.needs(gap.shortBy, gap.skills)}</span>
      </h2>
      <Candidates
        who={who}
        span={gap}
        pending={give.isPending ? give.variables.person : null}
        onGive={(one) =>
          give.mutate(
            { ask: gap.ask, start: gap.start, end: gap.end, person: one.person },
            {
              onSuccess: (done) => tray.tell({ text: words.given(one.name, name), act: done.act }),
              onError: (error) => tray.tell({ text: errorText(error) }),
            },
          )
        }
      />
    </section>
  );
}
