import { CURVE_LIMIT } from '../record/measured';
/**
 * What is looked at and measured on each eye, as data. Grades run 0 none, 1 trace, 2 mild, 3 moderate, 4 severe in
 * halves; our own words. Limits are hard: outside them a value is refused.
 */
export interface SignBase {
  readonly id: string;
}
export interface NumberSign extends SignBase {
  readonly kind: 'grade' | 'measure';
  readonly min: number;
  readonly max: number;
  readonly step: number;
  readonly unit: '' | 'mm' | 's' | 'of10' | 'deg';
  /** The setting that holds its threshold. */
  readonly threshold?: string;
}
export interface WordSign extends SignBase {
  readonly kind: 'word';
  readonly options: readonly string[];
}
export type Sign = NumberSign | WordSign;

const grade = <Id extends string, T extends string | undefined>(id: Id, threshold: T) =>
  ({ id, kind: 'grade', min: 0, max: 4, step: 0.5, unit: '', ...(threshold === undefined ? {} : { threshold }) }) as const;
const measure = <Id extends string>(id: Id, min: number, max: number, step: number, unit: NumberSign['unit']) =>
  ({ id, kind: 'measure', min, max, step, unit }) as const;
const word = <Id extends string, const O extends readonly string[]>(id: Id, options: O) => ({ id, kind: 'word', options }) as const;

export const GRADED = [
  grade('lidMargin', 'actsLidMargin'),
  grade('lashes', undefined),
  grade('bulbarRedness', 'actsBulbarRedness'),
  grade('limbalRedness', 'actsLimbalRedness'),
  grade('papillae', 'actsPapillae'),
  grade('staining', 'actsStaining'),
  { ...measure('vessels', 0, 6, 0.5, 'mm'), threshold: 'actsVesselsMm' },
  grade('infiltrates', undefined),
  grade('scars', undefined),
  grade('oedema', undefined),
  grade('endothelium', undefined),
] as const;

export const SYMPTOMS = [
  measure('pain', 0, 10, 1, 'of10'),
  word('discharge', ['none', 'watering', 'sticky']),
  word('light', ['fine', 'hurts']),
  word('sightLoss', ['none', 'gradual', 'sudden']),
  word('chamber', ['quiet', 'cells']),
  word('graftSigns', ['none', 'rejection', 'looseSuture']),
  word('suspected', ['nothing', 'cornealInfection', 'externalInfection']),
] as const;

export const MEASURES = [
  /** Prolate: steepest near its centre (keratoconus); oblate: flattest there (after surgery, a graft). */
  word('cornea', ['regular', 'prolate', 'oblate']),
  /** Of an ectasia, 1 the mildest. */
  measure('coneStage', 1, 4, 1, ''),
  word('hydrops', ['none', 'seen']),
  measure('kFlatMm', CURVE_LIMIT.min, CURVE_LIMIT.max, 0.01, 'mm'),
  measure('kFlatAxis', 1, 180, 1, 'deg'),
  measure('kSteepMm', CURVE_LIMIT.min, CURVE_LIMIT.max, 0.01, 'mm'),
  measure('hvid', 9, 14, 0.1, 'mm'),
  measure('pupilRoom', 1, 10, 0.5, 'mm'),
  measure('pupilDim', 1, 10, 0.5, 'mm'),
  measure('lidAperture', 4, 16, 0.5, 'mm'),
  word('lidTension', ['loose', 'normal', 'firm']),
  measure('breakUp', 0, 60, 1, 's'),
  measure('meniscus', 0, 1, 0.05, 'mm'),
] as const;

/** What is looked for in a red eye, beside the rest. */
export const RED_EYE_SIGNS = [
  measure('cells', 0, 4, 0.5, ''),
  word('dendrite', ['none', 'seen']),
  word('ring', ['none', 'seen']),
  word('painBeyond', ['no', 'yes']),
  word('anaesthetic', ['no', 'used']),
  /** The lens last worn, with its case: kept for whoever asks what grew on it. */
  word('lensKept', ['kept', 'thrownAway', 'noLens']),
] as const;

/** Where on the cornea staining, infiltrates and scars lie, and how deep staining goes. */
export const DETAILS = [
  word('stainingPlace', ['central', 'upper', 'lower', 'nasal', 'temporal', 'diffuse']),
  word('stainingDepth', ['shallow', 'deep']),
  word('stainingArea', ['small', 'moderate', 'large']),
  word('infiltratePlace', ['central', 'edge']),
] as const;

export const SIGNS: readonly Sign[] = [...GRADED, ...SYMPTOMS, ...RED_EYE_SIGNS, ...MEASURES, ...DETAILS];
export type GradedId = (typeof GRADED)[number]['id'];
export type SignId =
  GradedId | (typeof SYMPTOMS)[number]['id'] | (typeof RED_EYE_SIGNS)[number]['id'] | (typeof MEASURES)[number]['id'] | (typeof DETAILS)[number]['id'];

export const sign = (id: string): Sign | undefined => SIGNS.find((s) => s.id === id);

/**
 * What rules ask of an eye beside its signs: has a prescriber graded it with stain at this visit, the worst of what was drawn on its
 * cornea, whether lenses are off since an adverse event, and by how many dioptres its steepest meridian is steeper than within the last year.
 */
export type DerivedSign = 'corneaSeen' | 'lesion' | 'lensesOff' | 'kSteeper';
/** What one eye shows; what was not looked at is absent. */
export type Findings = Readonly<Partial<Record<SignId | DerivedSign, number | string>>>;

/** What is wrong with a finding, as a code with data; null when nothing is. @example findingProblem('kFlatMm', 0).code → 'findingOutOfRange' */
export function findingProblem(id: string, value: number | string): { readonly code: string; readonly data: Readonly<Record<string, string | number>> } | null {
  const s = sign(id);
  if (!s) return { code: 'findingUnknown', data: { value: id } };
  if (s.kind === 'word') return typeof value === 'string' && s.options.includes(value) ? null : { code: 'findingUnknown', data: { value } };
  if (typeof value !== 'number' || !Number.isFinite(value)) return { code: 'findingNotANumber', data: { value } };
  if (value < s.min || value > s.max) return { code: 'findingOutOfRange', data: { value, min: s.min, max: s.max } };
  const steps = value / s.step;
  return Math.abs(steps - Math.round(steps)) < 1e-6 ? null : { code: 'findingOffStep', data: { value, step: s.step } };
}

/** What two findings of one eye say against each other. @example findingsConflict({pupilRoom: 6, pupilDim: 4})[0].sign → 'pupilDim' */
export function findingsConflict(findings: Findings): { readonly sign: SignId; readonly code: string; readonly data: Readonly<Record<string, number>> }[] {
  const { kFlatMm, kSteepMm, pupilRoom, pupilDim, staining } = findings;
  const out: { sign: SignId; code: string; data: Record<string, number> }[] = [];
  if (typeof kFlatMm === 'number' && typeof kSteepMm === 'number' && kSteepMm > kFlatMm)
    out.push({ sign: 'kSteepMm', code: 'steepFlatterThanFlat', data: { flat: kFlatMm, steep: kSteepMm } });
  if (typeof pupilRoom === 'number' && typeof pupilDim === 'number' && pupilDim < pupilRoom)
    out.push({ sign: 'pupilDim', code: 'dimSmallerThanRoom', data: { room: pupilRoom, dim: pupilDim } });
  if (staining === 0 && (findings.stainingPlace !== undefined || findings.stainingDepth !== undefined || findings.stainingArea !== undefined))
    out.push({ sign: 'staining', code: 'placeWithoutStaining', data: {} });
  return out;
}

/** The constant of keratometers: dioptres = 337.5 / millimetres (index 1.3375). */
export const KERATOMETER = 337.5;
/**
 * A corneal curve as typed, millimetres or dioptres told apart by size (under 20 is mm), in millimetres to 0.01.
 * @example cornealCurveMm(45) → 7.5
 */
export const cornealCurveMm = (typed: number): number => Math.round((typed >= 20 ? KERATOMETER / typed : typed) * 100) / 100;

/** A grade in words: none, under trace, trace … ; the code of its words. @example gradeWord(2.5) → 'g25' */
export const gradeWord = (value: number): string => `g${Math.round(value * 10)}`;
