import { useLayoutEffect, useState } from 'react';
import { applyVariables, type Mode } from './theme';

const asked = () =>
  window.matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : ('light' as Mode);

/** Light or dark: what the machine asks for until somebody chooses. */
export function useMode() {
  const [mode, setMode] = useState<Mode>(
    () => (localStorage.getItem('mode') as Mode | null) ?? asked(),
  );
  useLayoutEffect(() => applyVariables(mode), [mode]);
  return {
    mode,
    turn: () => {
      const next = mode === 'light' ? 'dark' : 'light';
      localStorage.setItem('mode', next);
      setMode(next);
    },
  };
}
