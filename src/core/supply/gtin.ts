/**
 * The check digit of a GS1 key: from the right, digits count three and one in turn, and all of it makes a whole ten.
 * @param digits the key without its check digit
 * @example checkDigit('629104150021') → 3
 * @source GS1 General Specifications, section 7.9
 */
export const checkDigit = (digits: string): number =>
  (10 - ([...digits].reverse().reduce((sum, digit, i) => sum + Number(digit) * (i % 2 === 0 ? 3 : 1), 0) % 10)) % 10;

/** Does a key end in its check digit? @example hasCheckDigit('6291041500213') → true */
export const hasCheckDigit = (key: string): boolean => /^\d{2,}$/.test(key) && Number(key.at(-1)) === checkDigit(key.slice(0, -1));

/**
 * A GTIN of any length as it is kept: fourteen digits, noughts in front.
 * @returns null where it is none: another length, or a check digit that does not fit
 * @example gtin14('6291041500213') → '06291041500213'
 */
export const gtin14 = (text: string): string | null => (/^(\d{8}|\d{12}|\d{13}|\d{14})$/.test(text) && hasCheckDigit(text) ? text.padStart(14, '0') : null);
