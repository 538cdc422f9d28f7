/** Work whose times were just changed here; whatever follows its dates hears of it. */
const hearers = new Set<(records: number[]) => void>();

/** Hears of it from now on; gives the way to hear no more. */
export function onTimesMoved(hearer: (records: number[]) => void): () => void {
  hearers.add(hearer);
  return () => {
    hearers.delete(hearer);
  };
}

const TIMES = ['visits', 'due', 'dates'];

/** Tells of changes that were kept, those of times alone. */
export function tellTimesMoved(changes: { record?: number; change?: object }[]) {
  const moved = changes
    .filter(({ change }) => TIMES.some((field) => change !== undefined && field in change))
    .flatMap(({ record }) => (record === undefined ? [] : [record]));
  if (moved.length > 0) {
    hearers.forEach((hearer) => hearer(moved));
  }
}
