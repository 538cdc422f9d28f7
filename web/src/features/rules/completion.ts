/** What is typed of a detail's name before the caret, after an open brace; null where none is. */
export function asked(text: string, caret: number): string | null {
  const open = text.lastIndexOf('{', caret - 1);
  if (open < 0 || text[open - 1] === '\\') {
    return null;
  }
  const typed = text.slice(open + 1, caret);
  return /^[a-z0-9 ]*$/.test(typed) ? typed : null;
}

/** The text with a detail's name put where it was begun, and the caret after it. */
export function put(text: string, caret: number, name: string): { text: string; caret: number } {
  const open = text.lastIndexOf('{', caret - 1);
  const rest = text.slice(caret).replace(/^[a-z0-9 ]*\}/, '');
  const before = `${text.slice(0, open)}{${name}}`;
  return { text: before + rest, caret: before.length };
}
