import { err, ok, type Result } from '../../lib/outcome';
import { gtin14, hasCheckDigit } from '../../core';
import { dayOf } from './day';
import { identifierAt } from './identifiers';

/** One identifier with its value, as it was read. */
export interface Element {
  readonly ai: string;
  readonly value: string;
}

/** What a code on a box says. */
export interface BoxCode {
  /** Fourteen digits. */
  readonly gtin: string | null;
  readonly lot: string | null;
  /** ISO days. */
  readonly madeOn: string | null;
  readonly expiresOn: string | null;
  readonly serial: string | null;
  /** Whatever else stands in it, passed through as it is. */
  readonly others: readonly Element[];
}

export const BOX_CODE_FAULTS = [
  'codeEmpty',
  'codeTooLong',
  'identifierUnknown',
  'valueShort',
  'valueLong',
  'valueNotNumber',
  'valueCharacters',
  'checkDigitWrong',
  'dayWrong',
  'elementTwice',
  'notACode',
] as const;
/** Why a text is no code of a box: which rule, at which identifier, and what stands there. */
export interface BoxCodeFault {
  readonly code: (typeof BOX_CODE_FAULTS)[number];
  readonly ai?: string;
  readonly value?: string;
}
type Read<T> = Result<T, BoxCodeFault>;

/** The separator FNC1 as scanners send it. */
export const SEPARATOR = '\x1d';
/** What keyboard wedges and programs write in its place. */
const SEPARATOR_WORDS = /\u241d|<GS>|\{GS\}|\[GS\]|\\x1d|\\u001d|\^\]/gi;
/** A symbology's own name in front of what it reads: Data Matrix, GS1-128, DataBar, QR. */
const SYMBOLOGY = /^\](?:d2|C1|e0|Q3|d1|C0)/;
/** Most that a code holds: a Data Matrix of 144 rows holds 2,335 characters, a box's code far fewer. */
const MOST = 400;
/** Characters that GS1 allows in a value (set 82). */
const ALLOWED = /^[!"%&'()*+,\-./0-9:;<=>?A-Z_a-z]*$/;

const isDay = (ai: string): boolean => ['11', '12', '13', '15', '16', '17'].includes(ai);

/** Is what stands behind an identifier a value of it? */
function faultOf({ ai, value }: Element, today: string): BoxCodeFault | null {
  const format = identifierAt(ai);
  if (!format || format.digits !== ai.length) return { code: 'identifierUnknown', ai, value };
  if (value === '' || (format.fixed && value.length < format.length)) return { code: 'valueShort', ai, value };
  if (value.length > format.length) return { code: 'valueLong', ai, value };
  if (format.numeric && !/^\d+$/.test(value)) return { code: 'valueNotNumber', ai, value };
  if (!ALLOWED.test(value)) return { code: 'valueCharacters', ai, value };
  if (['00', '01', '02'].includes(ai) && !hasCheckDigit(value)) return { code: 'checkDigitWrong', ai, value };
  if (isDay(ai) && dayOf(value, today) === null) return { code: 'dayWrong', ai, value };
  return null;
}

/** Elements as people write them: each identifier in parentheses. */
function written(text: string): readonly Element[] {
  const marks = [...text.matchAll(/\((\d{2,4})\)/g)].filter((m) => identifierAt(m[1] ?? '')?.digits === m[1]?.length);
  return marks.map((mark, i) => ({
    ai: mark[1] ?? '',
    value: text
      .slice(mark.index + mark[0].length, marks[i + 1]?.index)
      .replaceAll(SEPARATOR, '')
      .trim(),
  }));
}

/** Elements as a scanner sends them: fixed values run on, others end at a separator or at the end. */
function sent(text: string): Read<readonly Element[]> {
  const elements: Element[] = [];
  let rest = text;
  while (rest !== '') {
    if (rest.startsWith(SEPARATOR)) {
      rest = rest.slice(1);
      continue;
    }
    const format = identifierAt(rest);
    if (!format) return err({ code: 'identifierUnknown', ai: rest.slice(0, 4), value: rest });
    const ai = rest.slice(0, format.digits);
    const behind = rest.slice(format.digits);
    const end = behind.indexOf(SEPARATOR);
    const upToSeparator = end < 0 ? behind : behind.slice(0, end);
    const value = format.fixed ? upToSeparator.slice(0, format.length) : upToSeparator;
    elements.push({ ai, value });
    rest = behind.slice(value.length);
  }
  return ok(elements);
}

const NOTHING: BoxCode = { gtin: null, lot: null, madeOn: null, expiresOn: null, serial: null, others: [] };

/**
 * Reads what a scanner sent, or what somebody typed from a box: an element string with parentheses or without, or a bare GTIN of
 * 8, 12, 13 or 14 digits.
 * @param today an ISO day: two digits of a year mean one near it
 * @returns the first fault where it is none
 * @example readBoxCode('(01)06291041500213(17)280200(10)AB1', '2026-11-24') → { ok: true, value: { gtin: '06291041500213', expiresOn: '2028-02-29', lot: 'AB1', … } }
 * @source GS1 General Specifications
 */
export function readBoxCode(raw: string, today: string): Read<BoxCode> {
  if (raw.length > MOST) return err({ code: 'codeTooLong' });
  const text = raw.trim().replace(SYMBOLOGY, '').replace(SEPARATOR_WORDS, SEPARATOR).trim();
  if (text === '') return err({ code: 'codeEmpty' });
  const bare = /^[\d\s-]+$/.test(text) ? text.replace(/[\s-]/g, '') : null;
  if (bare !== null && [8, 12, 13, 14].includes(bare.length)) {
    const gtin = gtin14(bare);
    return gtin === null ? err({ code: 'checkDigitWrong', ai: '01', value: bare }) : ok({ ...NOTHING, gtin });
  }
  const elements: Read<readonly Element[]> = text.startsWith('(') ? ok(written(text)) : sent(text.replace(new RegExp(`^${SEPARATOR}`), ''));
  if (!elements.ok) return elements;
  if (elements.value.length === 0) return err({ code: 'notACode', value: text });
  for (const element of elements.value) {
    const fault = faultOf(element, today);
    if (fault) return err(fault);
  }
  const twice = elements.value.find((e, i) => elements.value.some((o, j) => j < i && o.ai === e.ai && o.value !== e.value));
  if (twice) return err({ code: 'elementTwice', ...twice });
  const of = (ai: string): string | null => elements.value.find((e) => e.ai === ai)?.value ?? null;
  const day = (ai: string): string | null => {
    const value = of(ai);
    return value === null ? null : dayOf(value, today);
  };
  const own = ['01', '10', '11', '17', '21'];
  return ok({
    gtin: of('01'),
    lot: of('10'),
    madeOn: day('11'),
    expiresOn: day('17'),
    serial: of('21'),
    others: elements.value.filter((e) => !own.includes(e.ai)),
  });
}

/**
 * Elements as a symbol carries them: a separator behind each value whose length is not fixed, but the last.
 * @example elementString([{ ai: '10', value: 'AB1' }, { ai: '21', value: '7' }]) → '10AB1\x1d217'
 */
export const elementString = (elements: readonly Element[]): string =>
  elements.map(({ ai, value }, i) => `${ai}${value}${identifierAt(ai)?.fixed === true || i === elements.length - 1 ? '' : SEPARATOR}`).join('');

/** The same as it is printed beneath a symbol. @example printed([{ ai: '10', value: 'AB1' }]) → '(10)AB1' */
export const printedElements = (elements: readonly Element[]): string => elements.map(({ ai, value }) => `(${ai})${value}`).join('');
