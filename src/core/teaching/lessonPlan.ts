import type { PracticeSettings } from '../practiceSettings';
import type { CareTopic } from './careTopics';
import { offTechnique, onTechnique, type Handling, type OffTechnique, type OnTechnique, type Taught } from './techniques';

/** The parts of a lesson, in the trade's order: much of what is told is forgotten, and nothing is heard once a lens is in the hand. */
export const LESSON_PARTS = ['care', 'wayOut', 'on', 'moveAndFind', 'off', 'again', 'signOff'] as const;
export type LessonPart = (typeof LESSON_PARTS)[number];

/** Where each topic is taught. */
const PART_OF: Readonly<Partial<Record<CareTopic, LessonPart>>> = {
  rightWayOut: 'wayOut',
  moveAndFind: 'moveAndFind',
  stuckLens: 'off',
  rollOff: 'off',
};

export interface PlannedPart {
  readonly part: LessonPart;
  /** To be said back. */
  readonly topics: readonly CareTopic[];
}
export interface LessonPlan {
  readonly parts: readonly PlannedPart[];
  readonly on: Taught<OnTechnique>;
  readonly off: Taught<OffTechnique>;
}

/**
 * The plan of one wearer's lesson. A lesson of topics alone has no handling.
 * @param topics that must be said back, see `careTopicsFor`
 * @param eyes how many eyes are taught; 0: topics alone
 */
export function lessonPlan(topics: readonly CareTopic[], eyes: number, handling: Handling, settings: Pick<PracticeSettings, 'removal'>): LessonPlan {
  const parts = LESSON_PARTS.filter((part) => eyes > 0 || part === 'care' || part === 'signOff').map((part) => ({
    part,
    topics: topics.filter((topic) => (eyes > 0 ? (PART_OF[topic] ?? 'care') : 'care') === part),
  }));
  return { parts, on: onTechnique(handling), off: offTechnique(handling, settings) };
}
