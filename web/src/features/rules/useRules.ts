import { useMemo, useState } from 'react';
import { ProblemError, type Schemas } from '../../shared/api/client';
import { useTray } from '../../shared/ui/tray';
import { edits, moved, type Rule, type Wording } from './model';
import { useLook, useRuleSet, useTakeSet, type Wish } from './queries';
import { words } from './words';

type SetNow = Schemas['RuleSet'];

/** The set as it is edited here; nothing of it is in force before it was looked at. */
export function useRules() {
  const now = useRuleSet();
  const look = useLook();
  const take = useTakeSet();
  const tray = useTray();
  const [draft, setDraft] = useState<{ base: string; past: SetNow[]; set: SetNow } | null>(null);
  const [chosen, setChosen] = useState<number | null>(null);
  const [looking, setLooking] = useState(false);

  const set = draft?.set ?? now.data;
  const count = useMemo(
    () => (draft && now.data && set ? edits(now.data, set) : 0),
    [draft, now.data, set],
  );
  const change = (next: Partial<SetNow>) => {
    if (set) {
      setDraft({
        base: draft?.base ?? set.tag,
        past: [...(draft?.past ?? []), set],
        set: { ...set, ...next },
      });
      look.reset();
    }
  };
  const rules = set?.rules ?? [];
  const setRules = (next: Rule[]) => change({ rules: next });
  const wish: Wish | null = set
    ? { tag: draft?.base ?? set.tag, rules: set.rules, wordings: set.wordings }
    : null;
  const problem = look.error instanceof ProblemError ? look.error.problem : null;
  const faults = new Map((problem?.faults ?? []).map((f) => [f.pointer, f.message]));

  const drop = () => {
    setDraft(null);
    setChosen(null);
    look.reset();
    take.reset();
    setLooking(false);
  };
  return {
    now,
    set,
    rules,
    wish,
    count,
    chosen,
    choose: setChosen,
    faults,
    setRule: (at: number, rule: Rule) => setRules(rules.map((one, i) => (i === at ? rule : one))),
    setWording: (at: number, wording: Wording) =>
      change({ wordings: set!.wordings.map((one, i) => (i === at ? wording : one)) }),
    add: () => {
      setRules([
        ...rules,
        {
          on: true,
          when: { all: [{ kind: ['TICKET'] }, { state: ['TENTATIVE', 'CONFIRMED'] }] },
          lands: [],
          as: 'AS_IT_COMES',
          whenDone: 'STAYS_WITH_TICK',
        },
      ]);
      setChosen(rules.length);
    },
    copy: (at: number) => {
      const copied = { ...rules[at]!, id: undefined };
      setRules([...rules.slice(0, at + 1), copied, ...rules.slice(at + 1)]);
      setChosen(at + 1);
    },
    remove: (at: number) => {
      setRules(rules.filter((_, i) => i !== at));
      setChosen(null);
    },
    move: (at: number, step: number) => {
      setRules(moved(rules, at, step));
      setChosen(Math.max(0, Math.min(rules.length - 1, at + step)));
    },
    undo: () =>
      setDraft((d) => {
        const last = d?.past[d.past.length - 1];
        return d && last && d.past.length > 1
          ? { ...d, past: d.past.slice(0, -1), set: last }
          : null;
      }),
    drop,
    looking,
    outlook: look.data,
    lookError: look.error ?? take.error,
    stale: problem?.type === 'urn:mellow-rota:problem:changed-meanwhile',
    lookFirst: () => {
      if (wish) {
        take.reset();
        look.mutate(wish, {
          onSuccess: () => setLooking(true),
          // Faults are told where they are; what else fails, where the look would stand.
          onError: (error) => setLooking(!(error instanceof ProblemError && error.problem.faults)),
        });
      }
    },
    isLooking: look.isPending,
    stopLooking: () => setLooking(false),
    taking: take.isPending,
    take: () =>
      wish &&
      look.data &&
      take.mutate(
        { ...wish, looked: look.data.looked },
        {
          onSuccess: (done) => {
            tray.tell({ text: words.taken(done.entries, done.calendars), act: done.act });
            drop();
          },
        },
      ),
  };
}
