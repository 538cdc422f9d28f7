import type { Focus } from './Grid';
import type { Piece } from './lanes';
import type { Row } from './rows';

export type Picked = ReturnType<typeof pickedOf>;

/** What the keyboard and the choice are on. */
export function pickedOf(rows: Row[], focus: Focus | null, chosen: ReadonlySet<string>) {
  const laneOf = (key: string) => {
    const row = rows.find((r) => r.key === key);
    return row?.type === 'lane' ? row.lane : null;
  };
  const lane = focus ? laneOf(focus.lane) : null;
  const piece =
    lane && focus && focus.piece >= 0 ? lane.cells[focus.day]?.[focus.piece] : undefined;
  const onBoard = () => rows.flatMap((r) => (r.type === 'lane' ? r.lane.pieces : []));
  const all = () => {
    const byKey = new Map(onBoard().map((p) => [p.key, p]));
    return [...chosen].flatMap((key) => byKey.get(key) ?? []);
  };
  return {
    laneOf,
    lane,
    piece,
    /** Everything that is chosen. */
    all,
    /** The keys of all that is on the board. */
    everything: () => new Set(onBoard().map((p) => p.key)),
    /** What an action is about: everything chosen, else what has the keyboard. */
    meant: (): Piece[] => {
      const many = all();
      return many.length > 0 ? many : piece ? [piece] : [];
    },
  };
}
