import { err, ok, type Err, type Ok, type ProblemData } from '../../lib/outcome';
import { isLikely, LIMITS, onStep, withinLimit } from '../limits';
import { roundToStep } from '../units';
import { formatPower, formatRefraction } from './formatRefraction';
import type { Refraction } from './refraction';
import { parsePowerCross } from './parsePowerCross';
import { crossRead, splitPrism } from './refractionDoubts';
import { toMinusCylinder } from './transpose';

export type RefractionProblemCode =
  | 'empty'
  | 'notANumber'
  | 'bareNumber'
  | 'sphereOffStep'
  | 'sphereTooStrong'
  | 'cylinderNeedsSign'
  | 'cylinderOffStep'
  | 'cylinderTooStrong'
  | 'cylinderMissing'
  | 'axisMissing'
  | 'axisNotWhole'
  | 'axisOutOfRange'
  | 'tooManyNumbers'
  | 'crossUnread';

/** Why a text is not a prescription, with texts that would be. */
export interface RefractionProblem {
  readonly code: RefractionProblemCode;
  readonly data: ProblemData;
  readonly repairs: readonly string[];
}

export type RefractionNoteCode =
  'axisZeroRead180' | 'transposed' | 'sphereUnlikely' | 'cylinderUnlikely' | 'axisIgnored' | 'fromCross' | 'maybeCross' | 'prismApart';

/** Something the reader did or doubts, to be said beside the field. Unlikely values ask to be kept. */
export interface RefractionNote {
  readonly code: RefractionNoteCode;
  readonly asks: boolean;
  /** What may have been meant instead. */
  readonly instead?: string;
}

export type ParsedRefraction = (Ok<Refraction> & { readonly notes: readonly RefractionNote[] }) | Err<RefractionProblem>;

const fail = (code: RefractionProblemCode, data: ProblemData = {}, repairs: readonly string[] = []): Err<RefractionProblem> => err({ code, data, repairs });

/** Everything people and other programs write for the same signs, made one. */
function normalise(text: string): string {
  return text
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[‐-―−﹣]/gu, '-')
    .replace(/[×✕✖*]/gu, 'x')
    .replace(/(\d),(\d{1,3})(?!\d)/g, '$1.$2')
    .replace(/\b(plano|plan|pl)\b/g, ' 0.00 ')
    .replace(/\b(axis|ax)\b|@/g, ' x ')
    .replace(/(?<=[\d\s.])(dsph|sph|ds|dcyl|dc|cyl|d)\b/g, ' ')
    .replace(/°|º|\bdeg(rees)?\b/g, ' ')
    .replace(/[/;,|]/g, ' ')
    .trim();
}

interface Piece {
  readonly raw: string;
  readonly signed: boolean;
  readonly point: boolean;
  readonly value: number;
}

interface Pieces {
  readonly powers: readonly Piece[];
  readonly axis: Piece | null;
}

const NUMBER = /^([+-]?)\s*(\d+(?:\.\d*)?|\.\d+)/;

function cut(text: string): Pieces | { readonly bad: string } {
  const powers: Piece[] = [];
  let axis: Piece | null = null;
  let rest = text;
  let axisNext = false;
  while (rest.length > 0) {
    const sign = /^x\s*/.exec(rest);
    if (sign) {
      axisNext = true;
      rest = rest.slice(sign[0].length);
      continue;
    }
    const found = NUMBER.exec(rest);
    if (!found) return { bad: /^\S+/.exec(rest)?.[0] ?? rest };
    const after = rest.slice(found[0].length);
    // A number must end at a space, a sign, the axis mark or the text's end: "3o" and "-3.2.5" are not numbers.
    if (/^[a-wyz.\p{L}]/u.test(after) && !/^x/.test(after)) return { bad: /^\S+/.exec(rest)?.[0] ?? rest };
    const [, signText = '', digits = ''] = found;
    const piece: Piece = {
      raw: `${signText}${digits}`,
      signed: signText !== '',
      point: digits.includes('.'),
      value: Number(`${signText}${digits}`),
    };
    if (axisNext && axis === null) axis = piece;
    else powers.push(piece);
    rest = after.trimStart();
  }
  return { powers, axis };
}

/** Dioptres from a piece: without a point, three or four digits and 25, 50, 75 are hundredths. */
function toDioptres(piece: Piece): number {
  if (piece.point) return piece.value;
  const digits = piece.raw.replace(/^[+-]/, '');
  const hundredths = digits.length >= 3 || digits === '25' || digits === '50' || digits === '75';
  return (hundredths ? piece.value / 100 : piece.value) + 0;
}

const tail = (cylinder: string | null, axis: string | null): string => `${cylinder === null ? '' : ` ${cylinder}`}${axis === null ? '' : ` × ${axis}`}`;

function readSphere(piece: Piece, following: string): Ok<number> | Err<RefractionProblem> {
  const sphere = toDioptres(piece);
  if (!piece.signed && !piece.point && piece.value !== 0) {
    const size = Math.abs(sphere);
    return fail('bareNumber', { typed: piece.raw }, [`${formatPower(-size)}${following}`, `${formatPower(size)}${following}`]);
  }
  if (!withinLimit(sphere, LIMITS.sphere)) return fail('sphereTooStrong', { value: formatPower(sphere), limit: LIMITS.sphere.max });
  if (!onStep(sphere, LIMITS.sphere)) {
    const below = Math.floor(sphere / 0.25) * 0.25;
    const near = roundToStep(sphere, 0.25, 'plus');
    const other = near === below ? below + 0.25 : below;
    return fail('sphereOffStep', { value: piece.raw }, [`${formatPower(near)}${following}`, `${formatPower(other)}${following}`]);
  }
  return ok(sphere);
}

function readCylinder(piece: Piece, sphereText: string, following: string): Ok<number> | Err<RefractionProblem> {
  const cylinder = toDioptres(piece);
  if (!piece.signed && piece.value !== 0) {
    return fail('cylinderNeedsSign', { typed: piece.raw }, [
      `${sphereText} ${formatPower(-Math.abs(cylinder))}${following}`,
      `${sphereText} ${formatPower(Math.abs(cylinder))}${following}`,
    ]);
  }
  if (!onStep(cylinder, LIMITS.cylinder)) {
    const near = roundToStep(cylinder, 0.25, 'plus');
    return fail('cylinderOffStep', { value: piece.raw }, [`${sphereText} ${formatPower(near)}${following}`]);
  }
  if (Math.abs(cylinder) > -LIMITS.cylinder.min) {
    return fail('cylinderTooStrong', { value: formatPower(cylinder), limit: -LIMITS.cylinder.min });
  }
  return ok(cylinder);
}

function readAxis(piece: Piece, powersText: string): Ok<number> | Err<RefractionProblem> {
  if (piece.signed) return fail('axisOutOfRange', { value: piece.raw }, []);
  if (!Number.isInteger(piece.value)) {
    return fail('axisNotWhole', { value: piece.raw }, [`${powersText} × ${Math.max(1, Math.round(piece.value))}`]);
  }
  if (piece.value > LIMITS.axis.max) {
    const turned = piece.value - 180;
    return fail('axisOutOfRange', { value: piece.raw }, turned <= 180 ? [`${powersText} × ${turned}`] : []);
  }
  return ok(piece.value);
}

/**
 * Reads a prescription as people type, paste and say it. Never throws.
 *
 * Accepts `-3.25 -1.75 x 20`, `-3.25/-1.75×020`, plus cylinder (transposed), `plano`, `pl`, `+0.50 DS`, `-2.00`,
 * Unicode minus and ×, a decimal comma, and spoken shorthand `-325 -175 20`. Axis 0 is read as 180, with a note.
 * A power cross, `-1.00 @ 180 / -2.25 @ 90`, is read as one; prism is left out and named in a note.
 * Without a decimal point a number needs its sign: three or four digits, and 25, 50, 75, are hundredths.
 * @param text what was typed
 * @returns minus-cylinder power (D, whole-degree TABO axis) with notes, or a problem with repairs
 * @example parseRefraction('-325-175x20').value → {sphere: -3.25, cylinder: -1.75, axis: 20}
 * @source notation and shorthand: common practice; limits: LIMITS
 */
export function parseRefraction(text: string): ParsedRefraction {
  const { power, prism } = splitPrism(text);
  const read = power.split('@').length > 2 ? readCross(power) : readPower(power);
  if (!read.ok || prism === null) return read;
  return { ...read, notes: [...read.notes, { code: 'prismApart', asks: false }] };
}

/** Two powers, each with its meridian: read only as the cross they are, and said so. */
function readCross(text: string): ParsedRefraction {
  const cross = parsePowerCross(text);
  return cross ? { ...ok(cross), notes: [{ code: 'fromCross', asks: false }] } : fail('crossUnread');
}

function readPower(text: string): ParsedRefraction {
  const plain = normalise(text);
  if (plain === '') return fail('empty');
  const pieces = cut(plain);
  if ('bad' in pieces) return fail('notANumber', { typed: pieces.bad });

  const [first, second, third, ...more] = pieces.powers;
  if (first === undefined) return fail('notANumber', { typed: text.trim() });
  const axisPiece = pieces.axis ?? third ?? null;
  if (more.length > 0 || (pieces.axis && third)) return fail('tooManyNumbers');

  const axisText = axisPiece?.raw ?? null;
  const sphere = readSphere(first, tail(second ? second.raw : null, axisText));
  if (!sphere.ok) return sphere;
  const sphereText = formatPower(sphere.value);
  const notes: RefractionNote[] = [];

  if (second === undefined) {
    if (axisPiece) return fail('cylinderMissing', { axis: axisPiece.raw }, [sphereText]);
    if (!isLikely(sphere.value, LIMITS.sphere)) notes.push({ code: 'sphereUnlikely', asks: true });
    return { ...ok({ sphere: sphere.value, cylinder: 0, axis: 180 }), notes };
  }

  const cylinder = readCylinder(second, sphereText, tail(null, axisText));
  if (!cylinder.ok) return cylinder;
  if (axisPiece === null) {
    if (cylinder.value !== 0) return fail('axisMissing', { typed: `${sphereText} ${formatPower(cylinder.value)}` });
    return { ...ok({ sphere: sphere.value, cylinder: 0, axis: 180 }), notes };
  }
  const axis = readAxis(axisPiece, `${sphereText} ${formatPower(cylinder.value)}`);
  if (!axis.ok) return axis;

  if (cylinder.value === 0) {
    notes.push({ code: 'axisIgnored', asks: false });
  } else if (axis.value === 0) {
    notes.push({ code: 'axisZeroRead180', asks: false });
  }
  if (cylinder.value > 0) notes.push({ code: 'transposed', asks: false });
  const refraction = toMinusCylinder({ sphere: sphere.value, cylinder: cylinder.value, axis: axis.value === 0 ? 180 : axis.value });
  if (!withinLimit(refraction.sphere, LIMITS.sphere)) {
    return fail('sphereTooStrong', { value: formatRefraction(refraction), limit: LIMITS.sphere.max });
  }
  if (!isLikely(refraction.sphere, LIMITS.sphere)) notes.push({ code: 'sphereUnlikely', asks: true });
  if (!isLikely(refraction.cylinder, LIMITS.cylinder)) notes.push({ code: 'cylinderUnlikely', asks: true });
  const cross = crossRead(sphere.value, cylinder.value, axis.value === 0 ? 180 : axis.value);
  if (cross) notes.push({ code: 'maybeCross', asks: true, instead: formatRefraction(cross) });
  return { ...ok(refraction), notes };
}
