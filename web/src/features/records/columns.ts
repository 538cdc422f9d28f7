import type { Schemas } from '../../shared/api/client';
import type { RecordView } from './model';
import type { Order } from './queries';
import { words } from './words';

/** A column that a list can have beside its own. */
export interface Column {
  key: string;
  label: string;
  text: (row: RecordView) => string;
  /** What it sorts by, and by what when it is pressed again. */
  orders?: [Order, Order];
}

/** By the value of a detail. */
export const ordersOf = (key: string): [Order, Order] => [`DETAIL:${key}`, `DETAIL_LAST:${key}`];

/** All that there are: of each record, and of what the house keeps on records. */
export function columnsOf(details: Schemas['Detail'][]): Column[] {
  const own: Column[] = [
    { key: 'kind', label: words.kind, text: (row) => words.kinds[row.kind] },
    { key: 'team', label: words.team, text: (row) => row.team?.name ?? '' },
    { key: 'tags', label: words.tags, text: (row) => (row.tags ?? []).join(', ') },
  ];
  const written = details.filter((one) => one.typed && one.key !== 'title');
  return [
    ...own,
    ...written.map((one) => ({
      key: one.key,
      label: one.label,
      orders: ordersOf(one.key),
      text: (row: RecordView) => {
        const value = row.details.find((detail) => detail.key === one.key)?.value ?? '';
        return value && one.unit ? `${value} ${one.unit}` : value;
      },
    })),
  ];
}
