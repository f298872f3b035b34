import type { Dexterity, OffTechnique, OnTechnique } from '../teaching/techniques';
import type { CareTopic } from '../teaching/careTopics';
import type { Eye } from '../units';

export interface LessonRow {
  readonly id: string;
  readonly visitId: string;
  readonly wearerId: string;
  readonly eyes: Eye[];
  readonly onAtStart: Eye[];
  readonly singleUse: boolean;
  /** Topics that a lesson of topics alone asks; null: all that these lenses have. */
  readonly onlyTopics: readonly CareTopic[] | null;
  readonly handler: string | null;
  readonly startedAt: string;
  readonly startedByName: string;
  readonly signOffId: string | null;
  readonly signedAt: string | null;
  readonly signedByName: string | null;
  /** What the sign-off was for. */
  readonly overnight: boolean | null;
  readonly productId: string | null;
  /** What was missing when a prescriber signed it off all the same, and the sentence. */
  readonly overridden: readonly string[] | null;
  readonly overrideNote: string | null;
}

/** How somebody is taught; null: as the plan has it. */
export interface LessonWay {
  readonly hand: Eye;
  readonly dexterity: Dexterity;
  readonly skinTone: number;
  readonly onTechnique: OnTechnique | null;
  readonly offTechnique: OffTechnique | null;
}
/** Washes of skin that drawings are made in. */
export const SKIN_TONE_COUNT = 7;
/** While nobody said otherwise. */
export const USUAL_WAY: LessonWay = { hand: 'right', dexterity: 'good', skinTone: 3, onTechnique: null, offTechnique: null };
