import { TRADE, type Source } from '../advice/source';
import type { PracticeSettings } from '../practiceSettings';

/** Ways of putting a lens on: both hands, or one hand while the lid rises over the lens. */
export const ON_TECHNIQUES = ['twoHanded', 'oneHanded'] as const;
/** Ways of taking it off. */
export const OFF_TECHNIQUES = ['slideAndPinch', 'lowerThird', 'rollOff', 'outerCorner'] as const;
export type OnTechnique = (typeof ON_TECHNIQUES)[number];
export type OffTechnique = (typeof OFF_TECHNIQUES)[number];
export type Technique = OnTechnique | OffTechnique;

/** How well the hands can do it, as seen or said. */
export const DEXTERITIES = ['good', 'stiff', 'tremor', 'oneHand'] as const;
export type Dexterity = (typeof DEXTERITIES)[number];

/** What of the wearer, or of whoever handles for them, decides how it is taught. */
export interface Handling {
  readonly dexterity: Dexterity;
  readonly longNails: boolean;
  /** Palpebral aperture, mm; null where it was not measured. The wider of two eyes. */
  readonly apertureMm: number | null;
  /** Techniques that were tried in this lesson and did not work. */
  readonly failed: readonly Technique[];
}
/** A technique, and why it is taught. */
export interface Taught<T extends Technique> {
  readonly technique: T;
  readonly because: 'first' | 'oneHand' | 'longNails' | 'othersFail' | 'school' | 'nextAfterFailing';
  readonly source: Source;
}

/** Lids that open this wide let a lens be blinked out by pulling at the outer corner. Common practice. */
export const WIDE_APERTURE_MM = 11;

const taught = <T extends Technique>(technique: T, because: Taught<T>['because']): Taught<T> => ({ technique, because, source: TRADE });

/**
 * How putting on is taught: with both hands; with one where the other cannot help, or where both hands failed.
 * @example onTechnique({dexterity: 'good', longNails: false, apertureMm: 10, failed: []}).technique → 'twoHanded'
 * @source common practice
 */
export function onTechnique({ dexterity, failed }: Handling): Taught<OnTechnique> {
  if (dexterity === 'oneHand') return taught('oneHanded', 'oneHand');
  return failed.includes('twoHanded') && !failed.includes('oneHanded') ? taught('oneHanded', 'nextAfterFailing') : taught('twoHanded', 'first');
}

/**
 * How taking off is taught: slide to the white and pinch with finger pads, the safest; long nails roll it off with the side of the finger; the
 * outer corner only where others failed and the lids open wide. A practice may teach the pinch at the lower third of the eye; learners are not.
 * @example offTechnique({dexterity: 'good', longNails: true, apertureMm: null, failed: []}, {removal: 'slide'}).technique → 'rollOff'
 * @source common practice
 */
export function offTechnique({ longNails, apertureMm, failed }: Handling, settings: Pick<PracticeSettings, 'removal'>): Taught<OffTechnique> {
  const first = longNails
    ? taught('rollOff', 'longNails')
    : settings.removal === 'lowerThird'
      ? taught('lowerThird', 'school')
      : taught('slideAndPinch', 'first');
  if (!failed.includes(first.technique)) return first;
  // The pinch with nails is never the next one.
  const next = longNails ? (['rollOff'] as const) : (['slideAndPinch', 'rollOff'] as const);
  const left = next.find((technique) => !failed.includes(technique));
  if (left) return taught(left, 'nextAfterFailing');
  return apertureMm !== null && apertureMm >= WIDE_APERTURE_MM ? taught('outerCorner', 'othersFail') : first;
}
