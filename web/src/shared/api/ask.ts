import {
  useMutation,
  useQuery,
  useQueryClient,
  type QueryKey,
  type UseQueryOptions,
} from '@tanstack/react-query';
import { useCallback } from 'react';
import { take } from './client';

/** What a call to the API comes to. */
type Answer<T> = Promise<{ data?: T; error?: unknown; response: Response }>;

/** Reads something and keeps it under its key. */
export function useRead<T>(
  queryKey: QueryKey,
  call: () => Answer<T>,
  more: Omit<UseQueryOptions<T>, 'queryKey' | 'queryFn'> = {},
) {
  return useQuery<T>({ queryKey, queryFn: () => take(call()), ...more });
}

/** What stands there until the next answer. */
export const asBefore = <T>(before: T | undefined) => before;

/** What a form begins with: nothing kept from before, also not while it is being read anew. */
export function useReadNow<T>(queryKey: QueryKey, call: () => Answer<T>) {
  const { data, error, isFetchedAfterMount, refetch } = useRead(queryKey, call, {
    gcTime: 0,
    // What stands beside the form has read it too, and not for the form.
    refetchOnMount: 'always',
  });
  return {
    data: isFetchedAfterMount ? data : undefined,
    error,
    isPending: !isFetchedAfterMount,
    refetch,
  };
}

/** Has everything read again, or what is kept under these keys. */
export function useStale(stale?: QueryKey[]) {
  const queries = useQueryClient();
  return () => {
    if (!stale) {
      void queries.invalidateQueries();
    }
    stale?.forEach((queryKey) => void queries.invalidateQueries({ queryKey }));
  };
}

/** What follows on it. */
interface Then<T> {
  onSuccess?: (answer: T) => void;
  onError?: (error: Error) => void;
}

/**
 * Does something; whatever comes of it, everything, or what these keys tell, is read again. What
 * follows happens also where the page was left meanwhile, so that its undo is offered there too; an
 * error nobody asked for stands in `error`.
 */
export function useDo<V = void, T = unknown>(call: (value: V) => Answer<T>, stale?: QueryKey[]) {
  const doing = useMutation({
    mutationFn: (value: V) => take(call(value)),
    onSettled: useStale(stale),
  });
  const { mutateAsync } = doing;
  const mutate = useCallback(
    (value: V, then: Then<T> = {}) =>
      void mutateAsync(value).then(then.onSuccess, (error: Error) => then.onError?.(error)),
    [mutateAsync],
  );
  return { ...doing, mutate };
}

/** Of one thing. */
export const of = <P>(path: P) => ({ params: { path } });

/** Of one thing, if it is still as it was seen. */
export const ofStill = <P>(path: P, tag: string) => ({
  params: { path, header: { 'If-Match': tag } },
});
