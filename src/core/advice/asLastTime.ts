import { addMonths, dayIn } from '../calendar/dates';
import type { PracticeSettings } from '../practiceSettings';
import type { FactChain } from '../record/chains';
import type { RecordedFinding } from '../record/visitFacts';
import type { Eye, IsoDate, IsoInstant } from '../units';
import { GRADED, type SignId } from './signs';

/**
 * Signs that may be said to be as last time, of an eye that is being looked at. Stain, infiltrates, swelling, the chamber and what
 * hurts are looked for afresh at every visit. Common practice.
 */
export const COPIED_SIGNS = [
  'lidMargin',
  'lashes',
  'bulbarRedness',
  'limbalRedness',
  'papillae',
  'vessels',
  'scars',
  'endothelium',
] as const satisfies readonly SignId[];
/** A grade is repeated for so many months and no longer: our own choice. */
export const COPIED_FOR_MONTHS = 24;

/** A grade of an earlier visit, as it may be repeated. */
export interface EarlierGrade {
  /** The finding that it is copied from. */
  readonly findingId: string;
  readonly sign: (typeof COPIED_SIGNS)[number];
  readonly value: number;
  readonly seenAt: IsoInstant;
  /** Why it has to be looked at anew; null where it may be repeated. */
  readonly bar: 'old' | 'acts' | null;
}

const actsFrom = (sign: SignId, settings: PracticeSettings): number => {
  const graded = GRADED.find((g) => g.id === sign);
  return graded && 'threshold' in graded ? settings[graded.threshold] : Infinity;
};

/**
 * The grades of an eye that can be said to be as last time: those of earlier visits of the signs that are not looked for afresh each
 * time, and, where one is too old or calls for action, why it is looked at anew.
 * @param visitId the visit now
 * @example earlierGrades([], 'right', { visitId: 'v', today: '2026-11-24', timeZone: 'Europe/London', settings: DEFAULT_SETTINGS }) → []
 * @source a copied grade keeps its day and never counts as graded: common practice; which and for how long: our own choice
 */
export function earlierGrades(
  findings: readonly FactChain<RecordedFinding>[],
  eye: Eye,
  of: { readonly visitId: string; readonly today: IsoDate; readonly timeZone: string; readonly settings: PracticeSettings },
): readonly EarlierGrade[] {
  return COPIED_SIGNS.flatMap((sign): EarlierGrade[] => {
    const ofSign = findings.flatMap((c) => (c.current?.eye === eye && c.current.sign === sign ? [{ row: c.current, visitId: c.rows[0]?.visitId }] : []));
    if (ofSign.some((f) => f.visitId === of.visitId)) return [];
    const row = ofSign.at(-1)?.row;
    if (row?.numberValue == null) return [];
    const old = addMonths(dayIn(row.observedAt, of.timeZone), COPIED_FOR_MONTHS) < of.today;
    const bar = old ? 'old' : row.numberValue >= actsFrom(sign, of.settings) ? 'acts' : null;
    return [{ findingId: row.id, sign, value: row.numberValue, seenAt: row.observedAt, bar }];
  });
}
