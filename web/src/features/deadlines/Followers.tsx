import { useEffect, useState } from 'react';
import { take, api } from '../../shared/api/client';
import { of } from '../../shared/api/ask';
import { onTimesMoved } from '../../shared/api/moved';
import { MoveDialog } from './MoveDialog';
import type { DeadlineSet } from './queries';

/** How many records that were moved together are asked for what follows them. */
const MOST = 20;

/** Whoever moves work that deadlines follow is shown at once what becomes of them. */
export function Followers() {
  const [sets, setSets] = useState<DeadlineSet[]>([]);
  useEffect(
    () =>
      onTimesMoved((records) => {
        void Promise.all(
          records
            .slice(0, MOST)
            .map((id) => take(api.GET('/api/v1/records/{id}/deadline-sets', of({ id })))),
        ).then(
          (found) =>
            setSets(found.flat().filter((set) => set.mayChange && set.offer?.keyDate === true)),
          // They stand among those to recompute all the same.
          () => setSets([]),
        );
      }),
    [],
  );
  return sets.length > 0 ? (
    <MoveDialog key={sets.map((set) => set.id).join()} sets={sets} onClose={() => setSets([])} />
  ) : null;
}
