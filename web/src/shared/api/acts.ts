/** An act that was done for the crew or the house and can be taken back, as the header Act tells. */
export interface DoneAct {
  act: number;
  kind: string;
}

const hearers = new Set<(act: DoneAct) => void>();

/** Hears of each act that an answer tells of; gives the way to hear no more. */
export function onSettled(hearer: (act: DoneAct) => void): () => void {
  hearers.add(hearer);
  return () => {
    hearers.delete(hearer);
  };
}

/** Tells of what an answer's header says: "375;kind=crew.hours", several with commas between. */
export function tellSettled(header: string | null) {
  for (const item of header?.split(',') ?? []) {
    const found = /^\s*(\d+);kind=(\S+)\s*$/.exec(item);
    if (found) {
      hearers.forEach((hearer) => hearer({ act: Number(found[1]), kind: found[2]! }));
    }
  }
}
