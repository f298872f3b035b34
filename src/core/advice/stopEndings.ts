import type { Eye } from '../units';
import type { Evidence } from './conditions';
import type { Findings, SignId } from './signs';

/**
 * How an absolute stop ends. `healed`: at a later visit, after a new look; `wrongEntry`: at its own visit, what was wrong is
 * corrected; `looked`: it rests only on what was said, and a prescriber has looked; `secondLook`: the same day, a second look
 * after a foreign body was taken out or the cornea has cleared, never for a suspected infection.
 */
export const STOP_ENDINGS = ['healed', 'wrongEntry', 'looked', 'secondLook'] as const;
export type StopEnding = (typeof STOP_ENDINGS)[number];

/** Stops that no second look on the same day ends. */
const NEVER_SAME_DAY: readonly string[] = [
  'suspectedInfection',
  'infiltrateWithSymptoms',
  'infiltrateDrawn',
  'cornealUlcer',
  'dendrite',
  'ringInfiltrate',
  'painBeyondSigns',
  'chamberCells',
  'myopicShift',
  'pressureSigns',
];
/** Graded afresh with the lens off before any stop ends: stain, the everted lid, the chamber. Source: common practice. */
export const GRADED_BEFORE_END: readonly SignId[] = ['staining', 'papillae', 'chamber'];

export interface OpenStop {
  readonly rule: string;
  readonly eyes: readonly Eye[];
  readonly evidence: readonly Evidence[];
  /** It was opened in the visit at hand. */
  readonly thisVisit: boolean;
}

/** Does a stop rest on nothing but what the wearer said? @example restsOnWords([{from: 'history', key: 'danger', eye: null, value: ['pain']}]) → true */
export const restsOnWords = (evidence: readonly Evidence[]): boolean => evidence.length > 0 && evidence.every((e) => e.from === 'history');

/** Eyes to be looked at before a stop ends: its own, or both where it names none. */
export const eyesToLookAt = (stop: Pick<OpenStop, 'eyes'>): readonly Eye[] => (stop.eyes.length === 0 ? ['right', 'left'] : stop.eyes);

/**
 * The ways in which a stop may end in the visit at hand.
 * @example endingsOf({rule: 'heardRedPainful', eyes: [], evidence: [{from: 'history', key: 'danger', eye: null, value: ['pain']}], thisVisit: true}) → ['wrongEntry', 'looked']
 * @source common practice
 */
export function endingsOf(stop: OpenStop): readonly StopEnding[] {
  const words = restsOnWords(stop.evidence) && !NEVER_SAME_DAY.includes(stop.rule);
  if (!stop.thisVisit) return words ? ['healed', 'looked'] : ['healed'];
  if (words) return ['wrongEntry', 'looked'];
  return NEVER_SAME_DAY.includes(stop.rule) ? ['wrongEntry'] : ['wrongEntry', 'secondLook'];
}

/**
 * What has not been graded afresh yet, by eye, before a stop may end.
 * @param fresh what was graded since the stop was opened, each eye with its lens off
 * @example missingLook({eyes: ['right']}, {right: {staining: 0, chamber: 'quiet'}, left: {}}) → [{eye: 'right', sign: 'papillae'}]
 */
export const missingLook = (stop: Pick<OpenStop, 'eyes'>, fresh: Readonly<Record<Eye, Findings>>): readonly { readonly eye: Eye; readonly sign: SignId }[] =>
  eyesToLookAt(stop).flatMap((eye) => GRADED_BEFORE_END.filter((sign) => fresh[eye][sign] === undefined).map((sign) => ({ eye, sign })));
