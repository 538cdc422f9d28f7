import type { Schemas } from '../../shared/api/client';

export type FileRead = Schemas['FileRead'];
export type FileRow = Schemas['FileRow'];
export type Verdict = Schemas['RowVerdict'];
export type What = 'RECORDS' | 'PEOPLE' | 'PLACES';

/** A fault with what is needed to mend it in place, in all rows that say the same. */
export interface Mend {
  /** Which of the rows have it, from 0. */
  at: number[];
  /** The number of the first in the file. */
  row: number;
  column: number | null;
  text: string;
  message: string;
  near: string | null;
}

/** The faults of all rows, alike ones together, by column and the most frequent first. */
export function mends(rows: FileRow[], verdicts: Verdict[]): Mend[] {
  const found = new Map<string, Mend>();
  verdicts.forEach((verdict, at) => {
    for (const fault of verdict.faults) {
      const column = fault.column ?? null;
      const text = column === null ? '' : (rows[at]?.cells[column] ?? '');
      // An empty cell, or a whole row, is each row's own to mend.
      const alike = text === '' ? `${at} ` : '';
      const key = `${alike}${column} ${text} ${fault.message}`;
      const known = found.get(key);
      if (known) {
        known.at.push(at);
      } else {
        const { message, near } = fault;
        found.set(key, { at: [at], row: verdict.row, column, text, message, near: near ?? null });
      }
    }
  });
  return [...found.values()].sort(
    (a, b) =>
      (a.column ?? -1) - (b.column ?? -1) || b.at.length - a.at.length || a.at[0]! - b.at[0]!,
  );
}

/** The rows with a cell written anew wherever it has this fault. */
export function written(rows: FileRow[], mend: Mend, text: string): FileRow[] {
  const meant = new Set(mend.at);
  return rows.map((row, at) => {
    if (!meant.has(at)) {
      return row;
    }
    const cells = [...row.cells];
    while (cells.length <= mend.column!) {
      cells.push('');
    }
    cells[mend.column!] = text;
    return { ...row, cells };
  });
}

export function count(verdicts: Verdict[], verdict: Verdict['verdict']): number {
  return verdicts.filter((one) => one.verdict === verdict).length;
}

/** Where a file comes from, after its name without dates and numbers: tickets-2026-11.csv. */
export function sourceOf(name: string): string {
  const plain = name
    .replace(/\.[a-z0-9]+$/i, '')
    .replace(/[\d]+/g, ' ')
    .replace(/[^\p{L}]+/gu, ' ')
    .trim();
  return (plain || 'file').slice(0, 60);
}

const STROKES = /^\d{1,2}\/\d{1,2}\/\d{4}/;

/** Whether any cell has a date that could be read two ways. */
export function hasStrokes(rows: FileRow[]): boolean {
  return rows.some((row) => row.cells.some((cell) => STROKES.test(cell)));
}
