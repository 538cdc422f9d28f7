import { addDays, dayStart, mondayOf, today } from '../../shared/time';

/** How much of time the board shows at once. */
export type Zoom = 'day' | 'week' | 'weeks' | 'season';

const LENGTH: Record<Zoom, number> = { day: 1, week: 7, weeks: 21, season: 91 };

/** The days on the board, with the moments between them. */
export interface Days {
  zoom: Zoom;
  zone: string;
  /** Dates as 2026-11-25, in order. */
  dates: string[];
  /** The moment each day begins, and the one at which the last ends: one more than dates. */
  edges: number[];
}

export const lengthOf = (zoom: Zoom) => LENGTH[zoom];

export function daysOf(zoom: Zoom, from: string, zone: string, count = LENGTH[zoom]): Days {
  const dates = Array.from({ length: count }, (_, i) => addDays(from, i));
  const edges = [...dates, addDays(from, count)].map((date) => dayStart(date, zone));
  return { zoom, zone, dates, edges };
}

/** Where a zoom begins that shows this date. */
export function beginning(zoom: Zoom, date: string): string {
  return zoom === 'day' ? date : mondayOf(date);
}

/** The next stretch, or the one before. */
export function turned(zoom: Zoom, from: string, by: 1 | -1): string {
  const step = zoom === 'season' ? 28 : LENGTH[zoom];
  return addDays(from, step * by);
}

export function startsToday(zoom: Zoom): string {
  return beginning(zoom, today());
}

/**
 * Where hours lie across a day, as shares of its width at 0:00, 5:00, 22:00 and 24:00. Nights are
 * folded where a day is one of several columns.
 */
const FOLDED = [
  [0, 0],
  [5, 0.1],
  [22, 0.9],
  [24, 1],
] as const;

function across(hour: number): number {
  for (let i = 1; i < FOLDED.length; i++) {
    const [h0, x0] = FOLDED[i - 1]!;
    const [h1, x1] = FOLDED[i]!;
    if (hour <= h1) {
      return x0 + ((hour - h0) / (h1 - h0)) * (x1 - x0);
    }
  }
  return 1;
}

function hourAt(share: number): number {
  for (let i = 1; i < FOLDED.length; i++) {
    const [h0, x0] = FOLDED[i - 1]!;
    const [h1, x1] = FOLDED[i]!;
    if (share <= x1) {
      return h0 + ((share - x0) / (x1 - x0)) * (h1 - h0);
    }
  }
  return 24;
}

/** Which day a moment falls on; -1 before the first, the number of days after the last. */
export function dayAt(days: Days, moment: number): number {
  const { edges } = days;
  if (moment < edges[0]!) {
    return -1;
  }
  let low = 0;
  let high = edges.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (edges[middle]! <= moment) {
      low = middle;
    } else {
      high = middle - 1;
    }
  }
  return low;
}

/** Where a moment lies across the whole width, from 0 to 1. */
export function placeOf(days: Days, moment: number): number {
  const count = days.dates.length;
  const day = dayAt(days, moment);
  if (day < 0) {
    return 0;
  }
  if (day >= count) {
    return 1;
  }
  const share = (moment - days.edges[day]!) / (days.edges[day + 1]! - days.edges[day]!);
  const folded = days.zoom === 'day' ? share : across(share * 24);
  return (day + folded) / count;
}

/** The moment at a place across the whole width, on a quarter of an hour. */
export function momentAt(days: Days, place: number): number {
  const count = days.dates.length;
  const day = Math.max(0, Math.min(count - 1, Math.floor(place * count)));
  const share = Math.max(0, Math.min(1, place * count - day));
  const part = days.zoom === 'day' ? share : hourAt(share) / 24;
  const length = days.edges[day + 1]! - days.edges[day]!;
  const quarter = 15 * 60_000;
  return days.edges[day]! + Math.round((part * length) / quarter) * quarter;
}
