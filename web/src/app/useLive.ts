import { useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';

/** Hears what others change and fetches it again, without moving what one looks at. */
export function useLive() {
  const client = useQueryClient();
  useEffect(() => {
    const source = new EventSource('/api/v1/events');
    source.addEventListener('record', (event) => {
      const { id } = JSON.parse((event as MessageEvent<string>).data) as { id: number };
      void client.invalidateQueries({ queryKey: ['record', id] });
      void client.invalidateQueries({ queryKey: ['records'] });
      void client.invalidateQueries({ queryKey: ['board'] });
      void client.invalidateQueries({ queryKey: ['today'] });
      void client.invalidateQueries({ queryKey: ['my-day'] });
      void client.invalidateQueries({ queryKey: ['releases'] });
      void client.invalidateQueries({ queryKey: ['copies'] });
      void client.invalidateQueries({ queryKey: ['cover'] });
    });
    source.addEventListener('world', () => void client.invalidateQueries());
    return () => source.close();
  }, [client]);
}
