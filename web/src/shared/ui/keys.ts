import { useLayoutEffect, useRef } from 'react';

/** Whether letter keys act at once; people may switch them off (WCAG 2.1.4). */
export function letterKeysOn(): boolean {
  return localStorage.getItem('letter-keys') !== 'off';
}

export function setLetterKeys(on: boolean): void {
  localStorage.setItem('letter-keys', on ? 'on' : 'off');
}

const TAKES_KEYS = '[role="dialog"], .ant-select, [role="listbox"], [role="menu"]';

/** Whether it takes keys; what is going away or hidden may still have the focus, and takes none. */
export function typing(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement) || target.getClientRects().length === 0) {
    return false;
  }
  return (
    target.isContentEditable ||
    ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName) ||
    target.closest(TAKES_KEYS)?.matches(':not([class*="-leave"])') === true
  );
}

let endTypingAhead: (() => string) | null = null;

/**
 * From a key that opens a field until the field has the focus: what is typed meanwhile is kept for
 * it, so that a fast hand loses nothing and starts nothing else.
 */
export function typeAhead(): void {
  endTypingAhead?.();
  let typed = '';
  const keep = (event: KeyboardEvent) => {
    const plain = !event.ctrlKey && !event.metaKey && !event.altKey;
    if (event.key === 'Escape') {
      endTypingAhead?.();
    } else if (event.key.length === 1 && plain && !typing(event.target)) {
      typed += event.key;
      event.preventDefault();
      event.stopImmediatePropagation();
    }
  };
  // A field that awaits it takes it as it is drawn with the focus; any other one ends it.
  const focused = (event: FocusEvent) => typing(event.target) && setTimeout(end);
  const end = () => {
    window.removeEventListener('keydown', keep, true);
    window.removeEventListener('focusin', focused);
    endTypingAhead = null;
    return typed;
  };
  endTypingAhead = end;
  window.addEventListener('keydown', keep, true);
  window.addEventListener('focusin', focused);
}

/** What was typed ahead of the field that now has the focus. */
export function typedAhead(): string {
  return endTypingAhead?.() ?? '';
}

/** Single keys that act while nobody types. "g r" is g, then r. */
export function useKeys(keys: Record<string, () => void>): void {
  const latest = useRef(keys);
  const prefix = useRef('');
  useLayoutEffect(() => {
    latest.current = keys;
  });
  useLayoutEffect(() => {
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
