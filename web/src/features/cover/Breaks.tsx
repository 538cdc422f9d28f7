import styles from './cover.module.css';
import { DaysAround } from './DaysAround';
import type { Answer } from './queries';
import type { Trial } from './useTrial';
import { takerText, words } from './words';

/** What saving would break, beside the button that saves: what refuses it first. */
export function Breaks({ trial }: { trial: Trial | undefined }) {
  const said = [
    ...(trial?.refused ?? []).map((text) => ({ text, never: true })),
    ...(trial?.warns ?? []).map((text) => ({ text, never: false })),
  ];
  return (
    <ul className={styles.breaks} aria-live="polite" aria-label={words.breaks}>
      {said.map(({ text, never }) => (
        <li key={text} className={never ? styles.never : styles.warns}>
          <strong>{never ? words.refused : words.warned}</strong> {text}
        </li>
      ))}
    </ul>
  );
}

/** The days of those who were chosen, with the work on them. */
export function ChosenDays({ people, trial }: { people: number[]; trial: Trial | undefined }) {
  const { start, end } = trial ?? {};
  const chosen = people.flatMap((id) => trial?.people.find((one) => one.person === id) ?? []);
  return chosen.length === 0 || !start || !end ? null : (
    <ul className={styles.chosenDays} aria-label={words.theirDays}>
      {chosen.map((one) => (
        <li key={one.person}>
          <div>
            <span>{one.name}</span>
            <DaysAround one={one} span={{ start, end }} />
          </div>
          <span className={one.verdict === 'YES' ? styles.free : styles.against}>
            {takerText(one)}
          </span>
        </li>
      ))}
    </ul>
  );
}

/** People to choose from, those who could first, each with what speaks against them. */
export function triedPeople(
  people: { value: number; label: string }[],
  answers: Answer[] | undefined,
): { value: number; label: string; hint?: string }[] {
  if (!answers || answers.length === 0) {
    return people;
  }
  const rank = new Map(answers.map((one, at) => [one.person, { at, hint: takerText(one) }]));
  return people
    .map((one) => ({ ...one, hint: rank.get(one.value)?.hint }))
    .sort(
      (a, b) => (rank.get(a.value)?.at ?? people.length) - (rank.get(b.value)?.at ?? people.length),
    );
}
