import type { Condition } from '../advice/conditions';
import { holds } from '../advice/evaluate';
import type { AdviceFacts } from '../advice/facts';
import { MEMORY, OWN, TRADE, type Source } from '../advice/source';
import type { Eye } from '../units';
import type { AFTERCARE_EYE_KEYS, AFTERCARE_PERSON_KEYS } from './keys';
import type { Trouble } from './asked';

/** What is done next about a trouble. */
export const NEXT_STEPS = [
  'otherSolution',
  'peroxideOrShorter',
  'askReuse',
  'otherMaterialOrDaily',
  'treatLids',
  'cleanOrNew',
  'turnOver',
  'changeSides',
  'checkLens',
  'changePower',
  'readTurn',
  'checkAdd',
  'prescriberLooks',
  'looser',
  'steeper',
  'newLens',
  'slideAndRinse',
  'fewerHours',
  'moreHours',
  'moreOxygen',
  'prescribeAsWorn',
  'dailyOrReminders',
  'stopSleeping',
  'noWater',
  'showCare',
  'glassesFirst',
] as const;
export type NextStep = (typeof NEXT_STEPS)[number];

/** A trouble, its likely cause, and what is done next. Words of cause and step are made where they are shown. */
export interface AftercareRule {
  readonly id: string;
  readonly version: number;
  /** All must hold; `eye` conditions look at one eye. */
  readonly when: readonly Condition[];
  readonly step: NextStep;
  readonly source: Source;
}

type EyeKey = keyof typeof AFTERCARE_EYE_KEYS;
const reports = (...anyOf: readonly Exclude<Trouble, 'none'>[]): Condition => ({ of: 'eye', key: 'trouble', anyOf });
const shows = (key: EyeKey, ...anyOf: readonly string[]): Condition => ({ of: 'eye', key, anyOf });
const said = (key: string, ...anyOf: readonly string[]): Condition => ({ of: 'person', key, anyOf });
const asked = (key: keyof typeof AFTERCARE_PERSON_KEYS, ...anyOf: readonly string[]): Condition => said(key, ...anyOf);
const REUSABLE = shows('modality', 'twoWeekly', 'monthly');
const DEPOSITS = shows('deposits', 'film', 'spots');
const LISTED = shows('pair', 'irritates', 'avoid');
const BLUR = reports('farBlur', 'nearBlur', 'clearsOnBlink', 'haze');
const rule = (id: string, step: NextStep, when: readonly Condition[], source: Source = TRADE): AftercareRule => ({ id, version: 1, when, step, source });

/**
 * Trouble, cause and next step. An order of its own: what is put right at the chair stands before what changes the lens.
 * @source common practice, where a rule names nothing else
 */
export const AFTERCARE_RULES: readonly AftercareRule[] = [
  rule('insideOut', 'turnOver', [shows('insideOut', 'yes')]),
  rule('swapped', 'changeSides', [shows('overPattern', 'swapped')]),
  rule('noLensThere', 'checkLens', [shows('overPattern', 'noLens')]),
  rule('wrongLens', 'checkLens', [shows('overPattern', 'looksLike', 'surprise', 'axisFar')]),
  rule('damaged', 'newLens', [shows('damage', 'nick', 'tear')]),
  rule('debrisUnder', 'slideAndRinse', [shows('debris', 'seen')]),
  rule('hazePair', 'otherSolution', [LISTED, { any: [reports('haze', 'sting', 'awareness', 'redEvening'), { of: 'eye', key: 'staining', atLeast: 0.5 }] }]),
  rule('pairToAvoid', 'otherSolution', [shows('pair', 'avoid')]),
  rule('depositsReusable', 'peroxideOrShorter', [DEPOSITS, REUSABLE]),
  rule('depositsSingleUse', 'askReuse', [DEPOSITS, shows('modality', 'daily')]),
  rule('blurFromSurface', 'cleanOrNew', [BLUR, DEPOSITS]),
  rule('blinkBlur', 'cleanOrNew', [reports('clearsOnBlink')]),
  rule('dryLateReusable', 'otherMaterialOrDaily', [reports('dryLate'), REUSABLE]),
  rule('dryLateDaily', 'treatLids', [reports('dryLate'), shows('modality', 'daily')]),
  rule('dryTears', 'treatLids', [reports('dryLate', 'dryAllDay'), { of: 'eye', key: 'breakUp', below: { setting: 'actsBreakUpS' } }]),
  rule('dryLids', 'treatLids', [reports('dryLate', 'dryAllDay', 'sting'), { of: 'eye', key: 'lidMargin', atLeast: { setting: 'actsLidMargin' } }]),
  rule('powerChanged', 'changePower', [shows('overPattern', 'none'), { of: 'eye', key: 'changeD', atLeast: 0.5 }], OWN),
  rule('turnCosts', 'readTurn', [shows('lensKind', 'toric', 'toricMultifocal'), shows('turn', 'turned', 'unsteady')]),
  rule('turnUnread', 'readTurn', [shows('lensKind', 'toric', 'toricMultifocal'), reports('farBlur', 'clearsOnBlink'), shows('turn', 'unread')]),
  rule('nearAtAge', 'checkAdd', [reports('nearBlur'), { of: 'person', key: 'age', atLeast: 40 }]),
  rule('sightShort', 'prescriberLooks', [{ of: 'eye', key: 'lossLines', atLeast: 2 }]),
  rule('fitTight', 'looser', [shows('fit', 'tight')]),
  rule('fitLoose', 'steeper', [shows('fit', 'loose')]),
  rule('movesOutLoose', 'steeper', [reports('movesOut'), shows('fit', 'loose', 'mixed')]),
  rule('oneEyeFeels', 'checkLens', [reports('awareness'), shows('onlyThisEye', 'yes')]),
  rule('lowComfort', 'slideAndRinse', [{ of: 'eye', key: 'comfort', below: 7 }, shows('fit', 'fits')]),
  rule('itchPapillae', 'treatLids', [reports('itch'), { of: 'eye', key: 'papillae', atLeast: 1 }]),
  rule('itchReusable', 'otherMaterialOrDaily', [reports('itch'), REUSABLE]),
  rule('stingSolution', 'otherSolution', [reports('sting'), REUSABLE]),
  rule('redByEvening', 'moreOxygen', [reports('redEvening'), { of: 'eye', key: 'limbalRedness', atLeast: 1 }]),
  rule('overwear', 'fewerHours', [
    { of: 'person', key: 'hoursPerDay', atLeast: { setting: 'longHours' } },
    {
      any: [
        { of: 'eye', key: 'vessels', atLeast: { setting: 'actsVesselsMm' } },
        { of: 'eye', key: 'limbalRedness', atLeast: { setting: 'actsLimbalRedness' } },
        { of: 'eye', key: 'oedema', atLeast: 0.5 },
      ],
    },
  ]),
  rule('oxygenShort', 'moreOxygen', [
    {
      any: [
        { of: 'eye', key: 'vessels', atLeast: { setting: 'actsVesselsMm' } },
        { of: 'eye', key: 'oedema', atLeast: 0.5 },
      ],
    },
  ]),
  rule('labelMissed', 'moreHours', [shows('label', 'missed')]),
  rule('stretched', 'prescribeAsWorn', [shows('modality', 'twoWeekly'), { of: 'eye', key: 'overdueDays', atLeast: 4 }]),
  rule('stretchedMonthly', 'dailyOrReminders', [shows('modality', 'monthly'), { of: 'eye', key: 'overdueDays', atLeast: 4 }]),
  rule('reused', 'prescribeAsWorn', [shows('modality', 'daily'), { of: 'eye', key: 'overdueDays', atLeast: 1 }]),
  rule('sleptUnapproved', 'stopSleeping', [shows('overnight', 'notPrescribed'), said('sleptIn', 'accident', 'someNights', 'mostNights')]),
  rule('waterOnLenses', 'noWater', [said('water', 'shower', 'swims', 'tap')]),
  rule('notDisinfected', 'showCare', [REUSABLE, asked('solutionUsed', 'saline', 'water')]),
  rule('unknownSolution', 'otherSolution', [REUSABLE, asked('solutionUsed', 'shopsOwn', 'notSure')]),
  rule('careLapsed', 'showCare', [
    asked('notSaidBack', 'cleanDryHands', 'rubAndRinse', 'freshSolution', 'noWater', 'neverSleep', 'replaceOnTime', 'dangerSigns'),
  ]),
  rule('noGlasses', 'glassesFirst', [asked('glasses', 'outOfDate', 'none')]),
  rule('stainSeen', 'prescriberLooks', [{ of: 'eye', key: 'staining', atLeast: { setting: 'actsCentralStaining' } }], MEMORY),
];

/** A rule that holds, for which eyes, and what bears it out. */
export interface Pointed {
  readonly rule: AftercareRule;
  /** Empty when it is about the wearer. */
  readonly eyes: readonly Eye[];
  readonly evidence: NonNullable<ReturnType<typeof holds>>['evidence'];
}

/** What the troubles and signs of an aftercare point to, in the order of the rules. */
export const pointsTo = (facts: AdviceFacts, rules: readonly AftercareRule[] = AFTERCARE_RULES): readonly Pointed[] =>
  rules.flatMap((r) => {
    const found = holds(r.when, facts);
    return found ? [{ rule: r, ...found }] : [];
  });

/** Names of what holds, as they are kept with a decision. @example pointedNames([]) → [] */
export const pointedNames = (pointed: readonly Pointed[]): readonly string[] =>
  pointed.flatMap((p) => (p.eyes.length === 0 ? [p.rule.id] : p.eyes.map((eye) => `${p.rule.id} ${eye}`)));

/** Troubles that nothing found so far explains: where to look first. */
export const unexplained = (facts: AdviceFacts, pointed: readonly Pointed[], eye: Eye): readonly string[] => {
  const troubles = facts.eyes[eye].trouble;
  const explained = pointed.flatMap((p) => p.evidence.filter((e) => e.key === 'trouble' && e.eye === eye).flatMap((e) => e.value));
  return Array.isArray(troubles) ? (troubles as readonly string[]).filter((t) => t !== 'none' && !explained.includes(t)) : [];
};
