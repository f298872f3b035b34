import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkDigit, gtin14, hasCheckDigit } from '../../core';
import { dayOf, dayText, yearOf } from './day';
import { elementString, printedElements, readBoxCode, SEPARATOR, type BoxCode, type Element } from './elementString';

const TODAY = '2026-11-24';
const read = (text: string): BoxCode => {
  const result = readBoxCode(text, TODAY);
  if (!result.ok) throw new Error(JSON.stringify(result.error));
  return result.value;
};
const fault = (text: string) => {
  const result = readBoxCode(text, TODAY);
  return result.ok ? null : result.error.code;
};
const WHOLE = { gtin: '06291041500213', lot: 'AB1', expiresOn: '2028-02-29', serial: '7', madeOn: null, others: [] };

// Values: GS1 General Specifications, from memory.
describe('keys and days', () => {
  it('check digit of 629104150021 is 3; as fourteen digits 06291041500213', () => {
    expect(checkDigit('629104150021')).toBe(3);
    expect(gtin14('6291041500213')).toBe('06291041500213');
    expect(gtin14('6291041500214')).toBeNull();
    expect(gtin14('62910415002')).toBeNull();
  });
  it('in 2026 the year 76 is 2076, 77 is 1977; in 2099 the year 00 is 2100', () => {
    expect([yearOf(76, 2026), yearOf(77, 2026), yearOf(26, 2026), yearOf(0, 2099), yearOf(49, 2099), yearOf(50, 2100)]).toEqual([
      2076, 1977, 2026, 2100, 2149, 2150,
    ]);
  });
  it('day 00 is the last of the month, also in February of a leap year', () => {
    expect([dayOf('280200', TODAY), dayOf('270200', TODAY), dayOf('281200', TODAY)]).toEqual(['2028-02-29', '2027-02-28', '2028-12-31']);
    expect([dayOf('280230', TODAY), dayOf('281300', TODAY), dayOf('2802', TODAY)]).toEqual([null, null, null]);
    expect(dayText('2028-02-29')).toBe('280229');
  });
});

describe('codes on boxes', () => {
  it.each([
    ['with parentheses', '(01)06291041500213(17)280229(10)AB1(21)7'],
    ['as a scanner sends it', `010629104150021317280229${'10AB1'}${SEPARATOR}217`],
    ['with its symbology in front', `]d2010629104150021317280229${'10AB1'}${SEPARATOR}217`],
    ['the separator in front as well', `${SEPARATOR}010629104150021317280229${'10AB1'}${SEPARATOR}217`],
    ['the separator in words', '010629104150021317280229' + '10AB1<GS>217'],
    ['the separator as a picture of itself', '010629104150021317280229' + '10AB1\u241d217'],
    ['a separator behind a value of fixed length', `0106291041500213${SEPARATOR}17280229${SEPARATOR}10AB1${SEPARATOR}217`],
    ['in another order, with blanks around', `  217${SEPARATOR}10AB1${SEPARATOR}17280229${'0106291041500213'}\n`],
  ])('%s', (_name, text) => {
    expect(read(text)).toEqual(WHOLE);
  });
  it('a bare GTIN of 8, 12, 13 or 14 digits', () => {
    expect(read('6291041500213')).toMatchObject({ gtin: '06291041500213', lot: null });
    expect(read('0 6291041 500213')).toMatchObject({ gtin: '06291041500213' });
  });
  it('what it does not know is passed through', () => {
    expect(read('(01)06291041500213(11)260101(240)X-12(99)own(3103)000195').others).toEqual([
      { ai: '240', value: 'X-12' },
      { ai: '99', value: 'own' },
      { ai: '3103', value: '000195' },
    ]);
    expect(read('(01)06291041500213(11)260101').madeOn).toBe('2026-01-01');
  });
  it.each([
    ['', 'codeEmpty'],
    ['(01)06291041500214', 'checkDigitWrong'],
    ['6291041500214', 'checkDigitWrong'],
    ['(01)0629104150021', 'valueShort'],
    ['(10)', 'valueShort'],
    ['(10)ABCDEFGHIJKLMNOPQRSTU', 'valueLong'],
    ['(17)281332', 'dayWrong'],
    ['(17)28022X', 'valueNotNumber'],
    ['(10)AB1(10)AB2', 'elementTwice'],
    ['(10)Ä1', 'valueCharacters'],
    ['(05)12', 'notACode'],
    ['hello', 'identifierUnknown'],
    ['x'.repeat(500), 'codeTooLong'],
  ])('%s: %s', (text, code) => {
    expect(fault(text)).toBe(code);
  });
});

const value = fc.stringMatching(/^[A-Z0-9.\-/]{1,20}$/);
const gtin = fc.stringMatching(/^\d{13}$/).map((d) => `${d}${checkDigit(d)}`);
const day = fc
  .date({ min: new Date('2000-01-01T00:00:00Z'), max: new Date('2075-12-31T00:00:00Z'), noInvalidDate: true })
  .map((d) => d.toISOString().slice(0, 10));

describe('laws of codes', () => {
  it('what is written is read back, from the symbol and from the print beneath it', () => {
    fc.assert(
      fc.property(gtin, day, value, value, (g, on, lot, serial) => {
        const elements: Element[] = [
          { ai: '10', value: lot },
          { ai: '01', value: g },
          { ai: '21', value: serial },
          { ai: '17', value: dayText(on) },
        ];
        const expected = { gtin: g, lot, serial, expiresOn: on, madeOn: null, others: [] };
        expect(read(elementString(elements))).toEqual(expected);
        expect(read(printedElements(elements))).toEqual(expected);
      }),
    );
  });
  it('one digit changed, or two neighbours that differ other than by five exchanged, never passes', () => {
    fc.assert(
      fc.property(gtin, fc.nat(13), fc.integer({ min: 1, max: 9 }), (g, at, by) => {
        const other = `${g.slice(0, at)}${(Number(g[at]) + by) % 10}${g.slice(at + 1)}`;
        expect(hasCheckDigit(other)).toBe(false);
        const [a, b] = [g[at] ?? '0', g[at + 1] ?? '0'];
        if (at < 13 && Math.abs(Number(a) - Number(b)) % 5 !== 0) expect(hasCheckDigit(`${g.slice(0, at)}${b}${a}${g.slice(at + 2)}`)).toBe(false);
      }),
    );
  });
  it('no text whatever breaks the reader', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string({ maxLength: 450 }),
          fc.string({ unit: fc.constantFrom('0', '1', '7', '2', '(', ')', SEPARATOR, 'A', ']', 'd', ' '), maxLength: 60 }),
        ),
        (text) => {
          const result = readBoxCode(text, TODAY);
          expect(result.ok ? result.value.others.length >= 0 : result.error.code.length > 0).toBe(true);
        },
      ),
    );
  });
});
