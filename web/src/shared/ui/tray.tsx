import { createContext, useContext } from 'react';

/** What was just done, told in the strip along the bottom, with its undo. */
export interface Told {
  text: string;
  act?: number;
}

export const TrayContext = createContext<{ tell: (told: Told) => void }>({ tell: () => undefined });

export function useTray() {
  return useContext(TrayContext);
}
