import type { Change, Draft, Kind, RecordView } from './model';
import { words } from './words';

/** The fields of records that are whole numbers and no ids: a new one of the contract is missed here. */
export type NumberField = Exclude<
  {
    [K in keyof RecordView & keyof Change]-?: NonNullable<RecordView[K]> extends number ? K : never;
  }[keyof RecordView & keyof Change],
  'place' | 'team'
>;

/** How one is typed where it is not a plain count: lengths in hours, though kept in minutes. */
interface Typing {
  /** How many of it make one of what is typed. */
  per: number;
  accepts: RegExp;
  kinds?: Kind[];
}

const COUNT: Typing = { per: 1, accepts: /^\d{0,3}$/ };

/** As 2.5 or 2,5. */
const HOURS: Typing = { per: 60, accepts: /^(\d{1,3}([.,]\d{0,2})?)?$/ };

const TYPED: Partial<Record<NumberField, Typing>> = {
  estimateMinutes: HOURS,
  leastHeadCount: { ...COUNT, kinds: ['JOB'] },
};

export const NUMBERS = Object.keys(words.numbers) as NumberField[];

export const howTyped = (field: NumberField): Typing => TYPED[field] ?? COUNT;

/** Those that work of a kind has. */
export const numbersOf = (kind: Kind) =>
  NUMBERS.filter((field) => howTyped(field).kinds?.includes(kind) ?? true);

/** As they are typed; nothing typed is no number. */
export const numbersTyped = (record?: RecordView): Draft['numbers'] =>
  Object.fromEntries(
    NUMBERS.map((field) => {
      const said = record?.[field];
      return [field, said === undefined ? '' : String(said / howTyped(field).per)];
    }),
  ) as Draft['numbers'];

/** As one is sent; null takes it off. */
export const sent = (field: NumberField, typed: string) =>
  typed ? Math.round(howTyped(field).per * Number(typed.replace(',', '.'))) : null;
