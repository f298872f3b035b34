import type { RecordedAnswer } from '../advice/healthState';
import { addDays } from '../calendar/dates';
import type { CarePair } from '../care/carePair';
import type { CareProduct } from '../care/careSystem';
import { carePrescribed } from '../care/inUse';
import { careFindings } from '../care/verdict';
import { LIFE_DAYS, type Modality } from '../lens/family';
import type { PracticeSettings } from '../practiceSettings';
import type { FactChain } from '../record/chains';
import type { LensRow } from '../record/lens';
import type { LessonRow } from '../record/lesson';
import { instructionsOf } from '../record/lessonInstruction';
import type { CareSystemFact, HandOverFact, LessonInstructionFact, TopicFact } from '../record/visitFacts';
import { lastWearDay } from '../supply/runOut';
import { careTopicsFor, type CareTopic } from '../teaching/careTopics';
import { lessonProgress } from '../teaching/lessonProgress';
import { labelOfLens, type WearLabel } from '../teaching/wearLabel';
import { EYES, type Eye, type IsoDate, type IsoInstant } from '../units';
import { buildUp, type BuildUpDay } from './buildUp';
import { careChanges, homeProduct, homeSteps, type HomeChange, type HomeProduct, type HomeStep } from './homeCare';
import { homeLines, type HomeLine } from './homeLines';

/** The lens of an eye as it goes home; powers in D, axis in degrees, curve and diameter in mm. */
export interface HomeLens {
  readonly lensId: string;
  readonly familyName: string;
  readonly sphereD: number;
  readonly cylinderD: number;
  readonly axisDeg: number;
  readonly baseCurveMm: number | null;
  readonly diameterMm: number | null;
  readonly modality: Modality;
}

/** The page to take home as data: figures and codes, no words of any language. */
export interface TakeHomePage {
  readonly wearer: { readonly name: string; readonly birthDate: IsoDate; readonly recordNumber: number };
  readonly practice: { readonly name: string; readonly address: string; readonly telephone: string; readonly timeZone: string };
  /** Answered day and night. */
  readonly emergencyTelephone: string;
  readonly handedOn: IsoDate;
  readonly lenses: Readonly<Record<Eye, HomeLens | null>>;
  readonly overnight: boolean;
  /** Null: single-use lenses, no solution. */
  readonly product: HomeProduct | null;
  readonly steps: readonly HomeStep[];
  /** By the label of lenses that slow a child's myopia; null for any other. */
  readonly label: WearLabel | null;
  /** Days on which the hours are built up; none for somebody who wears lenses already. */
  readonly hours: readonly BuildUpDay[];
  readonly changes: readonly HomeChange[];
  readonly check: { readonly startsAt: IsoInstant; readonly minutes: number } | null;
  readonly lines: Readonly<Record<'do' | 'dont', readonly HomeLine[]>>;
  /** Topics of these lenses; those that were said back here, and the others. */
  readonly saidBack: readonly CareTopic[];
  readonly notSaidBack: readonly CareTopic[];
  /** When the last lesson was signed off, and of whom; null: there was none here. */
  readonly signedOff: { readonly day: IsoDate; readonly handler: string | null } | null;
  /** What the prescriber added, in their own words. */
  readonly additions: readonly string[];
  /** Drawings: the working hand, the wash of skin. */
  readonly drawn: { readonly hand: Eye; readonly skinTone: number };
}

/** How a page is given. */
export const TAKE_HOME_WAYS = ['paper', 'file', 'link'] as const;
export type TakeHomeWay = (typeof TAKE_HOME_WAYS)[number];

/**
 * An address that wearers' telephones trust: https, or this machine itself while it is tried out. Without a path or a mark behind it.
 * @returns null where it is none
 * @example publicAddressOf('https://lenses.example/ ') → 'https://lenses.example'
 * @example publicAddressOf('http://lenses.example') → null
 */
export function publicAddressOf(typed: string): string | null {
  const found = /^(https:\/\/[^\s/?#@]+|http:\/\/(?:127\.0\.0\.1|localhost)(?::\d{1,5})?)\/?$/i.exec(typed.trim());
  return found?.[1]?.toLowerCase() ?? null;
}

/** What the page cannot be without. */
export type HomeMissing = 'emergencyTelephone' | 'handOver' | 'careSystem' | 'careFigures' | 'careStopped';

export interface TakeHomeParts {
  readonly visitId: string;
  readonly wearer: TakeHomePage['wearer'];
  readonly practice: TakeHomePage['practice'] & { readonly emergencyTelephone: string | null };
  readonly settings: Pick<PracticeSettings, 'makeUp' | 'caseMonths' | 'buildUpTo'>;
  readonly handOvers: readonly FactChain<HandOverFact>[];
  readonly lenses: Readonly<Record<string, LensRow>>;
  readonly careSystems: readonly FactChain<CareSystemFact>[];
  readonly careProducts: readonly CareProduct[];
  /** Materials of families, by code; and what is known of solutions with them. */
  readonly materials: readonly { readonly code: string; readonly material: string }[];
  readonly carePairs: readonly CarePair[];
  readonly lessons: readonly LessonRow[];
  readonly topics: readonly FactChain<TopicFact>[];
  readonly answers: readonly Pick<RecordedAnswer, 'question' | 'value'>[];
  readonly wear: 'day' | 'overnight' | null;
  readonly lessonInstructions: readonly FactChain<LessonInstructionFact>[];
  readonly coming: TakeHomePage['check'];
  readonly drawn: TakeHomePage['drawn'];
  /** The practice's day of a moment. */
  readonly dayOf: (at: IsoInstant) => IsoDate;
}

const given = (chains: readonly FactChain<HandOverFact>[]): readonly HandOverFact[] => chains.flatMap((c) => (c.current ? [c.current] : []));

/** The hand-over of each eye that the page is of: of this visit, and for a fellow eye that got nothing in it, the newest before. */
function handed(parts: TakeHomeParts): Readonly<Record<Eye, HandOverFact | null>> {
  const all = given(parts.handOvers);
  const here = all.filter((h) => h.visitId === parts.visitId);
  const of = (eye: Eye): HandOverFact | null =>
    here.findLast((h) => h.eye === eye) ??
    (here.length > 0
      ? all
          .filter((h) => h.eye === eye)
          .toSorted((a, b) => a.handedOn.localeCompare(b.handedOn))
          .at(-1)
      : null) ??
    null;
  return { right: of('right'), left: of('left') };
}

const homeLens = (lens: LensRow): HomeLens => {
  const { id, familyName, sphereD, cylinderD, axisDeg, baseCurveMm, diameterMm, modality } = lens;
  return { lensId: id, familyName, sphereD, cylinderD, axisDeg, baseCurveMm, diameterMm, modality };
};

/** The product to keep the lenses with, or what is wrong with it; `product` null: none is needed. */
function productOf(parts: TakeHomeParts, kept: readonly LensRow[]): { readonly product: HomeProduct | null; readonly missing: readonly HomeMissing[] } {
  if (kept.length === 0) return { product: null, missing: [] };
  const prescribed = carePrescribed(parts.careSystems);
  const now = parts.careProducts.find((p) => p.productId === prescribed?.productId);
  if (!prescribed || !now) return { product: null, missing: ['careSystem'] };
  // What came up since it was prescribed, such as that it is no longer sold, asks a prescriber first.
  const materials = kept.flatMap((l) => parts.materials.find((m) => m.code === l.familyCode)?.material ?? []);
  const stopped = careFindings(now, materials, parts.carePairs).some(
    (f) => f.gravity !== 'watch' && f.fault !== 'figuresUnknown' && !prescribed.overridden.includes(f.fault),
  );
  if (stopped) return { product: null, missing: ['careStopped'] };
  const product = homeProduct(now);
  return { product, missing: product === null ? ['careFigures'] : [] };
}

/** Is the product new to the wearer with this visit? Only then its opening is known. */
const begunHere = (parts: TakeHomeParts): boolean => carePrescribed(parts.careSystems)?.visitId === parts.visitId;

/** When reusable lenses are replaced: as a pair, or each eye by itself where they differ. */
function lensChanges(hand: Readonly<Record<Eye, HandOverFact | null>>, lenses: TakeHomePage['lenses']): readonly HomeChange[] {
  const each = EYES.flatMap((eye) => {
    const lens = lenses[eye];
    if (!lens || lens.modality === 'daily') return [];
    const openedOn = hand[eye]?.openedOn ?? null;
    const lastDay = openedOn === null ? null : lastWearDay(openedOn, lens.modality);
    return [{ what: eye, openedOn, lastDay, days: LIFE_DAYS[lens.modality], months: null }];
  });
  const [first, second] = each;
  if (first && second && first.days === second.days && first.openedOn === second.openedOn) return [{ ...first, what: 'pair' }];
  return each;
}

/** Topics that a lesson's sign-off stands for: all that it asked, but for what a prescriber let pass. */
function signedTopics(lesson: LessonRow, of: { readonly longNails: boolean; readonly labelled: boolean }, products: readonly CareProduct[]): readonly string[] {
  if (lesson.signedAt === null) return [];
  const system = products.find((p) => p.productId === lesson.productId)?.system ?? null;
  const asked = lesson.onlyTopics ?? careTopicsFor({ singleUse: lesson.singleUse, overnight: lesson.overnight ?? false, ...of, system });
  return asked.filter((topic) => !(lesson.overridden ?? []).includes(`topic ${topic}`));
}

/**
 * The page that a wearer takes home from a visit: what goes home, how it is kept, what was taught and said back, and when what is due.
 * @returns the page; or what it cannot be without, in the order in which it is asked for
 * @source what must be on it: common practice; hazard 1 of the safety log
 */
export function takeHomePage(
  parts: TakeHomeParts,
): { readonly ok: true; readonly page: TakeHomePage } | { readonly ok: false; readonly missing: readonly HomeMissing[] } {
  const number = parts.practice.emergencyTelephone?.trim() ?? '';
  const hand = handed(parts);
  const rows = EYES.flatMap((eye) => hand[eye] ?? []);
  const lensOf = (eye: Eye): HomeLens | null => {
    const lens = parts.lenses[hand[eye]?.lensId ?? ''];
    return lens ? homeLens(lens) : null;
  };
  const lenses = { right: lensOf('right'), left: lensOf('left') };
  const known = EYES.flatMap((eye) => lenses[eye] ?? []);
  const singleUse = known.length > 0 && known.every((l) => l.modality === 'daily');
  const { product, missing } = productOf(
    parts,
    rows.flatMap((h) => parts.lenses[h.lensId] ?? []).filter((l) => l.modality !== 'daily'),
  );
  const without: readonly HomeMissing[] = [
    ...(number === '' ? (['emergencyTelephone'] as const) : []),
    ...(known.length === 0 ? (['handOver'] as const) : []),
    ...missing,
  ];
  if (without.length > 0) return { ok: false, missing: without };
  const handedOn =
    rows
      .map((h) => h.handedOn)
      .toSorted()
      .at(-1) ?? '';
  const { overnight, longNails } = lessonProgress(parts.wear, parts.answers);
  const label = EYES.flatMap((eye) => labelOfLens(parts.lenses[hand[eye]?.lensId ?? '']) ?? [])[0] ?? null;
  const topics = careTopicsFor({ singleUse, overnight, longNails, labelled: label !== null, system: product?.system ?? null });
  const said = new Set([
    ...parts.topics.flatMap((c) => (c.current ? [c.current.topic] : [])),
    ...parts.lessons.flatMap((l) => signedTopics(l, { longNails, labelled: label !== null }, parts.careProducts)),
  ]);
  const signed = parts.lessons.findLast((l) => l.signedAt !== null);
  const firstLesson = parts.lessons.filter((l) => l.signedAt !== null && l.eyes.length > 0);
  // Hours are built up by whoever was taught to handle lenses for the first time, here.
  const begins = firstLesson.length === 1 && firstLesson[0]?.visitId === parts.visitId;
  const opened =
    rows
      .filter((h) => h.visitId === parts.visitId)
      .map((h) => h.openedOn ?? addDays(h.handedOn, 1))
      .toSorted()[0] ?? handedOn;
  const { name, address, telephone, timeZone } = parts.practice;
  return {
    ok: true,
    page: {
      wearer: parts.wearer,
      practice: { name, address, telephone, timeZone },
      emergencyTelephone: number,
      ...{ handedOn, lenses, overnight, product },
      steps: homeSteps(product),
      label,
      // A label that asks for more is built up to.
      hours: begins ? buildUp(opened, Math.max(parts.settings.buildUpTo, label?.hours ?? 0)) : [],
      changes: [
        ...lensChanges(hand, lenses),
        ...(product ? careChanges(product, begunHere(parts) ? handedOn : null, parts.settings.caseMonths === 'one' ? 1 : 3) : []),
      ],
      check: parts.coming,
      lines: homeLines({ topics, singleUse, settings: parts.settings }),
      saidBack: topics.filter((topic) => said.has(topic)),
      notSaidBack: topics.filter((topic) => !said.has(topic)),
      signedOff: signed?.signedAt ? { day: parts.dayOf(signed.signedAt), handler: signed.handler } : null,
      additions: instructionsOf(parts.lessonInstructions, 'addition').map((i) => i.text),
      drawn: parts.drawn,
    },
  };
}
