import type { Schemas } from '../../shared/api/client';

export type RecordView = Schemas['RecordView'];
export type Visit = Schemas['VisitView'];

/** One visit of a record, or the record by its due time. */
export interface Piece {
  key: string;
  record: RecordView;
  visit?: Visit;
  day: string;
  sort: string;
}

export function piecesOf(work: RecordView[]): Piece[] {
  const found: Piece[] = [];
  for (const record of work) {
    const spans = (record.visits ?? []).flatMap((visit) => {
      const at = visit.start ?? visit.first;
      return at ? [{ visit, at }] : [];
    });
    for (const { visit, at } of spans) {
      found.push({
        key: `${record.id}:${visit.no}`,
        record,
        visit,
        day: at.slice(0, 10),
        sort: at,
      });
    }
    const due = record.due?.at ?? record.due?.date;
    if (spans.length === 0 && due) {
      found.push({ key: String(record.id), record, day: due.slice(0, 10), sort: due });
    }
  }
  return found.sort((a, b) => a.sort.localeCompare(b.sort, 'en'));
}

export function isToday(piece: Piece, today: string): boolean {
  const { visit, record } = piece;
  const last = visit?.last ?? visit?.end?.slice(0, 10) ?? piece.day;
  const late = !visit && record.state !== 'DONE' && piece.day < today;
  return late || (piece.day <= today && last >= today);
}
