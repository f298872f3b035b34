import { AFTERCARE_TOPICS, GLASSES_STATES, OTHER_SOLUTIONS, TROUBLES } from './asked';

/** What a key that the rules of aftercare ask about can hold: its options, or its limits and step. */
export type KeyRange = { readonly options: readonly string[]; readonly many: boolean } | { readonly min: number; readonly max: number; readonly step: number };

const words = (...options: readonly string[]): KeyRange => ({ options, many: false });

/**
 * What the rules of aftercare know of one eye beside its signs. `lossLines`: lines of letters short of the best this eye ever
 * saw, through the lens with its over-refraction. `changeD`: the over-refraction's mean sphere without its sign, D. `overdueDays`:
 * days that a lens is worn past its label, by what is said or by supply, whichever is more.
 */
export const AFTERCARE_EYE_KEYS = {
  trouble: { options: TROUBLES, many: true },
  onlyThisEye: words('yes', 'no'),
  comfort: { min: 0, max: 10, step: 1 },
  deposits: words('none', 'film', 'spots'),
  damage: words('none', 'nick', 'tear'),
  debris: words('none', 'seen'),
  insideOut: words('no', 'yes'),
  fit: words('loose', 'fits', 'tight', 'mixed'),
  lossLines: { min: 0, max: 30, step: 1 },
  changeD: { min: 0, max: 10, step: 0.25 },
  overPattern: words('none', 'swapped', 'noLens', 'looksLike', 'surprise', 'axisFar'),
  turn: words('steady', 'turned', 'unsteady', 'unread'),
  pair: words('unknown', 'irritates', 'avoid'),
  modality: words('daily', 'twoWeekly', 'monthly'),
  lensKind: words('sphere', 'toric', 'multifocal', 'toricMultifocal'),
  label: words('met', 'missed'),
  overdueDays: { min: 0, max: 365, step: 1 },
  overnight: words('notPrescribed', 'prescribed'),
} as const satisfies Readonly<Record<string, KeyRange>>;
export type AftercareEyeKey = keyof typeof AFTERCARE_EYE_KEYS;

/** What they know of the wearer beside the history. `notSaidBack`: topics that were asked back and not known. */
export const AFTERCARE_PERSON_KEYS = {
  solutionUsed: { options: [...OTHER_SOLUTIONS, 'known'], many: false },
  glasses: { options: GLASSES_STATES, many: false },
  notSaidBack: { options: AFTERCARE_TOPICS, many: true },
} as const satisfies Readonly<Record<string, KeyRange>>;
