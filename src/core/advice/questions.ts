/**
 * The history as data: what is asked, in which order, with which answers, and when a question falls away.
 * Options are named by code; words are made where they are shown. Common practice of contact lens histories.
 */
export type QuestionKind = 'one' | 'many' | 'number' | 'medicines' | 'text';
export type QuestionGroup = 'today' | 'before' | 'goals' | 'days' | 'health' | 'care' | 'terms';

export interface Question {
  readonly id: string;
  readonly group: QuestionGroup;
  readonly kind: QuestionKind;
  /** Answers on offer; a digit on the keyboard chooses each. */
  readonly options?: readonly string[];
  /** The option that excludes the others of a `many` question. */
  readonly none?: string;
  /** Limits of a `number` question, whole numbers. */
  readonly min?: number;
  readonly max?: number;
  /** When it is asked; always, if absent. */
  readonly asked?: 'wornBefore' | 'minor' | 'danger' | 'pressureMedicine';
  /** May stay without an answer. */
  readonly optional?: true;
}

const HAS_NONE = { none: 'none' } as const;

export const QUESTIONS = [
  {
    id: 'danger',
    group: 'today',
    kind: 'many',
    options: ['none', 'redness', 'pain', 'light', 'vision', 'discharge', 'something'],
    ...HAS_NONE,
  },
  { id: 'onset', group: 'today', kind: 'text', asked: 'danger', optional: true },
  { id: 'lastWorn', group: 'before', kind: 'one', options: ['never', 'now', 'months', 'longer'] },
  { id: 'whichLens', group: 'before', kind: 'one', options: ['daily', 'twoWeekly', 'monthly', 'rigid', 'hybrid', 'scleral', 'unknown'], asked: 'wornBefore' },
  { id: 'sleptIn', group: 'before', kind: 'one', options: ['never', 'accident', 'someNights', 'mostNights'], asked: 'wornBefore' },
  { id: 'replacedEvery', group: 'before', kind: 'number', min: 1, max: 365, asked: 'wornBefore' },
  {
    id: 'whyChange',
    group: 'before',
    kind: 'many',
    options: ['none', 'comfort', 'dryness', 'vision', 'handling', 'cost', 'deposits', 'siliconeFailed', 'infection'],
    ...HAS_NONE,
    asked: 'wornBefore',
  },
  { id: 'solution', group: 'before', kind: 'text', asked: 'wornBefore', optional: true },
  { id: 'goals', group: 'goals', kind: 'many', options: ['everyDay', 'sport', 'outdoors', 'specialDays', 'screens', 'near'] },
  { id: 'nights', group: 'goals', kind: 'one', options: ['none', 'shifts', 'onCall', 'fallsAsleep'] },
  { id: 'work', group: 'days', kind: 'many', options: ['indoors', 'outdoors', 'dust', 'fumes', 'water', 'study', 'aviation', 'driving'] },
  { id: 'freeTime', group: 'days', kind: 'many', options: ['quiet', 'sport', 'swimming', 'outdoors', 'dust', 'makeUp'] },
  { id: 'daysPerWeek', group: 'days', kind: 'number', min: 1, max: 7 },
  { id: 'hoursPerDay', group: 'days', kind: 'number', min: 1, max: 24 },
  { id: 'dryness', group: 'health', kind: 'one', options: ['none', 'evening', 'mostOfDay', 'severe'] },
  { id: 'medicines', group: 'health', kind: 'medicines' },
  { id: 'drops', group: 'health', kind: 'many', options: ['none', 'comfort', 'redness', 'pressure', 'other'], ...HAS_NONE },
  { id: 'allergy', group: 'health', kind: 'many', options: ['none', 'season', 'eyes', 'solution'], ...HAS_NONE },
  {
    id: 'health',
    group: 'health',
    kind: 'many',
    options: ['none', 'diabetes', 'pregnancy', 'immunity', 'hands', 'thyroid', 'dryMouth', 'illToday'],
    ...HAS_NONE,
  },
  { id: 'skin', group: 'health', kind: 'many', options: ['none', 'rosacea', 'eczema'], ...HAS_NONE },
  { id: 'headache', group: 'health', kind: 'many', options: ['none', 'headache', 'dimming'], ...HAS_NONE, asked: 'pressureMedicine' },
  { id: 'smoking', group: 'health', kind: 'one', options: ['no', 'yes'] },
  {
    id: 'eyeHistory',
    group: 'health',
    kind: 'many',
    options: ['none', 'onlyGoodEye', 'infection', 'erosion', 'sensation', 'surgery', 'trauma', 'graft', 'rubs'],
    ...HAS_NONE,
  },
  { id: 'handler', group: 'care', kind: 'one', options: ['self', 'helped', 'other'] },
  { id: 'hygieneHands', group: 'care', kind: 'one', options: ['good', 'longNails', 'poor'] },
  { id: 'hygieneCare', group: 'care', kind: 'one', options: ['good', 'lapses', 'poor', 'abuse'] },
  { id: 'water', group: 'care', kind: 'one', options: ['never', 'shower', 'swims', 'tap'], asked: 'wornBefore' },
  { id: 'guardian', group: 'terms', kind: 'one', options: ['consents', 'notYet'], asked: 'minor' },
  { id: 'returns', group: 'terms', kind: 'one', options: ['yes', 'unsure', 'no'] },
  { id: 'budget', group: 'terms', kind: 'one', options: ['open', 'careful', 'tight'] },
  { id: 'tell', group: 'terms', kind: 'text', optional: true },
] as const satisfies readonly Question[];

export type QuestionId = (typeof QUESTIONS)[number]['id'];

/** A question by its identity; undefined for a name that is none. @example question('daysPerWeek').max → 7 */
export const question = (id: string): Question | undefined => QUESTIONS.find((q) => q.id === id);

/** Under this age a guardian consents. US general practice; local codes go before. */
export const ADULT = 18;
