import { useDeferredValue, useLayoutEffect, useMemo, useState, type KeyboardEvent } from 'react';
import { newKey, ProblemError } from '../../shared/api/client';
import { useDetails } from '../../shared/api/house';
import { typedAhead } from '../../shared/ui/keys';
import { useTray } from '../../shared/ui/tray';
import type { Holder } from './holders';
import {
  changesOf,
  draftFrom,
  draftOf,
  faulty,
  newRecord,
  type Change,
  type Draft,
  type RecordView,
} from './model';
import { useChoices } from './useChoices';
import { useChange, useCreate, usePreview } from './queries';
import { readShortLine } from './shortLine';
import { teamOfLead, useKnown } from './useShortLine';
import { ofItsKind, useTried } from './useTried';
import { words } from './words';

/** The form's whole behaviour; the view only shows it. */
export function useRecordForm(
  before: { data: RecordView; tag: string } | undefined,
  pointed: string | null,
  onSaved: (id: number) => void,
) {
  const saving = useSaving(before, onSaved);
  const { base } = saving;
  const [draft, setDraft] = useState<Draft>(base ? draftOf(base.data) : draftFrom(pointed));
  const [line, setLine] = useState('');
  /** The visit that is being planned, from 0: who could is asked of it. */
  const [looked, setLooked] = useState(0);
  /** Fields that somebody set by hand; the line leaves them alone. */
  const [touched, setTouched] = useState<ReadonlySet<string>>(new Set());
  const { crew, known, isWhole } = useKnown();
  const details = useDetails();

  const understood = useMemo(
    () => (line.trim() ? readShortLine(line, known) : null),
    [line, known],
  );
  const lineIsBad = understood?.parts.some((p) => p.as === 'fault') ?? false;

  const settled = useDeferredValue(draft);
  const wish = useMemo(() => newRecord(ofItsKind(settled, details.data)), [settled, details.data]);
  const office = !base || base.data.mayChange.includes('title');
  const preview = usePreview(wish, office && !faulty(settled));
  const tried = useTried(base?.data, draft, settled, details.data, looked);
  const choices = useChoices(known, tried.trial);
  /** Work usually is of the team its Lead is in. */
  const usualTeam = (lead: Holder | null) => teamOfLead(lead, crew);
  const set = (some: Partial<Draft>) => {
    setTouched((before) => new Set([...before, ...fieldsOf(some, draft)]));
    setDraft((now) => {
      const next = { ...now, ...some };
      const guessed = !base && 'lead' in some && now.team === usualTeam(now.lead);
      return guessed ? { ...next, team: usualTeam(next.lead) } : next;
    });
    saving.renew();
  };
  const say = (text: string) => {
    setLine(text);
    const heard = text.trim() ? readShortLine(text, known) : null;
    setDraft((now) => {
      const said = keepTouched(now, { ...draftFrom(pointed), ...heard?.draft }, touched);
      return touched.has('team') ? said : { ...said, team: usualTeam(said.lead) };
    });
    saving.renew();
  };
  /** Puts what the line did not understand into a field, and takes it out of the line. */
  const put = (text: string, field: 'title' | 'contact' | 'notes') => {
    setLine(withPiece(line, text, []));
    if (field === 'title') {
      set({ title: [draft.title, text].filter(Boolean).join(', ') });
    } else {
      const before = draft.details[field];
      set({ details: { ...draft.details, [field]: [before, text].filter(Boolean).join('\n') } });
    }
  };
  /** Takes a name for a piece of the line that was near it. */
  const meant = (text: string, name: string) => say(withPiece(line, text, [' ' + name]).trim());

  // What was typed before the form was drawn, or before the names in it were known.
  useLayoutEffect(() => {
    const text = line + typedAhead();
    if (!base && text.trim()) {
      say(text);
    }
  }, [isWhole]);

  const save = async () => {
    if (!faulty(draft) && !lineIsBad && (await tried.mayGoOn())) {
      saving.save(draft, newRecord(ofItsKind(draft, details.data)));
    }
  };

  return {
    draft,
    set,
    save,
    line,
    say,
    put,
    meant,
    understood,
    lacks: lackOf(draft, understood),
    conflict: saving.conflict,
    isNew: !base,
    id: base?.data.id ?? null,
    saving: saving.isPending,
    error: saving.error,
    isBad: faulty(draft) || lineIsBad,
    preview,
    mayPreview: office,
    may: (field: string) => !base || base.data.mayChange.includes(field),
    isKept: (key: string) =>
      base?.data.details.some((d) => d.key === key && d.value === undefined) ?? false,
    faultAt: (pointer: string) =>
      saving.faults?.find((f) => f.pointer.startsWith('/' + pointer))?.message,
    details: (details.data ?? []).filter((d) => d.typed && d.key !== 'title'),
    ...choices,
    trial: tried.trial,
    look: setLooked,
    isWarned: tried.isWarned,
    picking: (event: KeyboardEvent) =>
      event.target instanceof HTMLElement && event.target.getAttribute('aria-expanded') === 'true',
  };
}

/** The line with others in place of one of its pieces. */
const withPiece = (line: string, text: string, others: string[]) =>
  line
    .split(',')
    .flatMap((piece) => (piece.trim() === text ? others : [piece]))
    .join(',');

/** Saves it, once under a key; what somebody else saved meanwhile is shown before it is written over. */
function useSaving(
  before: { data: RecordView; tag: string } | undefined,
  onSaved: (id: number) => void,
) {
  // What the form began with stays its base, whatever others change meanwhile.
  const [base, setBase] = useState(before);
  const [key, setKey] = useState(newKey);
  const [conflict, setConflict] = useState<RecordView | null>(null);
  const create = useCreate();
  const change = useChange(base?.data.id ?? 0);
  const tray = useTray();

  const saved = (done: {
    act: number;
    record?: RecordView;
    records: number[];
    entries?: number;
    calendars?: number;
  }) => {
    const counts =
      done.entries != null && done.calendars != null
        ? ': ' + words.outcome(done.entries, done.calendars)
        : '';
    const what =
      done.records.length > 1
        ? words.savedMany(done.records.length)
        : words.saved(done.record?.ref ?? 'Record');
    tray.tell({ text: what + counts, act: done.act });
    if (done.record) {
      onSaved(done.record.id);
    }
  };

  const failed = (why: unknown) => {
    const problem = why instanceof ProblemError ? why.problem : null;
    if (problem?.theirs && problem.theirsTag && base) {
      setConflict(problem.theirs);
      setBase({ data: base.data, tag: problem.theirsTag });
    }
  };

  const error = create.error ?? change.error;
  const isOther = change.error instanceof ProblemError && change.error.problem.status !== 412;
  return {
    base,
    conflict,
    /** What is saved next is something else. */
    renew: () => setKey(newKey()),
    isPending: create.isPending || change.isPending,
    faults: error instanceof ProblemError ? error.problem.faults : undefined,
    error: conflict && !isOther ? null : error,
    save: (draft: Draft, whole: Change) => {
      if (!base) {
        create.mutate({ body: whole, key }, { onSuccess: saved });
        return;
      }
      const body = changesOf(base.data, draft) as Change;
      if (Object.keys(body).length === 0) {
        onSaved(base.data.id);
      } else {
        change.mutate({ body, tag: base.tag, key }, { onSuccess: saved, onError: failed });
      }
    },
  };
}

/** The fields that a change names; of the details only those that it changes. */
function fieldsOf(some: Partial<Draft>, now: Draft): string[] {
  const details = some.details ?? now.details;
  const changed = Object.keys({ ...details, ...now.details }).filter(
    (key) => details[key] !== now.details[key],
  );
  return [
    ...Object.keys(some).filter((key) => key !== 'details'),
    ...changed.map((key) => 'details:' + key),
  ];
}

/** What the line says, but for what somebody set by hand. */
function keepTouched(now: Draft, said: Draft, touched: ReadonlySet<string>): Draft {
  const kept = Object.fromEntries(Object.entries(now).filter(([key]) => touched.has(key)));
  const details = Object.entries(now.details).filter(([key]) => touched.has('details:' + key));
  return {
    ...said,
    ...(kept as Partial<Draft>),
    details: { ...said.details, ...Object.fromEntries(details) },
  };
}

/** What is missing before it can be saved, in words; nothing where it can. */
function lackOf(draft: Draft, line: ReturnType<typeof readShortLine>): string | null {
  const misheard = line?.parts.find((part) => part.as === 'fault' && part.text);
  if (!draft.title.trim()) {
    return words.lacks.title;
  }
  if (misheard) {
    return words.lacks.misheard(misheard.text);
  }
  if (draft.kind === 'SHIFT' && !draft.visits.some((v) => v.span.trim())) {
    return words.lacks.span;
  }
  if (draft.kind === 'DEADLINE' && !draft.due.trim()) {
    return words.lacks.due;
  }
  return faulty(draft) ? words.lacks.faulty : null;
}

export type RecordFormState = ReturnType<typeof useRecordForm>;
