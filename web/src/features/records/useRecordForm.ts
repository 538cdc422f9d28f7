import { useDeferredValue, useLayoutEffect, useMemo, useState, type KeyboardEvent } from 'react';
import { newKey, ProblemError, type Schemas } from '../../shared/api/client';
import { typedAhead } from '../../shared/ui/keys';
import { useTray } from '../../shared/ui/tray';
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
import {
  useCalendars,
  useChange,
  useCreate,
  useDetails,
  usePeople,
  usePlaces,
  usePreview,
  useTeams,
} from './queries';
import { readShortLine, type Known } from './shortLine';
import { words } from './words';

/** The form's whole behaviour; the view only shows it. */
export function useRecordForm(
  before: { data: RecordView; tag: string } | undefined,
  pointed: string | null,
  onSaved: (id: number) => void,
) {
  // What the form began with stays its base, whatever others change meanwhile.
  const [base, setBase] = useState(before);
  const [draft, setDraft] = useState<Draft>(base ? draftOf(base.data) : draftFrom(pointed));
  const [line, setLine] = useState('');
  const [key, setKey] = useState(newKey);
  const [conflict, setConflict] = useState<RecordView | null>(null);
  const people = usePeople();
  const places = usePlaces();
  const teams = useTeams();
  const calendars = useCalendars();
  const details = useDetails();
  const create = useCreate();
  const change = useChange(base?.data.id ?? 0);
  const tray = useTray();

  const crew = useMemo(
    () => (people.data ?? []).filter((p) => p.standing === 'HOUSE' || p.standing === 'AGENCY'),
    [people.data],
  );
  const known: Known = useMemo(
    () => ({
      people: crew.map((p) => ({ value: p.id, label: p.name })),
      places: (places.data ?? []).map((p) => ({ value: p.id, label: p.name, code: p.code })),
    }),
    [crew, places.data],
  );
  const understood = useMemo(
    () => (line.trim() ? readShortLine(line, known) : null),
    [line, known],
  );
  const lineIsBad = understood?.parts.some((p) => p.as === 'fault') ?? false;

  const settled = useDeferredValue(draft);
  const wish = useMemo(() => newRecord(ofItsKind(settled, details.data)), [settled, details.data]);
  const office = !base || base.data.mayChange.includes('title');
  const preview = usePreview(wish, office && !faulty(settled));
  const error = create.error ?? change.error;

  /** Work usually is of the team its Lead is in. */
  const usualTeam = (lead: number | null) => crew.find((p) => p.id === lead)?.teams[0] ?? null;
  const set = (some: Partial<Draft>) => {
    setDraft((now) => {
      const next = { ...now, ...some };
      const guessed = !base && 'lead' in some && now.team === usualTeam(now.lead);
      return guessed ? { ...next, team: usualTeam(next.lead) } : next;
    });
    setKey(newKey());
  };
  const say = (text: string) => {
    setLine(text);
    const heard = text.trim() ? readShortLine(text, known) : null;
    const blank = draftFrom(null);
    setDraft({
      ...blank,
      ...heard?.draft,
      team: usualTeam(heard?.draft.lead ?? null),
    });
    setKey(newKey());
  };

  // What was typed before the form was drawn, or before the names in it were known.
  const named = people.data != null && places.data != null;
  useLayoutEffect(() => {
    const text = line + typedAhead();
    if (!base && text.trim()) {
      say(text);
    }
  }, [named]);

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

  const save = () => {
    if (faulty(draft) || lineIsBad) {
      return;
    }
    if (!base) {
      create.mutate({ body: newRecord(ofItsKind(draft, details.data)), key }, { onSuccess: saved });
      return;
    }
    const body = changesOf(base.data, draft) as Change;
    if (Object.keys(body).length === 0) {
      onSaved(base.data.id);
      return;
    }
    change.mutate({ body, tag: base.tag, key }, { onSuccess: saved, onError: failed });
  };

  const faults = error instanceof ProblemError ? error.problem.faults : undefined;
  return {
    draft,
    set,
    save,
    line,
    say,
    understood,
    conflict,
    isNew: !base,
    id: base?.data.id ?? null,
    saving: create.isPending || change.isPending,
    error:
      conflict && !(change.error instanceof ProblemError && change.error.problem.status !== 412)
        ? null
        : error,
    isBad: faulty(draft) || lineIsBad,
    preview,
    mayPreview: office,
    may: (field: string) => !base || base.data.mayChange.includes(field),
    isKept: (key: string) =>
      base?.data.details.some((d) => d.key === key && d.value === undefined) ?? false,
    faultAt: (pointer: string) => faults?.find((f) => f.pointer.startsWith('/' + pointer))?.message,
    details: (details.data ?? []).filter((d) => d.typed && d.key !== 'title'),
    people: known.people,
    places: known.places,
    teams: (teams.data ?? []).map((t) => ({ value: t.id, label: t.name })),
    calendars: (calendars.data ?? []).map((c) => ({ value: c.id, label: c.name })),
    picking: (event: KeyboardEvent) =>
      event.target instanceof HTMLElement && event.target.getAttribute('aria-expanded') === 'true',
  };
}

/** What was typed before another kind was chosen is not sent with it. */
function ofItsKind(draft: Draft, details: Schemas['Detail'][] = []): Draft {
  const kept = new Set(details.filter((d) => d.kinds.includes(draft.kind)).map((d) => d.key));
  const mine = Object.entries(draft.details).filter(([key]) => kept.has(key));
  return { ...draft, details: Object.fromEntries(mine) };
}

export type RecordFormState = ReturnType<typeof useRecordForm>;
