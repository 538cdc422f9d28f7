/**
 * What a closed set calls one of its values, where a page holds it as plain text; what is in no set
 * stands as it is. That a set lacks none of its values is checked where its words are written.
 */
export function worded(words: Readonly<Record<string, string>>, value: string): string {
  return words[value] ?? value;
}

/** Words of a closed set to choose from, in their order. */
export function choices<Value extends string>(words: Readonly<Record<Value, string>>) {
  return (Object.keys(words) as Value[]).map((value) => ({ value, label: words[value] }));
}
