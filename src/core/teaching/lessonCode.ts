/** Letters and digits of a code that is read out and typed: none that looks like another. */
export const CODE_LETTERS = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789';
export const CODE_LENGTH = 6;
/** A code waits so long. Own choice. */
export const CODE_MINUTES = 10;
/** A screen that a code opened shows the lesson so long: a long lesson and the page after it. Own choice. */
export const SCREEN_HOURS = 8;

/**
 * A code from random numbers.
 * @param random one number below 2³² each
 * @example lessonCode([0, 1, 2, 3, 4, 5]) → 'ABCDEF'
 */
export const lessonCode = (random: readonly number[]): string => random.map((n) => CODE_LETTERS[n % CODE_LETTERS.length] ?? 'A').join('');

/**
 * A code as it was typed: in capitals, without spaces and hyphens; null: no code.
 * @example readCode(' abc-d2f') → 'ABCD2F'
 * @example readCode('abc') → null
 */
export function readCode(typed: string): string | null {
  const plain = typed.toUpperCase().replaceAll(/[\s-]/g, '');
  const known = [...plain].every((letter) => CODE_LETTERS.includes(letter));
  return plain.length === CODE_LENGTH && known ? plain : null;
}
