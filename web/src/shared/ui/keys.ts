import { useEffect, useRef } from 'react';

/** Whether letter keys act at once; people may switch them off (WCAG 2.1.4). */
export function letterKeysOn(): boolean {
  return localStorage.getItem('letter-keys') !== 'off';
}

export function setLetterKeys(on: boolean): void {
  localStorage.setItem('letter-keys', on ? 'on' : 'off');
}

/** A dialog that is going away keeps the focus until it has gone, and takes no more keys. */
const OPEN_DIALOG = '[role="dialog"]:not([class*="-leave"])';

function typing(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable ||
      ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName) ||
      target.closest(`${OPEN_DIALOG}, .ant-select, [role="listbox"], [role="menu"]`) !== null)
  );
}

/** Single keys that act while nobody types. "g r" is g, then r. */
export function useKeys(keys: Record<string, () => void>): void {
  const latest = useRef(keys);
  const prefix = useRef('');
  useEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const plain = !event.ctrlKey && !event.metaKey && !event.altKey;
      const letter = event.key.length === 1;
      if (!plain || typing(event.target) || (letter && !letterKeysOn())) {
        return;
      }
      const key = prefix.current ? prefix.current + ' ' + event.key : event.key;
      const known = Object.keys(latest.current);
      prefix.current = known.some((k) => k.startsWith(key + ' ')) ? event.key : '';
      const action = latest.current[key];
      if (action) {
        event.preventDefault();
        action();
      }
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
}
