import { useEffect, useEffectEvent, useState } from 'react';
import { api, errorText, take } from '../../shared/api/client';
import { of } from '../../shared/api/ask';
import { onTimesMoved } from '../../shared/api/moved';
import { useTray } from '../../shared/ui/tray';
import { MoveDialog } from './MoveDialog';
import type { DeadlineSet } from './queries';
import { words } from './words';

/** How many records that were moved together are asked for what follows them. */
const MOST = 20;

/** Whoever moves work that deadlines follow is shown at once what becomes of them. */
export function Followers() {
  const [sets, setSets] = useState<DeadlineSet[]>([]);
  const tray = useTray();
  const tell = useEffectEvent(tray.tell);
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
          (error: unknown) => tell({ text: words.followersUnread(errorText(error)) }),
        );
      }),
    [],
  );
  return sets.length > 0 ? (
    <MoveDialog key={sets.map((set) => set.id).join()} sets={sets} onClose={() => setSets([])} />
  ) : null;
}
