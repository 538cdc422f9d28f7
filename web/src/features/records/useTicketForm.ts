import { useDeferredValue, useMemo, useState, type KeyboardEvent } from 'react';
import { newKey, ProblemError } from '../../shared/api/client';
import { useTray } from '../../shared/ui/tray';
import {
  changesOf,
  draftOf,
  dueFault,
  emptyDraft,
  newTicket,
  type Change,
  type Draft,
  type RecordView,
} from './model';
import { useChange, useCreate, usePeople, usePlaces, usePreview } from './queries';
import { words } from './words';

/** The form's whole behaviour; the view only shows it. */
export function useTicketForm(
  before: { data: RecordView; tag: string } | undefined,
  onSaved: (id: number) => void,
) {
  // What the form began with stays its base, whatever others change meanwhile.
  const [base, setBase] = useState(before);
  const [draft, setDraft] = useState<Draft>(base ? draftOf(base.data) : emptyDraft);
  const [key, setKey] = useState(newKey);
  const [conflict, setConflict] = useState<RecordView | null>(null);
  const people = usePeople();
  const places = usePlaces();
  const create = useCreate();
  const change = useChange(base?.data.id ?? 0);
  const tray = useTray();

  const settled = useDeferredValue(draft);
  const wish = useMemo(() => newTicket(settled), [settled]);
  const office = !base || base.data.mayChange.includes('title');
  const preview = usePreview(wish, office);
  const error = create.error ?? change.error;

  const set = (some: Partial<Draft>) => {
    setDraft((now) => ({ ...now, ...some }));
    setKey(newKey());
  };

  const saved = (done: {
    act: number;
    record?: RecordView;
    entries?: number;
    calendars?: number;
  }) => {
    const counts =
      done.entries != null && done.calendars != null
        ? ': ' + words.outcome(done.entries, done.calendars)
        : '';
    tray.tell({ text: words.saved(done.record?.ref ?? 'Record') + counts, act: done.act });
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
    if (dueFault(draft)) {
      return;
    }
    if (!base) {
      create.mutate({ body: newTicket(draft), key }, { onSuccess: saved });
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
    conflict,
    saving: create.isPending || change.isPending,
    error:
      conflict && !(change.error instanceof ProblemError && change.error.problem.status !== 412)
        ? null
        : error,
    dueIsBad: dueFault(draft),
    preview,
    mayPreview: office,
    may: (field: string) => !base || base.data.mayChange.includes(field),
    isKept: (key: string) =>
      base?.data.details.some((d) => d.key === key && d.value === undefined) ?? false,
    faultAt: (pointer: string) => faults?.find((f) => f.pointer.startsWith('/' + pointer))?.message,
    people: (people.data ?? [])
      .filter((p) => p.standing === 'HOUSE' || p.standing === 'AGENCY')
      .map((p) => ({ value: p.id, label: p.name })),
    places: (places.data ?? []).map((p) => ({ value: p.id, label: p.name })),
    picking: (event: KeyboardEvent) =>
      event.target instanceof HTMLElement && event.target.getAttribute('aria-expanded') === 'true',
  };
}
