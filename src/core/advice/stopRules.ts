import type { Condition } from './conditions';
import type { DerivedSign, SignId } from './signs';
import { MEMORY, OWN, TRADE, type Source } from './source';

/**
 * How strongly a rule holds. `absolute`: no lens, nobody passes it. `stop` and `treatFirst`: a prescriber may pass
 * with a written reason. `caution`: said and printed. `overwear`: evidence of earlier overwear, steers the lens.
 */
export type Strength = 'absolute' | 'stop' | 'treatFirst' | 'overwear' | 'caution';

export interface StopRule {
  readonly id: string;
  readonly version: number;
  readonly strength: Strength;
  /** All must hold. */
  readonly when: readonly Condition[];
  readonly source: Source;
}

const said = (key: string, ...anyOf: readonly string[]): Condition => ({ of: 'person', key, anyOf });
const seen = (key: Extract<Condition, { of: 'eye'; anyOf: unknown }>['key'], ...anyOf: readonly string[]): Condition => ({ of: 'eye', key, anyOf });
const from = (key: SignId | DerivedSign, atLeast: Extract<Condition, { atLeast: unknown }>['atLeast']): Condition => ({
  of: 'eye',
  key,
  atLeast,
});
const rule = (strength: Strength, id: string, when: readonly Condition[], source: Source = TRADE): StopRule => ({ id, version: 1, strength, when, source });
const RED: Condition = from('bulbarRedness', { setting: 'actsBulbarRedness' });
const CENTRAL_STAIN: Condition = { all: [from('staining', { setting: 'actsCentralStaining' }), seen('stainingPlace', 'central', 'diffuse')] };

export const STOP_RULES: readonly StopRule[] = [
  rule('absolute', 'suspectedInfection', [seen('suspected', 'cornealInfection')]),
  rule('absolute', 'externalInfection', [{ any: [seen('suspected', 'externalInfection'), seen('discharge', 'sticky')] }]),
  rule('absolute', 'infiltrateWithSymptoms', [
    from('infiltrates', 0.5),
    { any: [from('pain', 1), seen('light', 'hurts'), seen('discharge', 'watering', 'sticky'), CENTRAL_STAIN, RED] },
  ]),
  rule('absolute', 'deepStaining', [seen('stainingDepth', 'deep'), from('staining', 0.5)], OWN),
  rule('absolute', 'redPainful', [RED, { any: [from('pain', { setting: 'painActs' }), seen('light', 'hurts')] }]),
  rule('absolute', 'chamberActive', [seen('chamber', 'cells')]),
  rule('absolute', 'chamberCells', [from('cells', 0.5)]),
  rule('absolute', 'dendrite', [seen('dendrite', 'seen')]),
  rule('absolute', 'ringInfiltrate', [seen('ring', 'seen')]),
  rule('absolute', 'painBeyondSigns', [seen('painBeyond', 'yes')]),
  rule('absolute', 'cornealUlcer', [seen('lesion', 'ulcer')]),
  rule('absolute', 'infiltrateDrawn', [
    seen('lesion', 'infiltrate', 'ulcer'),
    { any: [from('pain', 1), seen('light', 'hurts'), seen('discharge', 'watering', 'sticky'), RED] },
  ]),
  rule('absolute', 'hydrops', [seen('hydrops', 'seen')]),
  rule('absolute', 'graftInDanger', [seen('graftSigns', 'rejection', 'looseSuture')]),
  rule('absolute', 'myopicShift', [said('medicineGroups', 'topiramate', 'sulfonamideDiuretic'), { of: 'person', key: 'myopicShift', atLeast: 1 }], MEMORY),
  rule('absolute', 'pressureSigns', [said('medicineGroups', 'tetracycline', 'retinoid'), said('headache', 'headache', 'dimming')], MEMORY),
  rule('absolute', 'heardRedPainful', [said('danger', 'redness'), said('danger', 'pain', 'light')]),

  // An eye that hurts and looks quiet is not a quiet eye: nothing until a prescriber has graded this cornea with stain.
  rule('stop', 'hurtsUnseen', [
    { any: [from('pain', { setting: 'painActs' }), seen('light', 'hurts'), seen('sightLoss', 'sudden')] },
    seen('corneaSeen', 'no'),
  ]),

  rule('stop', 'lensesOff', [seen('lensesOff', 'yes')]),
  rule('stop', 'onlyGoodEye', [said('eyeHistory', 'onlyGoodEye')]),
  rule('stop', 'earlierInfection', [said('eyeHistory', 'infection')]),
  rule('stop', 'infectionEnded', [said('whyChange', 'infection')]),
  rule('stop', 'erosion', [said('eyeHistory', 'erosion')]),
  rule('stop', 'sensation', [said('eyeHistory', 'sensation')]),
  rule('stop', 'surgery', [said('eyeHistory', 'surgery')]),
  rule('stop', 'trauma', [said('eyeHistory', 'trauma')]),
  rule('stop', 'graft', [said('eyeHistory', 'graft')]),
  rule('stop', 'coneSteepens', [from('kSteeper', 1)], MEMORY),
  rule('stop', 'endothelium', [from('endothelium', 3)], OWN),
  rule('stop', 'denseScars', [from('scars', 3)], OWN),
  rule('stop', 'immunity', [{ any: [said('health', 'immunity'), said('medicineGroups', 'immunity')] }]),
  rule('stop', 'severeDryness', [said('dryness', 'severe')]),
  rule('stop', 'poorHygiene', [{ any: [said('hygieneHands', 'poor'), said('hygieneCare', 'poor')] }]),
  rule('stop', 'abuse', [said('hygieneCare', 'abuse')]),
  rule('stop', 'noAftercare', [said('returns', 'no')]),
  rule('stop', 'dust', [{ of: 'setting', key: 'dust', anyOf: ['stop'] }, said('work', 'dust', 'fumes')]),
  rule('stop', 'minorWithoutGuardian', [{ of: 'person', key: 'age', below: 18 }, { any: [said('guardian', 'notYet'), said('guardianNamed', 'no')] }]),
  rule('stop', 'infiltrate', [{ any: [from('infiltrates', 0.5), seen('lesion', 'infiltrate', 'ulcer')] }]),

  rule('treatFirst', 'lidMargin', [from('lidMargin', { setting: 'actsLidMargin' })]),
  rule('treatFirst', 'lashes', [from('lashes', 3)], OWN),
  rule('treatFirst', 'redness', [RED]),
  rule('treatFirst', 'limbalRedness', [from('limbalRedness', { setting: 'actsLimbalRedness' })]),
  rule('treatFirst', 'papillae', [from('papillae', { setting: 'actsPapillae' })]),
  rule('treatFirst', 'staining', [{ any: [from('staining', { setting: 'actsStaining' }), CENTRAL_STAIN] }]),

  rule('overwear', 'vessels', [from('vessels', { setting: 'actsVesselsMm' })]),
  rule('overwear', 'scars', [from('scars', 0.5)]),
  rule('overwear', 'oldInfiltrate', [from('infiltrates', 0.5), { of: 'person', key: 'hoursPerDay', atLeast: { setting: 'longHours' } }]),

  rule('caution', 'danger', [said('danger', 'redness', 'pain', 'light', 'vision', 'discharge', 'something')]),
  rule(
    'caution',
    'gradeRose',
    [
      {
        any: (['lidMargin', 'lashes', 'bulbarRedness', 'limbalRedness', 'papillae', 'staining', 'infiltrates', 'scars', 'oedema', 'endothelium'] as const).map(
          (key) => ({
            of: 'eye' as const,
            key,
            rose: { setting: 'actsChange' as const },
          }),
        ),
      },
    ],
    OWN,
  ),
  rule('caution', 'breakUp', [{ of: 'eye', key: 'breakUp', below: { setting: 'actsBreakUpS' } }]),
  rule('caution', 'lowAperture', [{ of: 'eye', key: 'lidAperture', below: { setting: 'lowApertureMm' } }], OWN),
  rule('caution', 'medicineDries', [said('medicineGroups', 'anticholinergic', 'antihistamine', 'antipsychotic', 'retinoid')]),
  rule('caution', 'medicineMayDry', [said('medicineGroups', 'antidepressant', 'diuretic', 'sulfonamideDiuretic', 'betaBlocker', 'oestrogen', 'decongestant')]),
  rule('caution', 'tetracycline', [said('medicineGroups', 'tetracycline')]),
  rule('caution', 'dupilumab', [said('medicineGroups', 'dupilumab')], MEMORY),
  rule('caution', 'medicineNoted', [said('medicineGroups', 'noted')], MEMORY),
  rule('caution', 'shiftMedicine', [said('medicineGroups', 'topiramate', 'sulfonamideDiuretic')], MEMORY),
  rule('caution', 'drynessDrops', [said('medicineGroups', 'drynessDrops')]),
  rule('caution', 'skin', [said('skin', 'rosacea', 'eczema')]),
  rule('caution', 'thyroid', [said('health', 'thyroid')]),
  rule('caution', 'dryMouth', [said('health', 'dryMouth')]),
  rule('caution', 'smoking', [said('smoking', 'yes')]),
  rule('caution', 'irregularCornea', [seen('cornea', 'prolate', 'oblate')]),
  rule('caution', 'irregularScar', [seen('cornea', 'prolate', 'oblate'), { of: 'eye', key: 'scars', rose: 0.5 }], MEMORY),
  rule('caution', 'rubsEyes', [said('eyeHistory', 'rubs')]),
  rule('caution', 'rigidWorn', [said('whichLens', 'rigid')]),
  rule('caution', 'hybridWorn', [said('whichLens', 'hybrid')]),
  rule('caution', 'scleralWorn', [said('whichLens', 'scleral')]),
  rule('caution', 'oedema', [from('oedema', 0.5)]),
  rule('caution', 'medicineTints', [said('medicineGroups', 'tintsLens')]),
  rule('caution', 'rednessDrops', [said('drops', 'redness')]),
  rule('caution', 'wettingDrops', [said('drops', 'comfort')]),
  rule('caution', 'otherDrops', [said('drops', 'pressure', 'other')]),
  rule('caution', 'longNails', [said('hygieneHands', 'longNails')]),
  rule('caution', 'hygieneLapses', [said('hygieneCare', 'lapses')]),
  rule('caution', 'pregnancy', [said('health', 'pregnancy')]),
  rule('caution', 'diabetes', [said('health', 'diabetes')]),
  rule('caution', 'illToday', [said('health', 'illToday')]),
  rule('caution', 'handsHelp', [{ any: [said('health', 'hands'), said('handler', 'helped', 'other')] }]),
  rule('caution', 'dryness', [said('dryness', 'evening', 'mostOfDay')]),
  rule('caution', 'allergy', [said('allergy', 'season', 'eyes', 'solution')]),
  rule('caution', 'dustProtected', [{ of: 'setting', key: 'dust', anyOf: ['protect'] }, said('work', 'dust', 'fumes')]),
  rule('caution', 'dustAtHome', [said('freeTime', 'dust')]),
  rule('caution', 'sleptIn', [said('sleptIn', 'accident', 'someNights', 'mostNights')]),
  rule('caution', 'sleptInDailies', [said('whichLens', 'daily'), said('sleptIn', 'someNights', 'mostNights')]),
  rule('caution', 'dailiesReused', [said('whichLens', 'daily'), { of: 'person', key: 'replacedEvery', atLeast: 2 }]),
  rule('caution', 'water', [said('water', 'shower', 'swims', 'tap')]),
  rule('caution', 'swims', [{ any: [said('freeTime', 'swimming'), said('work', 'water')] }]),
  rule('caution', 'longDays', [{ of: 'person', key: 'hoursPerDay', atLeast: { setting: 'longHours' } }]),
  rule('caution', 'dropOut', [said('lastWorn', 'months', 'longer'), said('whyChange', 'comfort', 'dryness', 'vision', 'handling', 'deposits')]),
  rule('caution', 'returnsUnsure', [said('returns', 'unsure')]),
];

/** The rules a case of which ends lens wear today, until a prescriber passes it. */
export const OVERRIDABLE: readonly Strength[] = ['stop', 'treatFirst'];
export const stopRule = (id: string): StopRule | undefined => STOP_RULES.find((r) => r.id === id);
