/**
 * Application identifiers of GS1 element strings: how many digits name one, and how long its value is.
 * @source GS1 General Specifications, sections 3.2 and 7.8, from memory; the worked strings of the tests as well
 */
export interface IdentifierFormat {
  /** Digits of the identifier itself. */
  readonly digits: 2 | 3 | 4;
  /** Characters of its value: exactly so many of a fixed one, at most so many of another. */
  readonly length: number;
  /** A fixed value needs no separator behind it. */
  readonly fixed: boolean;
  readonly numeric: boolean;
}

const fixed = (digits: 2 | 3 | 4, length: number): IdentifierFormat => ({ digits, length, fixed: true, numeric: true });
const upTo = (digits: 2 | 3 | 4, length: number, numeric = false): IdentifierFormat => ({ digits, length, fixed: false, numeric });

/** Identifiers of two digits, by name. */
const TWO: Readonly<Record<string, IdentifierFormat>> = {
  '00': fixed(2, 18),
  '01': fixed(2, 14),
  '02': fixed(2, 14),
  '10': upTo(2, 20),
  '11': fixed(2, 6),
  '12': fixed(2, 6),
  '13': fixed(2, 6),
  '15': fixed(2, 6),
  '16': fixed(2, 6),
  '17': fixed(2, 6),
  '20': fixed(2, 2),
  '21': upTo(2, 20),
  '22': upTo(2, 20),
  '30': upTo(2, 8, true),
  '37': upTo(2, 8, true),
  '90': upTo(2, 30),
};

/** Families of longer identifiers, by their first two digits. */
const LONGER: Readonly<Record<string, IdentifierFormat>> = {
  '23': upTo(3, 28),
  '24': upTo(3, 30),
  '25': upTo(3, 30),
  '31': fixed(4, 6),
  '32': fixed(4, 6),
  '33': fixed(4, 6),
  '34': fixed(4, 6),
  '35': fixed(4, 6),
  '36': fixed(4, 6),
  '39': upTo(4, 18, true),
  '40': upTo(3, 30),
  '41': fixed(3, 13),
  '42': upTo(3, 20),
  '43': upTo(4, 70),
  '70': upTo(4, 90),
  '71': upTo(3, 20),
  '72': upTo(4, 90),
  '80': upTo(4, 90),
  '81': upTo(4, 90),
  '82': upTo(4, 90),
};

/**
 * How the identifier at the beginning of a text is written; null where there is none such.
 * @example identifierAt('17280229')?.length → 6
 */
export function identifierAt(text: string): IdentifierFormat | null {
  const two = text.slice(0, 2);
  const format = TWO[two] ?? LONGER[two] ?? (/^9[1-9]$/.test(two) ? upTo(2, 90) : null);
  return format && /^\d+$/.test(text.slice(0, format.digits)) && text.length >= format.digits ? format : null;
}
