import type { Schemas } from './api/client';
import text from './words.json';

/** What every form and dialog says. */
export const words = {
  ...text,
  answered: (status: number) => `The server answered ${status}.`,
  showAll: (n: number) => `Show all ${n}`,
  request: (number: string) => `Request ${number}`,
};

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

/** How a value of a detail is typed. */
export const valueHints: Partial<Record<Schemas['Detail']['sort'], string>> = {
  DATE: '2026-11-27',
  MONEY: '120.00',
  MAIL: 'name@host.example',
  LINK: 'https://',
};

/** What was changed for the crew and the organisation, by the kind of its act. */
const SETTLED: Record<string, string> = {
  'crew.person': 'People changed',
  'crew.team': 'Teams changed',
  'crew.membership': 'Team members changed',
  'crew.place': 'Places changed',
  'crew.skills': 'Skills changed',
  'crew.hours': 'Working hours changed',
  'crew.terms': 'Contract and time zone changed',
  'crew.leave': 'Leave changed',
  'house.settle': 'Settings changed',
  'house.days': 'Working days and closures changed',
  'house.region': 'Regions and holidays changed',
  'house.place': 'Capacity and travel times changed',
  'house.limits': 'Limits changed',
  'house.margins': 'Margins changed',
  'house.chain': 'Chains of deadlines changed',
  'house.methods': 'Methods of notice changed',
  'duty.add': 'Duty added',
  'duty.change': 'Duty changed',
  'duty.remove': 'Duty deleted',
  'cover.let-stand': 'Clash accepted',
  'cover.open-again': 'Clash reopened',
  'rules.change': 'Rules, wordings or details changed',
  'rules.undo': 'Undone',
  'account.title': 'Personal titles changed',
  'file.take': 'File imported',
  'settled.undo': 'Undone',
};

export function settledSaid(kind: string): string {
  return SETTLED[kind] ?? 'Changed';
}

/** Why people usually let something stand that a limit warns of. */
export const usualReasons = [
  'Agreed with the person',
  'They swapped',
  'One-off',
  'Paid as overtime',
];
