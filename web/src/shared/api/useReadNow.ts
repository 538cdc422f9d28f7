import { useQuery, type QueryKey } from '@tanstack/react-query';

/** What a form begins with: nothing kept from before, also not while it is being read anew. */
export function useReadNow<T>(queryKey: QueryKey, queryFn: () => Promise<T>) {
  const { data, error, isFetchedAfterMount, refetch } = useQuery({ queryKey, queryFn, gcTime: 0 });
  return {
    data: isFetchedAfterMount ? data : undefined,
    error,
    isPending: !isFetchedAfterMount,
    refetch,
  };
}
