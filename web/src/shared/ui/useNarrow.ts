import { useSyncExternalStore } from 'react';

const NARROW = '(max-width: 760px)';

function listen(changed: () => void) {
  const query = window.matchMedia(NARROW);
  query.addEventListener('change', changed);
  return () => query.removeEventListener('change', changed);
}

/** Whether the window is as narrow as a phone's; each page's styles draw the same line. */
export function useNarrow(): boolean {
  return useSyncExternalStore(listen, () => window.matchMedia(NARROW).matches);
}
