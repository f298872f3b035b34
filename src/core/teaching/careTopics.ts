import type { CareSystem } from '../care/careSystem';

/**
 * Care topics that wearers say back before lenses go home; words live with the messages. Those that only some wearers have stand among them
 * where they are taught.
 * @source common practice
 */
export const CARE_TOPICS = [
  'cleanDryHands',
  'rightWayOut',
  'rubAndRinse',
  'freshSolution',
  'ownCaseFullHours',
  'noWater',
  'neverSleep',
  'overnightRules',
  'droppedLens',
  'stuckLens',
  'moveAndFind',
  'rollOff',
  'replaceOnTime',
  'labelHours',
  'glassesAlways',
  'dangerSigns',
] as const;
export type CareTopic = (typeof CARE_TOPICS)[number];

/** What of the wearer and of the lenses decides what is taught. */
export interface TaughtFor {
  readonly singleUse: boolean;
  /** Lenses are worn overnight: their own rules, instead of never sleeping in them. */
  readonly overnight?: boolean;
  /** Long nails: the lens is rolled off with the side of the finger. */
  readonly longNails?: boolean;
  /** Lenses that slow a child's myopia: worn as their label says. */
  readonly labelled?: boolean;
  /** The care system prescribed; absent while none is. */
  readonly system?: CareSystem | null;
}

const ONLY_FOR: Readonly<Partial<Record<CareTopic, (of: TaughtFor) => boolean>>> = {
  rubAndRinse: (of) => !of.singleUse,
  freshSolution: (of) => !of.singleUse,
  ownCaseFullHours: (of) => !of.singleUse && of.system === 'peroxide',
  neverSleep: (of) => of.overnight !== true,
  overnightRules: (of) => of.overnight === true,
  rollOff: (of) => of.longNails === true,
  labelHours: (of) => of.labelled === true,
};

/**
 * The topics that must be said back for lenses of this kind by this wearer, in the order in which they are told.
 * @example careTopicsFor({singleUse: false, overnight: true}).includes('neverSleep') → false
 * @source common practice
 */
export const careTopicsFor = (of: TaughtFor): readonly CareTopic[] => CARE_TOPICS.filter((topic) => ONLY_FOR[topic]?.(of) ?? true);

/** Topics that hurt eyes when forgotten: asked once more at the end of the lesson. Own choice. */
const ASKED_AGAIN: readonly CareTopic[] = ['noWater', 'neverSleep', 'overnightRules', 'stuckLens', 'ownCaseFullHours', 'dangerSigns'];

/**
 * The topics asked once more at the end, of those that were taught.
 * @example topicsAgain(['cleanDryHands', 'dangerSigns']) → ['dangerSigns']
 */
export const topicsAgain = (topics: readonly CareTopic[]): readonly CareTopic[] => topics.filter((topic) => ASKED_AGAIN.includes(topic));

/** What somebody was taught for, once. */
export interface OnceTaught {
  readonly singleUse: boolean;
  readonly overnight: boolean;
  /** The care product; null: none. */
  readonly productId: string | null;
}

/**
 * The topics that a change asks for anew of somebody who can handle lenses: another solution, reusable lenses instead of single-use ones,
 * nights instead of days. Empty: nothing of it changed.
 * @example topicsOfChange({singleUse: true, overnight: false, productId: null}, {singleUse: true, overnight: false, productId: null}, null) → []
 * @source common practice
 */
export function topicsOfChange(before: OnceTaught, now: OnceTaught, system: CareSystem | null): readonly CareTopic[] {
  const asked = new Set<CareTopic>();
  const add = (...topics: readonly CareTopic[]): void => topics.forEach((topic) => asked.add(topic));
  const reusable = before.singleUse && !now.singleUse;
  if (reusable) add('rubAndRinse', 'freshSolution', 'noWater', 'droppedLens', 'replaceOnTime');
  if (!now.singleUse && now.productId !== null && (reusable || now.productId !== before.productId)) add('rubAndRinse', 'freshSolution', 'ownCaseFullHours');
  if (now.overnight && !before.overnight) add('overnightRules', 'stuckLens', 'dangerSigns');
  const holds = careTopicsFor({ singleUse: now.singleUse, overnight: now.overnight, system });
  return holds.filter((topic) => asked.has(topic));
}
