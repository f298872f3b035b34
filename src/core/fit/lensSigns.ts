/**
 * What is seen of a lens on an eye, as data. Millimetres of centration count toward the nose and up; an overlap is how
 * far the lens reaches past the limbus. Limits are hard: outside them a value is refused.
 */
const measure = <Id extends string>(id: Id, min: number, max: number, step: number, unit: 'mm' | 'percent' | 'of10' | 's' | 'logMAR') =>
  ({ id, kind: 'measure', min, max, step, unit }) as const;
const word = <Id extends string, const O extends readonly string[]>(id: Id, options: O) => ({ id, kind: 'word', options }) as const;

export const LENS_SIGNS = [
  measure('offNose', -3, 3, 0.1, 'mm'),
  measure('offUp', -3, 3, 0.1, 'mm'),
  // Where the lens's centre lies from the pupil's: what a lens with an add hangs on.
  measure('pupilNose', -2, 2, 0.1, 'mm'),
  measure('pupilUp', -2, 2, 0.1, 'mm'),
  measure('overlapUp', -2, 5, 0.1, 'mm'),
  measure('overlapDown', -2, 5, 0.1, 'mm'),
  measure('overlapNose', -2, 5, 0.1, 'mm'),
  measure('overlapEar', -2, 5, 0.1, 'mm'),
  word('coverage', ['full', 'edgeShows']),
  measure('movement', 0, 6, 0.05, 'mm'),
  measure('movementUp', 0, 6, 0.05, 'mm'),
  measure('lag', 0, 6, 0.05, 'mm'),
  measure('pushUp', 0, 100, 5, 'percent'),
  measure('comfort', 0, 10, 1, 'of10'),
  word('edge', ['flat', 'lifts', 'indents']),
  word('edgeVessels', ['free', 'blanched', 'red']),
  word('afterBlink', ['steady', 'clearThenBlurs', 'worseJustAfter']),
  /** On blinking in up gaze, of a lens for an irregular cornea: one that wanders says slightly flat. */
  word('markUpGaze', ['steady', 'wanders']),
  word('lineCentre', ['middle', 'less', 'more']),
  word('lineMovement', ['less', 'middle', 'more']),
  word('lineLag', ['less', 'middle', 'more']),
  word('lineRecovery', ['slow', 'middle', 'fast']),
  word('debris', ['none', 'seen']),
  word('insideOut', ['no', 'yes']),
  word('deposits', ['none', 'film', 'spots']),
  word('damage', ['none', 'nick', 'tear']),
  measure('recoverySeconds', 0, 300, 5, 's'),
  measure('acuityLens', -0.4, 3, 0.01, 'logMAR'),
  measure('acuityPinhole', -0.4, 3, 0.01, 'logMAR'),
  word('cause', [
    'insideOut',
    'surface',
    'swapped',
    'wrongLens',
    'unsteady',
    'turnedSteady',
    'cylinderLeft',
    'nearEye',
    'multifocal',
    'lazyEye',
    'tears',
    'cornea',
    'insideEye',
    'prescriber',
  ]),
  word('sureOfLens', ['yes']),
] as const;

export type LensSignId = (typeof LENS_SIGNS)[number]['id'];
export type LensFindings = Readonly<Partial<Record<LensSignId, number | string>>>;

const BY_ID = new Map<string, (typeof LENS_SIGNS)[number]>(LENS_SIGNS.map((s) => [s.id, s]));
export const lensSign = (id: string): (typeof LENS_SIGNS)[number] | undefined => BY_ID.get(id);
export const isLensSign = (id: string): id is LensSignId => BY_ID.has(id);
/** Words a sign may take; empty for a measured one. */
export const optionsOf = (sign: (typeof LENS_SIGNS)[number]): readonly string[] => (sign.kind === 'word' ? sign.options : []);

/** What is wrong with a finding on a lens, as a code with data; null when nothing is. @example lensFindingProblem('comfort', 11)?.code → 'findingOutOfRange' */
export function lensFindingProblem(
  id: string,
  value: number | string,
): { readonly code: string; readonly data: Readonly<Record<string, string | number>> } | null {
  const s = BY_ID.get(id);
  if (!s) return { code: 'findingUnknown', data: { value: id } };
  if (s.kind === 'word') return optionsOf(s).includes(String(value)) && typeof value === 'string' ? null : { code: 'findingUnknown', data: { value } };
  if (typeof value !== 'number' || !Number.isFinite(value)) return { code: 'findingNotANumber', data: { value } };
  if (value < s.min || value > s.max) return { code: 'findingOutOfRange', data: { value, min: s.min, max: s.max } };
  const steps = value / s.step;
  return Math.abs(steps - Math.round(steps)) < 1e-6 ? null : { code: 'findingOffStep', data: { value, step: s.step } };
}
