import { useQueryClient } from '@tanstack/react-query';
import { asBefore, useRead } from '../../shared/api/ask';
import { api, take, type Schemas } from '../../shared/api/client';
import { keys } from '../../shared/api/keys';

/** A record as it is being planned; without a number it is new. */
export type Planned = Schemas['TrialAsked'];
export type Trial = Schemas['Trial'];

const ask = (planned: Planned) => api.POST('/api/v1/cover/trial', { body: planned });

/** What saving it would break, and who could do it; null: there is nothing to try. */
export function useTrial(planned: Planned | null) {
  const queries = useQueryClient();
  const queryKey = keys.coverPart('trial', planned);
  const found = useRead(queryKey, () => ask(planned!), {
    enabled: planned !== null,
    placeholderData: asBefore,
    retry: false,
  });
  return {
    data: planned === null ? undefined : found.data,
    error: found.error,
    /** Of what is to be saved now, which may not have been shown yet. */
    of: (last: Planned): Promise<Trial> =>
      queries.fetchQuery({
        queryKey: keys.coverPart('trial', last),
        queryFn: () => take(ask(last)),
        staleTime: 5000,
      }),
  };
}
