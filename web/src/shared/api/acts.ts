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

const SAID: Record<string, string> = {
  'crew.person': 'People changed',
  'crew.team': 'Teams changed',
  'crew.membership': 'A team’s people changed',
  'crew.place': 'Places changed',
  'crew.skills': 'Skills changed',
  'crew.hours': 'Working hours changed',
  'crew.terms': 'Contract and zone changed',
  'crew.leave': 'Leave changed',
  'house.settle': 'What holds for the house changed',
  'house.days': 'Days that are worked, and closures, changed',
  'house.region': 'Regions and holidays changed',
  'house.place': 'What a place holds and how far it is changed',
  'house.limits': 'Limits changed',
  'duty.add': 'A duty added',
  'duty.change': 'A duty changed',
  'duty.remove': 'A duty taken away',
  'cover.let-stand': 'A clash let stand',
  'cover.open-again': 'A clash opened again',
  'account.title': 'The pattern of own titles changed',
  'file.take': 'A file brought in',
  'settled.undo': 'Taken back',
};

/** What was settled, in words. */
export function settledSaid(kind: string): string {
  return SAID[kind] ?? 'Changed';
}
