/**
 * What a closed set calls one of its values, where a page holds it as plain text; what is in no set
 * stands as it is. That a set lacks none of its values is checked where its words are written.
 */
export function worded(words: Readonly<Record<string, string>>, value: string): string {
  return words[value] ?? value;
}
