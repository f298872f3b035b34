import type { CareTopic } from './careTopics';

/** One case of *Is it safe?*: what happened, and what one does. Words live with the messages. */
export interface Scenario {
  readonly id: ScenarioId;
  /** What one may do; in the order in which they stand. */
  readonly choices: readonly string[];
  readonly right: string;
  /** What to tell again where it was answered wrong; null: none of the care topics. */
  readonly topic: CareTopic | null;
  /** Repeated until it is right. */
  readonly mandatory: boolean;
}
/** What the lenses are, as far as it changes what is asked. */
export interface ScenariosFor {
  readonly singleUse: boolean;
  readonly peroxide: boolean;
}

/** Cases, in the order in which they are asked. @source common practice */
const SCENARIOS = [
  { id: 'redEye', choices: ['waitUntilTomorrow', 'offAndCall'], right: 'offAndCall', topic: 'dangerSigns', mandatory: true },
  { id: 'lightHurts', choices: ['offAndCall', 'sunglasses'], right: 'offAndCall', topic: 'dangerSigns', mandatory: true },
  { id: 'dryStuck', choices: ['pull', 'dropsAndWait'], right: 'dropsAndWait', topic: 'stuckLens', mandatory: true },
  { id: 'sleptIn', choices: ['wetWaitOff', 'wearOn', 'pull'], right: 'wetWaitOff', topic: 'neverSleep', mandatory: true },
  { id: 'shower', choices: ['keepThemIn', 'takeThemOut'], right: 'takeThemOut', topic: 'noWater', mandatory: true },
  { id: 'dropped', choices: ['rinseUnderTap', 'cleanAndSoak', 'wearAtOnce'], right: 'cleanAndSoak', topic: 'droppedLens', mandatory: true },
  { id: 'droppedSingleUse', choices: ['rinseUnderTap', 'throwAway'], right: 'throwAway', topic: 'droppedLens', mandatory: true },
  { id: 'splash', choices: ['rubTheEye', 'flushAndCall'], right: 'flushAndCall', topic: null, mandatory: true },
  { id: 'ordinaryCase', choices: ['nightIsEnough', 'neverWearThem'], right: 'neverWearThem', topic: 'ownCaseFullHours', mandatory: true },
  { id: 'shortSoak', choices: ['wearThem', 'glassesUntilThen'], right: 'glassesUntilThen', topic: 'freshSolution', mandatory: false },
  { id: 'toppedUp', choices: ['topUp', 'emptyAndFresh'], right: 'emptyAndFresh', topic: 'freshSolution', mandatory: false },
  { id: 'shared', choices: ['lendOnce', 'never'], right: 'never', topic: null, mandatory: false },
  { id: 'travel', choices: ['onlyLenses', 'packGlasses'], right: 'packGlasses', topic: 'glassesAlways', mandatory: false },
] as const satisfies readonly (Omit<Scenario, 'id'> & { readonly id: string })[];
export type ScenarioId = (typeof SCENARIOS)[number]['id'];
export const SCENARIO_IDS = SCENARIOS.map((s) => s.id) as [ScenarioId, ...ScenarioId[]];

const ONLY_FOR: Readonly<Partial<Record<ScenarioId, (of: ScenariosFor) => boolean>>> = {
  dropped: (of) => !of.singleUse,
  droppedSingleUse: (of) => of.singleUse,
  ordinaryCase: (of) => !of.singleUse && of.peroxide,
  shortSoak: (of) => !of.singleUse,
  toppedUp: (of) => !of.singleUse,
};

/**
 * The cases of somebody with these lenses.
 * @example scenariosFor({singleUse: true, peroxide: false}).some((s) => s.id === 'toppedUp') → false
 */
export const scenariosFor = (of: ScenariosFor): readonly Scenario[] => SCENARIOS.filter((s) => ONLY_FOR[s.id]?.(of) ?? true);

/** One answer. */
export interface ScenarioAnswer {
  readonly scenario: ScenarioId;
  readonly right: boolean;
}

/** Is this what one does? Null where the case knows no such choice. @example isRight('shared', 'never') → true */
export function isRight(id: ScenarioId, choice: string): boolean | null {
  const found: Scenario | undefined = SCENARIOS.find((s) => s.id === id);
  return found?.choices.includes(choice) === true ? found.right === choice : null;
}

const lastOf = (answers: readonly ScenarioAnswer[], id: ScenarioId): boolean | null => answers.findLast((a) => a.scenario === id)?.right ?? null;

/**
 * The case to ask next: what was answered wrong comes back first, though not at once where another is left; then what was not asked. Null:
 * every case was asked, and every mandatory one was right when it was asked last.
 * @param answers oldest first
 */
export function nextScenario(scenarios: readonly Scenario[], answers: readonly ScenarioAnswer[]): Scenario | null {
  const wrong = scenarios.filter((s) => s.mandatory && lastOf(answers, s.id) === false);
  const open = [...wrong, ...scenarios.filter((s) => lastOf(answers, s.id) === null)];
  const just = answers.at(-1)?.scenario;
  return open.find((s) => s.id !== just) ?? open[0] ?? null;
}

/** Topics to tell again: of cases that were wrong when they were asked last. */
export const weakTopics = (scenarios: readonly Scenario[], answers: readonly ScenarioAnswer[]): readonly CareTopic[] => [
  ...new Set(scenarios.flatMap((s) => (s.topic !== null && lastOf(answers, s.id) === false ? [s.topic] : []))),
];
