import { useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';

/**
 * Does something once nothing is being saved any more: an undo pressed while the last change is
 * still on its way means that change.
 */
export function useWhenIdle() {
  const client = useQueryClient();
  return useCallback(
    (act: () => void) => {
      // What was saved is told one turn later.
      const soon = () => window.setTimeout(act);
      if (client.isMutating() === 0) {
        soon();
        return;
      }
      const stop = client.getMutationCache().subscribe(() => {
        if (client.isMutating() === 0) {
          stop();
          soon();
        }
      });
    },
    [client],
  );
}
