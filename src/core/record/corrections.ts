import type { Refraction } from '../optics/refraction';
import { findingProblem } from '../advice/signs';
import { lensFindingProblem } from '../fit/lensSigns';
import type { FitWord, LensFindingFact, RecordedFinding } from './visitFacts';

/** What the right value of a recorded fact is given as. Powers in D, vertex in mm, turn in degrees (plus: the examiner's left). */
export type NewValue =
  | { readonly as: 'power'; readonly text: { readonly typed: string; readonly power: Refraction }; readonly vertexMm: number }
  | { readonly as: 'rotation'; readonly rotationLeft: number }
  | { readonly as: 'acuity'; readonly logMar: number; readonly typed: string }
  | { readonly as: 'fit'; readonly verdict: FitWord }
  | { readonly as: 'box'; readonly lot: string; readonly expiresOn: string }
  | { readonly as: 'sign'; readonly value: number | string; readonly typed: string | null };
export type NewValueKind = NewValue['as'];

/** What is wrong with a new value, as a code with its data, at the field it was given in. */
export interface NewValueProblem {
  readonly path: readonly string[];
  readonly code: string;
  readonly data?: Readonly<Record<string, string | number>>;
}

/** A corrected reading is typed: it was read off no picture. */
const NO_PHOTO = { pictureId: null, photoRollDeg: null, photoLid: null, photoFoundDeg: null } as const;

type Columns = Readonly<Record<string, string | number | boolean | null>>;

/** The columns that a new value gives, whichever table they stand in; a kind keeps those it has. */
export function columnsOfValue(value: NewValue): Columns {
  switch (value.as) {
    case 'power': {
      const { sphere, cylinder, axis } = value.text.power;
      // A cylinder that is written down was tested for.
      const tested = cylinder === 0 ? {} : { cylinderTested: true };
      return { sphereD: sphere, cylinderD: cylinder, axisDeg: axis, typedText: value.text.typed, vertexMm: value.vertexMm, ...tested };
    }
    case 'rotation':
      return { rotationLeftDeg: value.rotationLeft, how: 'typed', scaleReading: null, instrumentId: null, ...NO_PHOTO };
    case 'acuity':
      return { acuityLogMar: value.logMar, acuityTyped: value.typed };
    case 'fit':
      return { verdict: value.verdict };
    case 'box':
      return { lot: value.lot, expiresOn: value.expiresOn };
    case 'sign':
      return typeof value.value === 'number'
        ? { numberValue: value.value, wordValue: null, typedText: value.typed }
        : { numberValue: null, wordValue: value.value, typedText: null };
  }
}

const ofSign = (found: ReturnType<typeof findingProblem>): NewValueProblem | null => (found ? { path: ['value'], ...found } : null);

/** Of an eye's sign: what its own scale or words do not allow. */
export const eyeSignProblem = (row: RecordedFinding, value: NewValue): NewValueProblem | null =>
  value.as === 'sign' ? ofSign(findingProblem(row.sign, value.value)) : null;

/** Of a lens's sign: what its own scale or words do not allow, and an acuity that is not kept as it was read. */
export function lensSignProblem(row: LensFindingFact, value: NewValue): NewValueProblem | null {
  if (value.as !== 'sign') return null;
  const found = ofSign(lensFindingProblem(row.sign, value.value));
  if (found) return found;
  const unread = row.sign.startsWith('acuity') && typeof value.value === 'number' && value.typed === null;
  return unread ? { path: ['value'], code: 'acuityEmpty' } : null;
}
