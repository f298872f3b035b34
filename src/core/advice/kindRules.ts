import type { Modality } from '../lens/family';
import type { Condition } from './conditions';
import { OWN, TRADE, type Source } from './source';

export type Wear = 'day' | 'overnight';
export const MATERIAL_CLASSES = ['hydrogel', 'siliconeHydrogel'] as const;
export type MaterialClass = (typeof MATERIAL_CLASSES)[number];
/** What a rule speaks for (plus) or against (minus). */
export type Target = Modality | 'overnight' | MaterialClass;

/** One reason for or against kinds of lens. Points are the weights by which reasons are ordered and kinds compared. */
export interface KindRule {
  readonly id: string;
  readonly version: number;
  /** All must hold; none: it always weighs. */
  readonly when: readonly Condition[];
  readonly weigh: Readonly<Partial<Record<Target, number>>>;
  /** What it speaks for stands before every kind that only habit or money speaks for. */
  readonly safety?: true;
  readonly source: Source;
}

const said = (key: string, ...anyOf: readonly string[]): Condition => ({ of: 'person', key, anyOf });
const atLeast = (key: string, n: number): Condition => ({ of: 'person', key, atLeast: n });
const below = (key: string, n: number): Condition => ({ of: 'person', key, below: n });
const rule = (id: string, when: readonly Condition[], weigh: KindRule['weigh'], source: Source = TRADE): KindRule => ({ id, version: 1, when, weigh, source });
const safe = (...all: Parameters<typeof rule>): KindRule => ({ ...rule(...all), safety: true });

export const KIND_RULES: readonly KindRule[] = [
  safe('young', [below('age', 18)], { daily: 4 }),
  rule('student', [said('work', 'study')], { daily: 2 }),
  safe('careLapses', [said('hygieneCare', 'lapses', 'poor', 'abuse')], { daily: 3, twoWeekly: -1, monthly: -1 }),
  rule('solution', [said('allergy', 'solution')], { daily: 3, twoWeekly: -2, monthly: -2 }),
  rule('allergy', [said('allergy', 'season', 'eyes')], { daily: 2 }),
  rule('deposits', [said('whyChange', 'deposits')], { daily: 3, twoWeekly: -1, monthly: -2, hydrogel: 2 }),
  rule('dryness', [{ any: [said('dryness', 'evening', 'mostOfDay', 'severe'), said('whyChange', 'dryness')] }], { daily: 2, monthly: -1 }),
  rule('dryingMedicine', [said('medicineGroups', 'anticholinergic', 'antihistamine', 'antipsychotic', 'retinoid')], { daily: 1, monthly: -1 }),
  rule('tears', [{ of: 'eye', key: 'breakUp', below: { setting: 'actsBreakUpS' } }], { daily: 1, monthly: -1 }),
  rule('papillae', [{ of: 'eye', key: 'papillae', atLeast: 1.5 }], { daily: 2, monthly: -1 }, OWN),
  rule('active', [{ any: [said('goals', 'sport'), said('freeTime', 'sport')] }], { daily: 1 }),
  safe('outdoors', [{ any: [said('goals', 'outdoors'), said('freeTime', 'outdoors'), said('work', 'outdoors')] }], { daily: 1 }),
  safe('dust', [{ any: [said('work', 'dust', 'fumes'), said('freeTime', 'dust')] }], { daily: 2, twoWeekly: -1, monthly: -1 }),
  safe('water', [{ any: [said('freeTime', 'swimming'), said('work', 'water'), said('water', 'shower', 'swims', 'tap')] }], { daily: 2 }),
  safe('onlyGoodEye', [said('eyeHistory', 'onlyGoodEye')], { daily: 3 }),
  rule('tintingMedicine', [said('medicineGroups', 'tintsLens')], { daily: 2 }),
  rule('makeUp', [said('freeTime', 'makeUp')], { daily: 1 }),
  rule('fewDays', [below('daysPerWeek', 5)], { daily: 3, twoWeekly: -1, monthly: -1 }),
  rule('everyDay', [atLeast('daysPerWeek', 6), said('hygieneCare', 'good')], { twoWeekly: 1, monthly: 2 }),
  rule('careful', [said('budget', 'careful')], { twoWeekly: 1, monthly: 1 }),
  rule('tight', [said('budget', 'tight')], { daily: -2, twoWeekly: 1, monthly: 2 }),
  rule('stretchedToMonth', [said('whichLens', 'twoWeekly'), atLeast('replacedEvery', 18), below('replacedEvery', 36)], { twoWeekly: -4, monthly: 4 }),
  rule('stretchedFar', [said('whichLens', 'twoWeekly', 'monthly'), atLeast('replacedEvery', 36)], { daily: 4, twoWeekly: -3, monthly: -2 }),
  rule('keepsFortnight', [said('whichLens', 'twoWeekly'), atLeast('replacedEvery', 10), below('replacedEvery', 18)], { twoWeekly: 3 }),
  rule('keepsMonth', [said('whichLens', 'monthly'), atLeast('replacedEvery', 18), below('replacedEvery', 36)], { monthly: 2 }),
  rule('strongSphere', [atLeast('strongestSphere', 6.25)], { monthly: 2, siliconeHydrogel: 1 }),
  rule('strongCylinder', [atLeast('strongestCylinder', 2.25)], { monthly: 2 }),
  rule('nightRisk', [], { overnight: -2 }, { mark: 'P', text: 'Stapleton 2008, from memory' }),
  rule('calledAtNight', [said('nights', 'onCall', 'fallsAsleep')], { overnight: 5 }),
  rule('shifts', [said('nights', 'shifts')], { overnight: 1 }),
  rule('oxygen', [], { siliconeHydrogel: 1 }),
  rule('longHours', [{ of: 'person', key: 'hoursPerDay', atLeast: { setting: 'longHours' } }], { siliconeHydrogel: 2 }),
  rule('vessels', [{ of: 'eye', key: 'vessels', atLeast: 0.5 }], { siliconeHydrogel: 3 }),
  rule('oedema', [{ of: 'eye', key: 'oedema', atLeast: 0.5 }], { siliconeHydrogel: 3 }),
  rule('siliconeFailed', [said('whyChange', 'siliconeFailed')], { hydrogel: 3 }),
];

/** Why anybody should sleep in lenses at all; without one of these it is not offered. */
export const NIGHT_REASON: Condition = said('nights', 'shifts', 'onCall', 'fallsAsleep');

/** What bars sleeping in lenses even with a reason: the cornea, the care or the promise is not good enough. */
export const NIGHT_BARS: readonly { readonly id: string; readonly when: readonly Condition[]; readonly source: Source }[] = [
  { id: 'youngNight', when: [below('age', 18)], source: TRADE },
  { id: 'stainingNight', when: [{ of: 'eye', key: 'staining', atLeast: 1 }], source: OWN },
  { id: 'infiltratesNight', when: [{ of: 'eye', key: 'infiltrates', atLeast: 0.5 }], source: TRADE },
  { id: 'vesselsNight', when: [{ of: 'eye', key: 'vessels', atLeast: 0.5 }], source: TRADE },
  { id: 'lidsNight', when: [{ of: 'eye', key: 'lidMargin', atLeast: { setting: 'actsLidMargin' } }], source: OWN },
  {
    id: 'infectionNight',
    when: [{ any: [said('eyeHistory', 'infection', 'erosion', 'sensation', 'graft', 'onlyGoodEye'), said('whyChange', 'infection')] }],
    source: TRADE,
  },
  { id: 'healthNight', when: [{ any: [said('health', 'immunity', 'diabetes'), said('medicineGroups', 'immunity')] }], source: OWN },
  { id: 'smokingNight', when: [said('smoking', 'yes')], source: { mark: 'P', text: 'risk factors of microbial keratitis, from memory' } },
  { id: 'oedemaNight', when: [{ of: 'eye', key: 'oedema', atLeast: 0.5 }], source: TRADE },
  { id: 'limbusNight', when: [{ of: 'eye', key: 'limbalRedness', atLeast: { setting: 'actsLimbalRedness' } }], source: OWN },
  { id: 'drynessNight', when: [said('dryness', 'mostOfDay', 'severe')], source: OWN },
  {
    id: 'careNight',
    when: [{ any: [said('hygieneCare', 'lapses', 'poor', 'abuse'), said('hygieneHands', 'poor'), said('water', 'swims', 'tap')] }],
    source: TRADE,
  },
  { id: 'returnsNight', when: [said('returns', 'unsure', 'no')], source: TRADE },
];

/** The cornea must have been looked at before anybody may sleep in a lens. */
export const NIGHT_NEEDS = ['staining', 'infiltrates', 'vessels'] as const;
