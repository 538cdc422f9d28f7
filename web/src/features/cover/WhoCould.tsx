import { useState } from 'react';
import { errorText } from '../../shared/api/client';
import { clockOf, gapText, localAt, momentWithin } from '../../shared/time';
import { Choice } from '../../shared/ui/Choice';
import { ClockField } from '../../shared/ui/Moments';
import { useTray } from '../../shared/ui/tray';
import { Candidates } from './Candidates';
import styles from './cover.module.css';
import { useCoverDeeds, useWhoCould, type Ask, type Gap, type Span } from './queries';
import { askName, gapWhen, words } from './words';

/** Everybody for a gap, or a part of it, each with what speaks against it and the way to give it. */
export function WhoCould({ gap, ask }: { gap: Gap; ask: Ask }) {
  const name = askName(ask);
  const [at, setAt] = useState(0);
  const shift = gap.spans[at] ?? gap;
  const [span, setSpan] = useState<Span>(shift);
  const who = useWhoCould(gap.ask, span);
  const { give } = useCoverDeeds();
  const tray = useTray();
  const choose = (next: number) => {
    setAt(next);
    setSpan(gap.spans[next] ?? gap);
  };
  return (
    <section className={styles.who} aria-label={words.forWhat(name)}>
      <h2>
        {name}, {gapWhen(gap, ask.zone)} <span>{words.needs(gap.shortBy, gap.skills)}</span>
      </h2>
      {gap.uncounted.length > 0 && (
        <p className={styles.quiet}>
          {words.uncounted}{' '}
          {gap.uncounted
            .map(({ name, why, role }) => {
              const said = role === undefined ? words.uncountedWhy[why] : words.asRole(role);
              return `${name} (${said})`;
            })
            .join(', ')}
        </p>
      )}
      {gap.spans.length > 1 && (
        <Choice
          aria-label={words.shifts}
          className={styles.shifts}
          value={at}
          options={gap.spans.map((one, value) => ({
            value,
            label: gapText(one.start, one.end, ask.zone),
          }))}
          onChange={choose}
        />
      )}
      {ask.duty !== undefined && (
        <Part key={at} shift={shift} zone={ask.zone} span={span} onSpan={setSpan} />
      )}
      <Candidates
        who={who}
        span={span}
        pending={give.isPending ? give.variables.person : null}
        onGive={(one) =>
          give.mutate(
            { ask: gap.ask, ...span, person: one.person },
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

interface PartProps {
  shift: Span;
  zone: string;
  span: Span;
  onSpan: (span: Span) => void;
}

/** From when until when of a shift somebody is asked for. */
function Part({ shift, zone, span, onSpan }: PartProps) {
  const clock = (moment: string) => clockOf(localAt(Date.parse(moment), zone));
  const within = (typed: string) => momentWithin(typed, shift.start, shift.end, zone);
  const set = (start: string | null, end: string | null) => {
    if (start && end && start < end) {
      onSpan({ start, end });
    }
  };
  return (
    <div className={styles.part}>
      {words.partFrom}
      <ClockField
        aria-label={words.partFrom}
        value={clock(span.start)}
        onChange={(typed) => set(within(typed), span.end)}
      />
      {words.partUntil}
      <ClockField
        aria-label={words.partUntil}
        value={clock(span.end)}
        onChange={(typed) => set(span.start, within(typed))}
      />
    </div>
  );
}
