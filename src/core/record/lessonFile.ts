import type { Findings } from '../advice/signs';
import { carePrescribed } from '../care/inUse';
import type { CareSystem } from '../care/careSystem';
import type { PracticeSettings } from '../practiceSettings';
import type { WearLabel } from '../teaching/wearLabel';
import { EYES, type Eye } from '../units';
import type { HealthFile } from './healthFile';
import type { LessonFile } from './lessonState';
import type { VisitSlices } from './visitSlices';

/** What of a visit a lesson's file is put together from, in the browser and on the server. */
export interface LessonParts {
  readonly visitId: string;
  readonly supply: Pick<VisitSlices<never>['supply'], 'lessons' | 'attempts' | 'topics' | 'lessonWays' | 'lessonTurns' | 'lessonSights' | 'careSystems'>;
  readonly health: Pick<HealthFile, 'decisions' | 'answers' | 'wearBefore'>;
  /** Graded at this visit or before. */
  readonly findings: Readonly<Record<Eye, Findings>>;
  readonly careProducts: readonly { readonly productId: string; readonly system: CareSystem }[];
  readonly settings: PracticeSettings;
  /** What the lenses' label says of wearing them; null: nothing. */
  readonly label: WearLabel | null;
}

/** How lenses are worn, as decided last in the visit; null while nothing is. */
export const wearDecided = ({ visitId, health }: Pick<LessonParts, 'visitId' | 'health'>): 'day' | 'overnight' | null =>
  health.decisions.findLast((d) => d.visitId === visitId)?.chosen.wear ?? null;

/** Puts a lesson's file together. */
export function lessonFile(parts: LessonParts): LessonFile {
  const { supply, health, findings, careProducts, settings, label } = parts;
  const prescribed = carePrescribed(supply.careSystems);
  const apertures = EYES.flatMap((eye) => {
    const value = findings[eye].lidAperture;
    return typeof value === 'number' ? [value] : [];
  });
  return {
    lessons: supply.lessons,
    attempts: supply.attempts,
    topics: supply.topics,
    lessonWays: supply.lessonWays,
    lessonTurns: supply.lessonTurns,
    lessonSights: supply.lessonSights,
    // A lesson on another day teaches the nights that were decided before it.
    wear: wearDecided(parts) ?? health.wearBefore,
    answers: health.answers,
    labelled: label !== null,
    system: careProducts.find((p) => p.productId === prescribed?.productId)?.system ?? null,
    apertureMm: apertures.length === 0 ? null : Math.max(...apertures),
    settings,
  };
}
