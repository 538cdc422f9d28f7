import type { Days } from './days';
import type { Group, Lane } from './lanes';

/** A line of the board from top to bottom. */
export type Row =
  | { type: 'group'; key: string; group: Group; height: number }
  | { type: 'lane'; key: string; lane: Lane; height: number };

const THREAD = 16;
const LINE = 17;
const RAIL = 7;
const GROUP = 25;
const MOST_LINES = 6;

/** How many lines of text a cell has, the words for clashes included. */
export function linesOf(lane: Lane, day: number): number {
  const count = lane.cells[day]?.length ?? 0;
  return Math.min(count, MOST_LINES) + (count > MOST_LINES ? 1 : 0) + clashesOn(lane, day).length;
}

export function clashesOn(lane: Lane, day: number) {
  return lane.twice.filter((t) => t.day === day);
}

export const shownIn = (count: number) => Math.min(count, MOST_LINES);

function laneHeight(lane: Lane, days: Days): number {
  if (days.zoom === 'season') {
    return 26;
  }
  if (days.zoom === 'weeks') {
    return 30 + Math.max(0, lane.rails - 1) * RAIL;
  }
  if (days.zoom === 'day') {
    return Math.max(46, 10 + dayTracks(lane, days).length * 24 + lane.rails * RAIL);
  }
  const lines = days.dates.map((_, day) => linesOf(lane, day));
  return Math.max(54, THREAD + Math.max(...lines) * LINE + 6 + lane.rails * RAIL);
}

/** Pieces of one day in rows, so that none lies over another. */
export function dayTracks(lane: Lane, days: Days): Lane['pieces'][] {
  const tracks: Lane['pieces'][] = [];
  for (const p of lane.pieces) {
    const inside = p.outerEnd > days.edges[0]! && p.outerStart < days.edges[1]!;
    const rail = p.shape === 'ticket';
    if (!inside || rail) {
      continue;
    }
    const track = tracks.find((t) => t[t.length - 1]!.outerEnd <= p.outerStart);
    if (track) {
      track.push(p);
    } else {
      tracks.push([p]);
    }
  }
  const tickets = lane.pieces.filter((p) => p.shape === 'ticket' && p.day === 0);
  // A ticket's words stand by its due time, one under the other.
  tickets.forEach((p) => tracks.push([p]));
  return tracks;
}

export function rowsOf(nobody: Lane, groups: Group[], days: Days): Row[] {
  const rows: Row[] = [
    { type: 'lane', key: nobody.key, lane: nobody, height: laneHeight(nobody, days) },
  ];
  for (const group of groups) {
    rows.push({ type: 'group', key: group.key, group, height: GROUP });
    for (const lane of group.lanes) {
      rows.push({ type: 'lane', key: lane.key, lane, height: laneHeight(lane, days) });
    }
  }
  return rows;
}

/** Where each row begins, and where the last ends. */
export function offsetsOf(rows: Row[]): number[] {
  const offsets = [0];
  rows.forEach((row, i) => offsets.push(offsets[i]! + row.height));
  return offsets;
}

/** Which row lies at a height; the nearest where none does. */
export function rowAt(offsets: number[], y: number): number {
  let low = 0;
  let high = offsets.length - 2;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (offsets[middle]! <= y) {
      low = middle;
    } else {
      high = middle - 1;
    }
  }
  return low;
}
