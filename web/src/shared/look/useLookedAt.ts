import { createContext, useContext, useState } from 'react';
import { api, lookAt, type Client, type Schemas } from '../api/client';

/** A change that waits until somebody has looked at what it would do. */
export interface Wish {
  preview: Schemas['SetPreview'];
  /** Whether it was done. */
  go: () => Promise<boolean>;
  leave: () => void;
}

export const LookContext = createContext<{ ask: (wish: Wish) => void }>({ ask: () => undefined });

interface Deed<V, R> {
  mutate: (
    value: V,
    then?: { onSuccess?: (done: R) => void; onError?: (error: Error) => void },
  ) => void;
  isPending: boolean;
  error: Error | null;
  variables: V | undefined;
  /** What it answered last time. */
  data: R | undefined;
}

/**
 * A change that is looked at before it is done. What would change on no calendar is done at once:
 * there is nothing to look at.
 */
export function useLookedAt<V, R>(
  change: (client: Client, value: V) => Promise<R>,
  onDone: () => void,
): Deed<V, R> {
  const { ask } = useContext(LookContext);
  const [state, setState] = useState<Omit<Deed<V, R>, 'mutate'>>({
    isPending: false,
    error: null,
    variables: undefined,
    data: undefined,
  });
  const rest = (error: Error | null = null) =>
    setState((before) => ({ ...before, isPending: false, error }));
  const mutate: Deed<V, R>['mutate'] = (value, then) => {
    setState({ isPending: true, error: null, variables: value, data: undefined });
    const failed = (error: Error) => {
      rest(error);
      then?.onError?.(error);
    };
    const go = async () => {
      try {
        const done = await change(api, value);
        setState((before) => ({ ...before, isPending: false, data: done }));
        onDone();
        then?.onSuccess?.(done);
        return true;
      } catch (error) {
        failed(error as Error);
        return false;
      }
    };
    lookAt((client) => change(client, value)).then(
      (preview) => (isNothing(preview) ? void go() : ask({ preview, go, leave: () => rest() })),
      (error: unknown) => failed(error as Error),
    );
  };
  return { mutate, ...state };
}

function isNothing(preview: Schemas['SetPreview']): boolean {
  const { added, changed, takenOff, waits, shown, hidden, ends } = preview;
  return added + changed + takenOff + waits + shown.length + hidden.length + ends.length === 0;
}
