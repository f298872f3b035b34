import { SLICE_NAMES, type SliceName, type VisitHead, type VisitPage } from '@/core';
import { assert } from '@/lib/assert';
import type { Library } from '@/services/family/queries';
import type { SessionContext } from '@/services/sessionContext';
import type { Slices, VisitPart } from '@/services/visit/slices';

/** What the page of one step holds of its visit. */
export interface VisitData extends VisitPart {
  readonly page: VisitPage;
}

type Flat = Slices['health'] & Slices['trend'] & Slices['measures'] & Slices['supply'] & Slices['lenses'] & Slices['drawer'];

/**
 * A visit as its screens read it. What its page does not name in STEP_SLICES is not there, and says so when it is asked for;
 * `families`, `careProducts` and `houseList` are there once the library has come.
 */
export interface VisitRecord extends VisitHead, Flat, Library {
  readonly session: SessionContext;
}

const FIELDS: { readonly [Name in SliceName]: readonly (keyof Slices[Name])[] } = {
  health: ['health'],
  trend: ['trend'],
  measures: ['facts', 'earlierRefractions', 'addsBefore', 'earlierOnEye', 'earlierRotations', 'knownTurns', 'bestBefore', 'instruments'],
  supply: [
    'prescriptions',
    'lessons',
    'attempts',
    'topics',
    'lessonWays',
    'lessonTurns',
    'lessonSights',
    'exercises',
    'careSystems',
    'lessonInstructions',
    'nearFindings',
    'handOvers',
    'wornAnswers',
    'trials',
    'broughtAlong',
    'sellerVerified',
    'givenFamilies',
    'orders',
    'losses',
  ],
  lenses: ['lenses', 'ofLenses'],
  drawer: ['drawer', 'sets'],
};
const LIBRARY_FIELDS: readonly (keyof Library)[] = ['families', 'careProducts', 'carePairs', 'houseList'];

/** Puts head, slices and library together. */
export function recordOf(data: VisitData, session: SessionContext, library: Library | null): VisitRecord {
  const record = { ...data.head, session: { ...session, now: data.now, today: data.today } };
  const offer = (field: string, from: object | null | undefined, why: string): void => {
    Object.defineProperty(record, field, {
      enumerable: true,
      get: () => {
        assert(from, why);
        return (from as Readonly<Record<string, unknown>>)[field];
      },
    });
  };
  for (const name of SLICE_NAMES) for (const field of FIELDS[name]) offer(field, data.slices[name], `the page reads ${name}`);
  for (const field of LIBRARY_FIELDS) offer(field, library, 'the library has come');
  return record as VisitRecord;
}

export const hasSlice = (data: VisitData, name: SliceName): boolean => data.slices[name] !== undefined;

/** What a command answered, laid over what the page holds. */
export const withAnswer = (data: VisitData, part: VisitPart): VisitData => ({ ...data, ...part, slices: { ...data.slices, ...part.slices } });

/** Which of two readings of one page to show: the one of the later version; of the same version the one that came last. */
export const later = (shown: VisitData | null, came: VisitData): VisitData =>
  shown === null || shown.page !== came.page || shown.head.visit.version <= came.head.visit.version ? came : shown;
