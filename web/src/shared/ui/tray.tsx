import { createContext, useContext } from 'react';

/** What was just done, told in the strip along the bottom, with its undo. */
export interface Told {
  text: string;
  act?: number;
  /** Where it took several acts, all of them, in their order; one undo takes them all back. */
  acts?: number[];
}

export const TrayContext = createContext<{ tell: (told: Told) => void }>({ tell: () => undefined });

export function useTray() {
  return useContext(TrayContext);
}
