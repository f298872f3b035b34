import type { AcuityWay, Eye, LensSignId, NearTask, QuestionId, SignId } from '@/core';

/** Under which keys the unfinished typing of a step is kept: a key that is not named here can neither be read nor set. */
interface KeysOf {
  redEye: 'onset' | 'solution' | `${Eye}:${AcuityWay}` | `${Eye}${'Kind' | 'Nasal' | 'Up' | 'Long' | 'Across'}`;
  /** Grades seen otherwise than last time. */
  asLastTime: `${Eye}:${SignId}`;
  aftercare:
    'hoursPerDay' | 'replacedEvery' | 'firstNight' | 'saidBack' | 'outcome' | 'note' | 'unbooked' | 'eventEye' | 'event' | 'began' | 'lot' | 'eventNote';
  history: QuestionId | `note:${QuestionId}` | 'withdraw';
  eyeHealth: `${Eye}:${SignId | AcuityWay}`;
  refraction:
    'vertex' | 'asCross' | 'addOpen' | 'addFromAge' | 'nearCm' | Eye | `${Eye}${'Kept' | 'Va' | 'Add' | 'NearVa' | 'CrossFirst' | 'CrossAt' | 'CrossSecond'}`;
  /** A pair judged with both eyes: acuity and satisfaction of each task, and what a held quarter did. */
  nearVision: 'covered' | `${NearTask}${'Va' | 'Said'}` | `held${Eye}${'Plus' | 'Minus'}${'Far' | 'Near'}`;
  lens:
    | 'apart'
    | 'lead'
    | 'shape'
    | 'without'
    | 'anyway'
    | 'product'
    | 'family'
    | 'compare'
    | 'despite'
    | `${Eye}Family`
    | `${Eye}${'Power' | 'Variant' | 'Lot' | 'Expires'}:${string}`;
  onEye:
    | 'vertex'
    | 'bothVa'
    | Eye
    | `${Eye}${'Turn' | 'How' | 'Blinks' | 'Fresh' | 'Fit' | 'Kept' | 'Sure' | 'OverVa' | 'Tested' | 'Plus' | 'Control'}`
    | `${Eye}F_${LensSignId}`;
  prescription:
    | 'purpose'
    | 'expires'
    | 'expiryReason'
    | 'days'
    | 'mode'
    | 'note'
    | `${Eye}${'Pick' | 'Out' | 'Family' | 'Despite' | 'Power' | 'Curve' | 'Add'}`
    | `why:${Eye | 'wearer'}:${string}`;
  lesson: 'experience' | `${Eye}${'Stay' | 'Lot' | 'Expires' | 'Count'}`;
  supply: 'purpose' | 'pastExpiry' | `${Eye}Packs`;
}
/** Steps in which something is typed that is not recorded at once. */
export type DraftStep = keyof KeysOf;
export type DraftKey<Step extends DraftStep> = KeysOf[Step];
/** What is being typed in a step. */
export type DraftOf<Step extends DraftStep> = Readonly<Partial<Record<DraftKey<Step>, string>>>;
