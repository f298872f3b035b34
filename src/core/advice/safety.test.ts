import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEMO_FAMILIES, wholeFamily } from '../../../demo/families';
import {
  adviceFacts,
  careTopicsFor,
  DEFAULT_SETTINGS,
  dktAt,
  endingsOf,
  evidenceKeyOf,
  firedRules,
  medicineGroup,
  missingLook,
  onOffer,
  recommend,
  restsOnWords,
  lessonProgress,
  type Answers,
  type AnswerValue,
  type Evidence,
  type Eye,
  type Findings,
  type OnOffer,
  type QuestionId,
} from '../index';

type Both = Readonly<Record<Eye, Findings>>;
const NOTHING: Both = { right: {}, left: {} };
const answers = (all: Readonly<Partial<Record<QuestionId, AnswerValue>>>): Answers =>
  Object.fromEntries(Object.entries(all).map(([q, value]) => [q, { value, note: null }]));
const facts = (said: Answers, more: { age?: number; eyes?: Both; baseline?: Both; lowest?: Both; settings?: Partial<typeof DEFAULT_SETTINGS> } = {}) =>
  adviceFacts({
    answers: said,
    age: 30,
    guardianNamed: true,
    eyes: NOTHING,
    baseline: NOTHING,
    power: null,
    ...more,
    settings: { ...DEFAULT_SETTINGS, ...more.settings },
  });
const LIBRARY = onOffer(
  DEMO_FAMILIES.map((f) => wholeFamily(f, f.code)),
  '2026-11-24',
);
const fired = (...all: Parameters<typeof facts>) => firedRules(facts(...all)).map((f) => `${f.rule.strength}:${f.rule.id}`);
const one = (eyes: Findings): Both => ({ right: eyes, left: {} });

describe('an eye that hurts and looks quiet (common practice)', () => {
  it.each<[string, Findings]>([
    ['pain at the practice’s own limit', { pain: DEFAULT_SETTINGS.painActs }],
    ['light that hurts', { light: 'hurts' }],
    ['sight suddenly lost', { sightLoss: 'sudden' }],
  ])('%s', (_name, seen) => {
    expect(fired({}, { eyes: one({ ...seen, corneaSeen: 'no' }) })).toContain('stop:hurtsUnseen');
    expect(fired({}, { eyes: one({ ...seen, corneaSeen: 'yes' }) })).not.toContain('stop:hurtsUnseen');
  });
  it('the limit is the practice’s own, and a quiet eye without pain asks nothing', () => {
    const eyes = one({ pain: 4, corneaSeen: 'no' });
    expect(fired({}, { eyes, settings: { painActs: 5 } })).not.toContain('stop:hurtsUnseen');
    expect(fired({}, { eyes, settings: { painActs: 4 } })).toContain('stop:hurtsUnseen');
    expect(fired({}, { eyes: one({ pain: 0, corneaSeen: 'no' }) })).toEqual([]);
  });
});

describe('each of these says something (common practice)', () => {
  it.each<[string, Answers, Findings, string]>([
    ['endothelium 3', {}, { endothelium: 3 }, 'stop:endothelium'],
    ['dense scars', {}, { scars: 3 }, 'stop:denseScars'],
    ['lashes 3', {}, { lashes: 3 }, 'treatFirst:lashes'],
    ['cells in the chamber', {}, { chamber: 'cells' }, 'absolute:chamberActive'],
    ['fluid in the cornea of a cone', {}, { hydrops: 'seen' }, 'absolute:hydrops'],
    ['a graft rejecting', {}, { graftSigns: 'rejection' }, 'absolute:graftInDanger'],
    ['a cone: thick lenses, vessels every visit', {}, { cornea: 'prolate' }, 'caution:irregularCornea'],
    ['the steepest K a dioptre steeper', {}, { kSteeper: 1 }, 'stop:coneSteepens'],
    ['rubs the eyes', answers({ eyeHistory: ['rubs'] }), {}, 'caution:rubsEyes'],
    ['scleral lenses worn', answers({ lastWorn: 'now', whichLens: 'scleral' }), {}, 'caution:scleralWorn'],
    ['hybrid lenses worn', answers({ lastWorn: 'now', whichLens: 'hybrid' }), {}, 'caution:hybridWorn'],
    ['rigid lenses worn', answers({ lastWorn: 'now', whichLens: 'rigid' }), {}, 'caution:rigidWorn'],
    ['dailies worn twice', answers({ lastWorn: 'now', whichLens: 'daily', replacedEvery: 2 }), {}, 'caution:dailiesReused'],
    ['dailies slept in', answers({ lastWorn: 'now', whichLens: 'daily', sleptIn: 'someNights' }), {}, 'caution:sleptInDailies'],
    ['an injury', answers({ eyeHistory: ['trauma'] }), {}, 'stop:trauma'],
    ['thyroid', answers({ health: ['thyroid'] }), {}, 'caution:thyroid'],
    ['eczema', answers({ skin: ['eczema'] }), {}, 'caution:skin'],
  ])('%s', (_name, said, seen, rule) => {
    expect(fired(said, { eyes: one(seen) })).toContain(rule);
  });
  it('a graft that rises slowly over all visits is noticed, not only the step since the last', () => {
    const rise = { eyes: one({ limbalRedness: 1.5 }), baseline: one({ limbalRedness: 1 }) };
    expect(fired({}, rise)).not.toContain('caution:gradeRose');
    expect(fired({}, { ...rise, lowest: one({ limbalRedness: 0.5 }) })).toContain('caution:gradeRose');
    // A new scar on an irregular cornea, however faint.
    const scar = { eyes: one({ cornea: 'prolate', scars: 0.5 }), baseline: one({ scars: 0 }) };
    expect(fired({}, scar)).toContain('caution:irregularScar');
    expect(fired({}, { ...scar, baseline: one({ scars: 0.5 }) })).not.toContain('caution:irregularScar');
  });
});

describe('how a stop ends', () => {
  const said: Evidence = { from: 'history', key: 'danger', eye: null, value: ['pain'] };
  const seen: Evidence = { from: 'eye', key: 'pain', eye: 'right', value: 6 };
  it.each([
    ['heardRedPainful', [said], true, ['wrongEntry', 'looked']],
    ['heardRedPainful', [said], false, ['healed', 'looked']],
    ['redPainful', [seen], true, ['wrongEntry', 'secondLook']],
    ['redPainful', [seen], false, ['healed']],
    ['suspectedInfection', [seen], true, ['wrongEntry']],
    ['infiltrateWithSymptoms', [seen], true, ['wrongEntry']],
    ['pressureSigns', [said], true, ['wrongEntry']],
  ] as const)('%s, this visit: %s', (rule, evidence, thisVisit, endings) => {
    expect(endingsOf({ rule, eyes: [], evidence, thisVisit })).toEqual(endings);
  });
  it('nothing rests on words when an eye was seen, or when there is no evidence', () => {
    expect([restsOnWords([said]), restsOnWords([said, seen]), restsOnWords([])]).toEqual([true, false, false]);
  });
  it('stain, everted lid and chamber of every eye it names, of both when it names none', () => {
    const quiet: Findings = { staining: 0, papillae: 0, chamber: 'quiet' };
    expect(missingLook({ eyes: [] }, { right: quiet, left: {} })).toEqual([
      { eye: 'left', sign: 'staining' },
      { eye: 'left', sign: 'papillae' },
      { eye: 'left', sign: 'chamber' },
    ]);
    expect(missingLook({ eyes: ['right'] }, { right: quiet, left: {} })).toEqual([]);
  });
});

describe('a reason holds for the same answers in another order', () => {
  it('whatever the order of what was said and of what it rests on', () => {
    const rows: Evidence[] = [
      { from: 'history', key: 'hygieneCare', eye: null, value: ['abuse', 'tap', 'topUp'] },
      { from: 'eye', key: 'papillae', eye: 'left', value: 2 },
      { from: 'eye', key: 'papillae', eye: 'right', value: 2 },
    ];
    const rule = { id: 'x', version: 1 };
    fc.assert(
      fc.property(fc.shuffledSubarray(rows, { minLength: 3 }), fc.shuffledSubarray(['abuse', 'tap', 'topUp'], { minLength: 3 }), (shuffled, order) => {
        const other = shuffled.map((e) => (Array.isArray(e.value) ? { ...e, value: order } : e));
        expect(evidenceKeyOf(rule, other)).toBe(evidenceKeyOf(rule, rows));
      }),
    );
    expect(evidenceKeyOf(rule, rows.slice(1))).not.toBe(evidenceKeyOf(rule, rows));
  });
});

describe('sleeping in lenses', () => {
  const night = answers({ nights: 'onCall', hygieneCare: 'good', returns: 'yes', daysPerWeek: 7 });
  const clear: Findings = { staining: 0, infiltrates: 0, vessels: 0 };
  const both = { right: { sphere: -3, cylinder: 0, axis: 180 }, left: { sphere: -3, cylinder: 0, axis: 180 } };
  const wear = (eyes: Both, needs: Parameters<typeof recommend>[1] = both, library: readonly OnOffer[] = LIBRARY) =>
    recommend(facts(night, { eyes }), needs, library).recommended?.kind.wear;
  it('every fitted eye has been looked at, and is clear', () => {
    expect(wear({ right: clear, left: clear })).toBe('overnight');
    expect(wear({ right: clear, left: {} })).toBe('day');
    expect(wear({ right: clear, left: { ...clear, staining: 1 } })).toBe('day');
    expect(wear({ right: clear, left: {} }, { ...both, left: null })).toBe('overnight');
  });
  it('oxygen counts at the power asked: a thick plus lens and a toric of unknown thickness stay by day', () => {
    const eyes = { right: clear, left: clear };
    expect(wear(eyes, { ...both, left: { sphere: 5, cylinder: 0, axis: 180 } })).toBe('day');
    expect(
      wear(
        eyes,
        { ...both, left: { sphere: -7, cylinder: 0, axis: 180 } },
        LIBRARY.map((f) => ({ ...f, dktThickest: null, dktCentre: 160 })),
      ),
    ).toBe('day');
    expect(
      wear(
        eyes,
        both,
        LIBRARY.map((f) => ({ ...f, dktThickest: null, dktCentre: 160 })),
      ),
    ).toBe('overnight');
    expect(
      wear(
        eyes,
        { ...both, left: { sphere: -3, cylinder: -1.25, axis: 20 } },
        LIBRARY.map((f) => ({ ...f, dktThickest: null, dktCentre: 160 })),
      ),
    ).toBe('day');
  });
  it.each([
    ['sphere', 160, null, -3, 0, 160],
    ['sphere', 160, null, -6, 0, 160],
    ['sphere', 160, null, -6.25, 0, null],
    ['sphere', 160, null, 0.5, 0, null],
    ['sphere', 160, 90, 3, 0, 90],
    ['sphere', 160, 90, 3.25, 0, null],
    ['toric', 160, null, -3, -0.75, null],
    ['toric', 160, 98, -3, -0.75, 98],
    ['sphere', null, null, -3, 0, null],
  ] as const)('%s, centre %s, thickest %s, at %d / %d: %s', (geometry, dktCentre, dktThickest, sphere, cylinder, expected) => {
    expect(dktAt({ geometry, dktCentre, dktThickest }, { sphere, cylinder })).toBe(expected);
  });
});

describe('safety outranks habit and money', () => {
  const everyDay = { daysPerWeek: 7, hygieneCare: 'good', budget: 'tight', whichLens: 'monthly', replacedEvery: 30, lastWorn: 'now' } as const;
  it.each<[string, Parameters<typeof answers>[0], number]>([
    ['swims', { freeTime: ['swimming'] }, 30],
    ['works in water', { work: ['water'] }, 30],
    ['showers in them', { water: 'shower' }, 30],
    ['an outdoor life', { goals: ['outdoors'] }, 30],
    ['works outdoors', { work: ['outdoors'] }, 30],
    ['a minor', {}, 16],
  ])('%s: dailies, although worn every day and money is tight', (_name, more, age) => {
    expect(recommend(facts(answers({ ...everyDay, ...more }), { age }), { right: null, left: null }, LIBRARY).recommended?.kind.modality).toBe('daily');
  });
  it('without any of these the habit decides', () => {
    expect(recommend(facts(answers(everyDay)), { right: null, left: null }, LIBRARY).recommended?.kind.modality).toBe('monthly');
  });
});

describe('medicines as they are really written (names: INN and USAN, from memory)', () => {
  it.each([
    ['isotretinoin 20 mg once a day', 'retinoid'],
    ['Cetirizine 10mg as needed', 'antihistamine'],
    ['cetirizine, 10 mg at night, when required', 'antihistamine'],
    ['doxycycline 100 mg twice daily', 'tetracycline'],
    ['hydrochlorothiazide 12.5 mg every morning', 'sulfonamideDiuretic'],
    ['topiramate 25 mg bd', 'topiramate'],
    ['oestradiol gel', 'oestrogen'],
    ['estradiol patch twice a week', 'oestrogen'],
    ['furosemide 40 mg od', 'sulfonamideDiuretic'],
    ['frusemide', 'sulfonamideDiuretic'],
    ['ciclosporin eye drops', 'drynessDrops'],
    ['cyclosporine ophthalmic emulsion 0.05 %', 'drynessDrops'],
    ['ciclosporin 100 mg twice a day', 'immunity'],
    ['spironolactone 25 mg', 'diuretic'],
    ['chlorpheniramine', 'antihistamine'],
    ['salbutamol inhaler', null],
    ['once a day', null],
  ])('%s → %s', (typed, group) => {
    expect(medicineGroup(typed)).toBe(group);
  });
});

describe('what is taught (common practice)', () => {
  it('who sleeps in lenses is taught the rules for nights, not never to', () => {
    const nights = careTopicsFor({ singleUse: false, overnight: true });
    expect(nights).toContain('overnightRules');
    expect(nights).not.toContain('neverSleep');
    expect(careTopicsFor({ singleUse: false })).toContain('neverSleep');
  });
  it('moving and finding the lens belongs to every gate, the roll to long nails', () => {
    for (const singleUse of [true, false]) expect(careTopicsFor({ singleUse })).toContain('moveAndFind');
    expect(careTopicsFor({ singleUse: true, longNails: true })).toContain('rollOff');
    expect(careTopicsFor({ singleUse: true })).not.toContain('rollOff');
    expect(lessonProgress('overnight', [{ question: 'hygieneHands', value: 'longNails' }])).toEqual({ overnight: true, longNails: true });
    expect(
      lessonProgress('day', [
        { question: 'hygieneHands', value: 'longNails' },
        { question: 'hygieneHands', value: 'good' },
      ]),
    ).toEqual({ overnight: false, longNails: false });
  });
});
