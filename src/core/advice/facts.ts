import type { AftercareEyeKey } from '../aftercare/keys';
import type { Eye } from '../units';
import type { PracticeSettings } from '../practiceSettings';
import type { Answers } from './answers';
import { medicineGroup, type MedicineGroup } from './medicines';
import type { Findings } from './signs';

export type FactValue = number | string | readonly string[];

/** What one eye shows, and at aftercare what is known of it beside. */
export type EyeFacts = Findings & Readonly<Partial<Record<AftercareEyeKey, FactValue>>>;

/** Everything the rules look at, flat: what was answered, what is known of the person, what each eye shows. */
export interface AdviceFacts {
  readonly person: Readonly<Record<string, FactValue>>;
  readonly eyes: Readonly<Record<Eye, EyeFacts>>;
  /** The same eye at the last visit. */
  readonly baseline: Readonly<Record<Eye, Findings>>;
  /** The lowest grade of any earlier visit: a rise that creeps counts from there. */
  readonly lowest?: Readonly<Record<Eye, Findings>>;
  readonly settings: PracticeSettings;
}

/** Powers at the cornea that steer the kind of lens, where they are known. */
export interface PowerSummary {
  readonly strongestSphere: number;
  readonly strongestCylinder: number;
  /** How far either eye has moved towards minus since the refraction before, D; absent while there is none to compare. */
  readonly myopicShift?: number;
}

/** Keys of `person` that come from elsewhere than a question. */
export const DERIVED_KEYS = ['age', 'guardianNamed', 'medicineGroups', 'strongestSphere', 'strongestCylinder', 'myopicShift'] as const;

/**
 * Gathers what the rules look at.
 * @param age whole years
 * @param guardianNamed whether a guardian stands in the wearer's own entry
 */
export function adviceFacts(input: {
  readonly answers: Answers;
  readonly age: number;
  readonly guardianNamed: boolean;
  readonly eyes: Readonly<Record<Eye, Findings>>;
  readonly baseline: Readonly<Record<Eye, Findings>>;
  readonly lowest?: Readonly<Record<Eye, Findings>>;
  readonly power: PowerSummary | null;
  readonly settings: PracticeSettings;
}): AdviceFacts {
  const person: Record<string, FactValue> = { age: input.age, guardianNamed: input.guardianNamed ? 'yes' : 'no' };
  for (const [id, answer] of Object.entries(input.answers)) person[id] = answer.value;
  const typed = input.answers.medicines?.value;
  if (Array.isArray(typed)) {
    const groups = (typed as readonly string[]).map(medicineGroup).filter((g): g is MedicineGroup => g !== null);
    person.medicineGroups = [...new Set(groups)];
  }
  if (input.power) {
    person.strongestSphere = input.power.strongestSphere;
    person.strongestCylinder = input.power.strongestCylinder;
    if (input.power.myopicShift !== undefined) person.myopicShift = input.power.myopicShift;
  }
  return { person, eyes: input.eyes, baseline: input.baseline, ...(input.lowest ? { lowest: input.lowest } : {}), settings: input.settings };
}
