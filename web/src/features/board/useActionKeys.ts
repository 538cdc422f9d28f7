import { useKeys } from '../../shared/ui/keys';
import type { Row } from './rows';

export type Action = [key: string, label: string, act: () => void];

interface Beside {
  escape: () => void;
  /** Shows all actions. */
  ask: () => void;
  /** Whether records are confirmed, started and finished by keys here. */
  marks: boolean;
  focusOn: (lane: string) => void;
}

/** The keys of the board's actions, and of its first nine groups. */
export function useActionKeys(actions: Action[], rows: Row[], beside: Beside) {
  const keys = ['m', '>', '<', 'c', 'v', 'x', 'a', 'A', ...(beside.marks ? ['o', 's', 'f'] : [])];
  useKeys({
    Escape: beside.escape,
    '.': beside.ask,
    ...Object.fromEntries(
      actions.filter(([key]) => keys.includes(key)).map(([key, , act]) => [key, act]),
    ),
    ...Object.fromEntries(
      rows
        .filter((r) => r.type === 'group' && r.key !== 'calendars')
        .slice(0, 9)
        .map((r, i) => [
          String(i + 1),
          () => {
            const next = rows[rows.indexOf(r) + 1];
            if (next) {
              beside.focusOn(next.key);
            }
          },
        ]),
    ),
  });
}
