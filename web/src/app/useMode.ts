import { useLayoutEffect, useState, useSyncExternalStore } from 'react';
import { applyVariables, type Mode } from './theme';

const dark = window.matchMedia('(prefers-color-scheme: dark)');

function onAsked(changed: () => void) {
  dark.addEventListener('change', changed);
  return () => dark.removeEventListener('change', changed);
}

/** Light or dark: what the machine asks for by now, until somebody chooses. */
export function useMode() {
  const asked: Mode = useSyncExternalStore(onAsked, () => (dark.matches ? 'dark' : 'light'));
  const [chosen, setChosen] = useState(() => localStorage.getItem('mode') as Mode | null);
  const mode = chosen ?? asked;
  useLayoutEffect(() => applyVariables(mode), [mode]);
  return {
    mode,
    turn: () => {
      const next = mode === 'light' ? 'dark' : 'light';
      localStorage.setItem('mode', next);
      setChosen(next);
    },
  };
}
