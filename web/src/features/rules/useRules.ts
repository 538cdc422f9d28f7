import { useMemo, useState } from 'react';
import { ProblemError, type Schemas } from '../../shared/api/client';
import { useTray } from '../../shared/ui/tray';
import {
  edits,
  freshNumber,
  keyOf,
  moved,
  type Detail,
  type For,
  type Rule,
  type Wording,
} from './model';
import { useLook, useLooked, useRuleSet, useTakeSet, type Wish } from './queries';
import { words } from './words';

type SetNow = Schemas['RuleSet'];

/** Changes of the rules in their order. */
const ruleEdits = (
  rules: Rule[],
  setRules: (next: Rule[]) => void,
  choose: (at: number | null) => void,
) => ({
  setRule: (at: number, rule: Rule) => setRules(rules.map((one, i) => (i === at ? rule : one))),
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
    choose(rules.length);
  },
  copy: (at: number) => {
    const copied = { ...rules[at]!, id: undefined };
    setRules([...rules.slice(0, at + 1), copied, ...rules.slice(at + 1)]);
    choose(at + 1);
  },
  remove: (at: number) => {
    setRules(rules.filter((_, i) => i !== at));
    choose(null);
  },
  move: (at: number, step: number) => {
    setRules(moved(rules, at, step));
    choose(Math.max(0, Math.min(rules.length - 1, at + step)));
  },
});

/** Changes of the rest of the set. */
const editsOf = (
  set: SetNow,
  inForce: SetNow | undefined,
  change: (next: Partial<SetNow>) => void,
) => ({
  setWording: (at: number, wording: Wording) =>
    change({ wordings: set.wordings.map((one, i) => (i === at ? wording : one)) }),
  /** What a file says, to be looked at; its parts that say nothing stay. */
  bringIn: (read: Wish) =>
    change({
      rules: read.rules,
      wordings: read.wordings,
      ...(read.details && { details: read.details }),
      ...(read.usual && { usual: read.usual }),
      titlesFixed: read.titlesFixed || undefined,
    }),
  addWording: () =>
    change({
      wordings: [
        {
          id: freshNumber(set.wordings),
          fresh: true,
          name: words.freshWordingName,
          title: '{ref} {title}',
          place: '{place}',
          text: '',
          categories: ['KIND'],
        },
        ...set.wordings,
      ],
    }),
  removeWording: (at: number) => change({ wordings: set.wordings.filter((_, i) => i !== at) }),
  setUsual: (kind: string, wording: number | null) => {
    const usual: Record<string, number> = { ...set.usual };
    delete usual[kind];
    change({ usual: wording === null ? usual : { ...usual, [kind]: wording } });
  },
  setTitlesFixed: (why: string) => change({ titlesFixed: why || undefined }),
  setDetail: (at: number, detail: Detail) =>
    change({ details: set.details.map((one, i) => (i === at ? detail : one)) }),
  labelDetail: (at: number, label: string) => {
    // Until it is in force, wordings call it as it is named here.
    const others = set.details.filter((_, i) => i !== at);
    const isNew = !inForce?.details.some((d) => d.key === set.details[at]?.key);
    change({
      details: set.details.map((one, i) =>
        i === at ? { ...one, label, key: isNew ? keyOf(label, others) : one.key } : one,
      ),
    });
  },
  moveDetail: (at: number, step: number) => change({ details: moved(set.details, at, step) }),
  removeDetail: (at: number) => change({ details: set.details.filter((_, i) => i !== at) }),
  addDetail: () =>
    change({
      details: [
        ...set.details,
        {
          key: keyOf(words.freshDetailName, set.details),
          label: words.freshDetailName,
          kinds: ['JOB', 'TICKET', 'SHIFT', 'DEADLINE'],
          for: { office: true },
          sort: 'TEXT',
          choices: [],
          states: [],
          typed: true,
          own: true,
        },
      ],
    }),
});

/** The set as it is sent, where it began with that one. */
const wishOf = (set: SetNow, base: string, from: string): Wish => ({
  tag: base,
  rules: set.rules,
  wordings: set.wordings,
  details: set.details.map((detail) => ({
    ...detail,
    choices: detail.choices.map((choice) => choice.trim()).filter(Boolean),
  })),
  usual: set.usual,
  titlesFixed: set.titlesFixed ?? '',
  ...(from && { from }),
});

/** What was edited since a set was read. */
interface Draft {
  base: string;
  past: SetNow[];
  set: SetNow;
}

function oneBack(draft: Draft | null): Draft | null {
  const last = draft?.past.at(-1);
  return draft && last && draft.past.length > 1
    ? { ...draft, past: draft.past.slice(0, -1), set: last }
    : null;
}

/** What another page would have a detail be for. */
export interface WishedFor {
  detail: string;
  for: For;
}

const forWhom = (details: Detail[], wished: WishedFor) =>
  details.map((one) => (one.key === wished.detail ? { ...one, for: wished.for } : one));

/** The set as it is edited here; nothing of it is in force before it was looked at. */
export function useRules() {
  const now = useRuleSet();
  const look = useLook();
  const looked = useLooked(look.data);
  const take = useTakeSet();
  const tray = useTray();
  const [draft, setDraft] = useState<Draft | null>(null);
  const [chosen, setChosen] = useState<number | null>(null);
  const [looking, setLooking] = useState(false);
  const [from, setFrom] = useState('');

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
  const wish = set ? wishOf(set, draft?.base ?? set.tag, from) : null;
  const problem = look.error instanceof ProblemError ? look.error.problem : null;
  const faults = new Map((problem?.faults ?? []).map((f) => [f.pointer, f.message]));

  const drop = () => {
    setDraft(null);
    setChosen(null);
    look.reset();
    take.reset();
    setLooking(false);
    setFrom('');
  };
  const preview = looked.data ?? look.data;
  const lookAt = (wanted: Wish) => {
    take.reset();
    look.mutate(wanted, {
      onSuccess: () => setLooking(true),
      // Faults are told where they are; what else fails, where the look would stand.
      onError: (error) => setLooking(!(error instanceof ProblemError && error.problem.faults)),
    });
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
    ...ruleEdits(rules, setRules, setChosen),
    ...editsOf(set!, now.data, change),
    /** Changes whom a detail is for, and looks at it at once. */
    lookFor: (wished: WishedFor) => {
      if (set) {
        const details = forWhom(set.details, wished);
        change({ details });
        lookAt(wishOf({ ...set, details }, draft?.base ?? set.tag, from));
      }
    },
    undo: () => setDraft(oneBack),
    drop,
    looking,
    preview,
    lookError: look.error ?? looked.error ?? take.error,
    stale: problem?.type === 'urn:mellow-rota:problem:changed-meanwhile',
    lookFirst: () => wish && lookAt(wish),
    isLooking: look.isPending,
    from,
    setFrom: (day: string) => {
      setFrom(day);
      if (wish) {
        lookAt({ ...wish, from: day || undefined });
      }
    },
    stopLooking: () => setLooking(false),
    taking: take.isPending,
    take: () =>
      wish &&
      preview?.finished &&
      take.mutate(
        { ...wish, looked: preview.looked },
        {
          onSuccess: (done) => {
            const text = done.work ? words.goesOn : words.taken(done.entries, done.calendars);
            tray.tell({ text, act: done.act });
            drop();
          },
        },
      ),
  };
}
