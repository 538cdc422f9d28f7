import { ProblemError } from '../../shared/api/client';
import { gapText } from '../../shared/time';
import { useTray } from '../../shared/ui/tray';
import { Candidates } from './Candidates';
import styles from './cover.module.css';
import { useCoverDeeds, useWhoCould, type Duty, type Gap } from './queries';
import { words } from './words';

/** Everybody for a gap, each with what speaks against it and the way to give it. */
export function WhoCould({ gap, duty }: { gap: Gap; duty: Duty }) {
  const who = useWhoCould(gap);
  const { give } = useCoverDeeds();
  const tray = useTray();
  return (
    <section className={styles.who} aria-label={words.forWhat(duty.name)}>
      <h2>
        {duty.name}, {gapText(gap.start, gap.end, duty.zone)}{' '}
        <span>{words.needs(gap.shortBy, duty.skill)}</span>
      </h2>
      <Candidates
        who={who}
        minutes={(Date.parse(gap.end) - Date.parse(gap.start)) / 60_000}
        pending={give.isPending ? give.variables.person : null}
        onGive={(one) =>
          give.mutate(
            { duty: gap.duty, start: gap.start, end: gap.end, person: one.person },
            {
              onSuccess: (done) =>
                tray.tell({ text: words.given(one.name, duty.name), act: done.act }),
              onError: (error) =>
                tray.tell({ text: error instanceof ProblemError ? error.message : String(error) }),
            },
          )
        }
      />
    </section>
  );
}
