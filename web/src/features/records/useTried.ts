import { useMemo, useState } from 'react';
import type { Schemas } from '../../shared/api/client';
import { useTrial, type Planned } from '../cover';
import {
  changesOf,
  faulty,
  newRecord,
  visitNo,
  type Change,
  type Draft,
  type RecordView,
} from './model';

/**
 * What saving a draft would break; what only warns is read first, and saved the second time.
 *
 * @param looked at which of its visits people are chosen for, from 0
 */
export function useTried(
  before: RecordView | undefined,
  draft: Draft,
  settled: Draft,
  details: Schemas['Detail'][] | undefined,
  looked: number,
) {
  const [warned, setWarned] = useState('');
  const planned = (of: Draft): Planned | null =>
    faulty(of) || !of.visits.some((visit) => visit.span.trim())
      ? null
      : before
        ? { record: before.id, change: changesOf(before, of) as Change, visit: visitNo(of, looked) }
        : { change: newRecord(ofItsKind(of, details)), visit: visitNo(of, looked) };
  const trial = useTrial(useMemo(() => planned(settled), [settled, before, details, looked]));
  return {
    trial: trial.data,
    isWarned: warned !== '' && warned === trial.data?.warns.join(),
    mayGoOn: async () => {
      const last = planned(draft);
      // What cannot be tried is for the save to refuse.
      const found = last && (await trial.of(last).catch(() => null));
      const warns = found?.warns.join() ?? '';
      setWarned(found?.refused.length ? '' : warns);
      return !found?.refused.length && (!warns || warns === warned);
    },
  };
}

/** What was typed before another kind was chosen is not sent with it. */
export function ofItsKind(draft: Draft, details: Schemas['Detail'][] = []): Draft {
  const kept = new Set(details.filter((d) => d.kinds.includes(draft.kind)).map((d) => d.key));
  const mine = Object.entries(draft.details).filter(([key]) => kept.has(key));
  return { ...draft, details: Object.fromEntries(mine) };
}
