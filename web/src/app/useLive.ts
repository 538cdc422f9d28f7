import { useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { recordChanged } from '../shared/api/keys';

/** Hears what others change and fetches it again, without moving what one looks at. */
export function useLive() {
  const queries = useQueryClient();
  useEffect(() => {
    const source = new EventSource('/api/v1/events');
    source.addEventListener('record', (event) => {
      const { id } = JSON.parse((event as MessageEvent<string>).data) as { id: number };
      recordChanged(queries, id);
    });
    source.addEventListener('world', () => void queries.invalidateQueries());
    return () => source.close();
  }, [queries]);
}
