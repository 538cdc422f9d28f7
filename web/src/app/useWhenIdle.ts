import { useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';

/**
 * Does something once nothing is being saved any more: an undo pressed while the last change is
 * still on its way means that change.
 */
export function useWhenIdle() {
  const queries = useQueryClient();
  return useCallback(
    (act: () => void) => {
      // What was saved is told one turn later.
      const soon = () => window.setTimeout(act);
      if (queries.isMutating() === 0) {
        soon();
        return;
      }
      const stop = queries.getMutationCache().subscribe(() => {
        if (queries.isMutating() === 0) {
          stop();
          soon();
        }
      });
    },
    [queries],
  );
}
