import { askedQuestions, type Answer, type Answers } from '../advice/answers';
import type { Evidence } from '../advice/conditions';
import type { QuestionId } from '../advice/questions';
import type { WrittenAim } from '../presbyopia/aims';
import { EYES, type Eye } from '../units';
import type { RawOrder } from '../supply/rawOrder';
import type { Purpose } from '../supply/purpose';
import type { FactChain } from './chains';
import type { ReferralRow } from './healthFile';
import type { LensRow } from './lens';
import type { Prescriber, Prescription } from './prescription';
import type { HandOverFact, OnEyeFact } from './visitFacts';

/** What papers say, as data: whoever prints, sends or shows them brings the words. */

/** One eye of a prescription's copy: a lens, or, raw, what a laboratory works from. */
export interface CopyEye {
  readonly eye: Eye;
  readonly lens: LensRow | null;
  readonly raw: RawOrder | null;
  readonly baseCurveMm: number;
  readonly aim: WrittenAim | null;
}
export interface PrescriptionCopy {
  readonly number: number;
  readonly eyes: readonly CopyEye[];
  readonly examinedOn: string;
  readonly issuedOn: string;
  readonly expiresOn: string;
  /** Null for everyday wear, which needs no saying. */
  readonly purpose: Purpose | null;
  readonly prescriber: Prescriber;
}

/** A prescription as its wearer reads it: nothing of why, of reasons given or of what was overridden. */
export function prescriptionCopy(signed: Prescription, lenses: Readonly<Record<string, LensRow>>): PrescriptionCopy {
  const { number, examinedOn, issuedOn, expiresOn, purpose, prescriber } = signed;
  const eyes = EYES.flatMap((eye) => signed.eyes.filter((e) => e.eye === eye)).map(({ eye, lensId, raw, baseCurveOrderedMm, aim }) => ({
    eye,
    lens: lensId === null ? null : (lenses[lensId] ?? null),
    raw,
    baseCurveMm: baseCurveOrderedMm,
    aim,
  }));
  return { number, eyes, examinedOn, issuedOn, expiresOn, purpose: purpose === 'everyday' ? null : purpose, prescriber };
}

/** The prescription signed at a visit; null when none was. The newest, where one superseded another. */
export const signedAt = (prescriptions: readonly Prescription[], visitId: string): Prescription | null =>
  prescriptions.find((p) => p.visitId === visitId) ?? null;

/** What a colleague asks first of a red eye: since when, lenses last worn, solution, medicines, water and sleep. Common practice. */
export const ASKED_FIRST = [
  'onset',
  'danger',
  'lastWorn',
  'solution',
  'medicines',
  'drops',
  'water',
  'sleptIn',
  'headache',
] as const satisfies readonly QuestionId[];

/** A question on a paper; `answer` null: it was not asked. */
export interface PaperAnswer {
  readonly question: QuestionId;
  readonly answer: Answer | null;
}
export const answersFirst = (answers: Answers): readonly PaperAnswer[] => ASKED_FIRST.map((question) => ({ question, answer: answers[question] ?? null }));

/** Every question that was asked of a wearer of this age, with its answer. */
export const answersGiven = (answers: Answers, age: number): readonly PaperAnswer[] =>
  askedQuestions(answers, age).flatMap(({ id }) => (answers[id] === undefined ? [] : [{ question: id, answer: answers[id] }]));

/** A stop as a referral needs to know it. */
interface StopOnPaper {
  readonly id: string;
  readonly rule: string;
  readonly endedAt: string | null;
  readonly evidence: readonly Evidence[];
}
export interface ReferralLetter {
  readonly referral: ReferralRow | null;
  readonly to: string;
  readonly telephone: string;
  /** Rules of the stops that are open: what is suspected. */
  readonly suspected: readonly { readonly stopId: string; readonly rule: string }[];
  readonly printed: boolean;
}

/** To whom a wearer is sent, and why. @param fallback the practice's own settings, where the referral names nobody */
export function referralLetter(
  stops: readonly StopOnPaper[],
  referrals: readonly ReferralRow[],
  fallback: { readonly to: string; readonly telephone: string },
): ReferralLetter {
  const open = stops.filter((s) => s.endedAt === null);
  const referral = referrals.find((r) => open.some((s) => s.id === r.stopId)) ?? null;
  return {
    referral,
    to: referral?.addressedTo ?? fallback.to,
    telephone: referral?.telephone ?? fallback.telephone,
    suspected: open.map((s) => ({ stopId: s.id, rule: s.rule })),
    printed: referral?.steps.some((s) => s.step === 'printed') ?? false,
  };
}

/** The lens of an eye, with the lot that somebody may ask for. */
export interface LensOnPaper {
  readonly eye: Eye;
  readonly lens: LensRow;
  readonly lot: string;
}

/** The lens on each eye, or the one handed over last. */
export function lensesOnPaper(
  onEye: Readonly<Record<Eye, OnEyeFact | null>>,
  handOvers: readonly FactChain<HandOverFact>[],
  lenses: Readonly<Record<string, LensRow>>,
): readonly LensOnPaper[] {
  const given = handOvers.flatMap((c) => (c.current ? [c.current] : []));
  return EYES.flatMap((eye) => {
    const on = onEye[eye];
    const row = on?.lensId ? on : given.filter((h) => h.eye === eye).at(-1);
    const lens = row?.lensId ? lenses[row.lensId] : undefined;
    return lens && row ? [{ eye, lens, lot: row.lot ?? '' }] : [];
  });
}
