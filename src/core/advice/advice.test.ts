import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEMO_FAMILIES, wholeFamily } from '../../../demo/families';
import {
  adviceFacts,
  answerProblems,
  askedQuestions,
  ATC_OF_GROUP,
  cornealCurveMm,
  DEFAULT_SETTINGS,
  DKT_LIMITS,
  droppedLenses,
  evidenceKey,
  EYES,
  findingProblem,
  findingsConflict,
  firedRules,
  geometryAsked,
  GRADED,
  handOverLines,
  INFECTIONS_PER_10000,
  isDropped,
  KERATOMETER,
  MEDICINES,
  medicineGroup,
  medicinesBeginning,
  onOffer,
  question,
  QUESTIONS,
  recommend,
  settingProblem,
  SETTINGS,
  transmissibility,
  notOverridden,
  whatWouldChange,
  type Answers,
  type AnswerValue,
  type Findings,
  type QuestionId,
  type SettingKey,
} from '../index';

const answers = (all: Readonly<Partial<Record<QuestionId, AnswerValue>>>): Answers =>
  Object.fromEntries(Object.entries(all).map(([q, value]) => [q, { value, note: null }]));
const LIBRARY = onOffer(
  DEMO_FAMILIES.map((f) => wholeFamily(f, f.code)),
  '2026-11-24',
);
const NONE = { right: null, left: null };
const facts = (
  said: Answers,
  more: { age?: number; eyes?: Findings; power?: { strongestSphere: number; strongestCylinder: number }; settings?: Partial<typeof DEFAULT_SETTINGS> } = {},
) =>
  adviceFacts({
    answers: said,
    age: more.age ?? 30,
    guardianNamed: true,
    eyes: { right: more.eyes ?? {}, left: more.eyes ?? {} },
    baseline: { right: {}, left: {} },
    power: more.power ?? null,
    // Lenses with too little oxygen by day are weighed here, not left out.
    settings: { ...DEFAULT_SETTINGS, oxygenByDay: 'warn', ...more.settings },
  });
const kindOf = (said: Answers, more: Parameters<typeof facts>[1] = {}) => recommend(facts(said, more), NONE, LIBRARY).recommended?.kind;

describe('medicines by generic name (classes of the ATC of the World Health Organization, from memory)', () => {
  it('every row lies in a class of its group', () => {
    for (const m of MEDICINES)
      expect(
        ATC_OF_GROUP[m.group].some((atc) => m.atc.startsWith(atc)),
        `${m.name} ${m.atc}`,
      ).toBe(true);
    expect(MEDICINES.length).toBeGreaterThan(100);
    expect(new Set(MEDICINES.map((m) => m.name)).size).toBe(MEDICINES.length);
  });
  it.each([
    ['cetirizine', 'antihistamine'],
    ['Cetirizine 10 mg', 'antihistamine'],
    ['CETIRIZINE hydrochloride 10mg daily', 'antihistamine'],
    ['isotretinoin 20 mg capsules', 'retinoid'],
    ['amitriptyline', 'antidepressant'],
    ['oxybutynin', 'anticholinergic'],
    ['olanzapine', 'antipsychotic'],
    ['bisoprolol 2,5 mg', 'betaBlocker'],
    ['water tablets', 'diuretic'],
    ['antihistamines', 'antihistamine'],
    ['rifampicin', 'tintsLens'],
    ['rifampin', 'tintsLens'],
    ['methotrexate', 'immunity'],
    ['metformin', null],
    ['', null],
    ['10 mg', null],
  ])('%s → %s', (typed, group) => {
    expect(medicineGroup(typed)).toBe(group);
  });
  it('offers names from the third letter', () => {
    expect(medicinesBeginning('ce')).toEqual([]);
    expect(medicinesBeginning('cet').map((m) => m.name)).toEqual(['cetirizine']);
  });
  it('never throws, whatever is typed', () => {
    fc.assert(fc.property(fc.string({ unit: 'binary' }), (text) => medicineGroup(text) === null || MEDICINES.some((m) => m.group === medicineGroup(text))));
  });
});

describe('answers', () => {
  it('who never wore lenses is not asked about them; a minor is asked about the guardian', () => {
    const ids = (said: Answers, age: number) => askedQuestions(said, age).map((q) => q.id);
    expect(ids({}, 30)).toContain('sleptIn');
    expect(ids(answers({ lastWorn: 'never' }), 30)).not.toContain('sleptIn');
    expect(ids({}, 17)).toContain('guardian');
    expect(ids({}, 18)).not.toContain('guardian');
  });
  it('any single answer on offer is fine by itself', () => {
    const one = fc.constantFrom(...QUESTIONS).chain((q): fc.Arbitrary<[QuestionId, AnswerValue]> => {
      const options = 'options' in q ? [...q.options] : [];
      switch (q.kind) {
        case 'one':
          return fc.tuple(fc.constant(q.id), fc.constantFrom(...options));
        case 'many': {
          const none = 'none' in q ? q.none : undefined;
          const others = options.filter((o) => o !== none);
          return fc.tuple(fc.constant(q.id), fc.subarray(others, { minLength: 1 }));
        }
        case 'number':
          return fc.tuple(fc.constant(q.id), fc.integer({ min: q.min, max: q.max }));
        case 'medicines':
          return fc.tuple(fc.constant(q.id), fc.constant([] as string[]));
        case 'text':
          return fc.tuple(fc.constant(q.id), fc.constant('x'));
      }
    });
    fc.assert(fc.property(one, ([id, value]) => answerProblems(answers({ [id]: value }), false).length === 0));
  });
  it('never worn, but lenses were handed over here', () => {
    expect(answerProblems(answers({ lastWorn: 'never' }), true)).toMatchObject([{ question: 'lastWorn', code: 'neverButHandedOver' }]);
  });
});

describe('findings', () => {
  it('reads curves in dioptres or millimetres (keratometer constant 337.5)', () => {
    expect(KERATOMETER).toBe(337.5);
    expect(cornealCurveMm(43.27)).toBeCloseTo(7.8, 2);
    expect(cornealCurveMm(7.8)).toBe(7.8);
    expect(337.5 / cornealCurveMm(45)).toBe(45);
    expect(findingProblem('kFlatMm', cornealCurveMm(0))?.code).toBe('findingOutOfRange');
  });
  it('twelve signs, each in halves from 0 to 4 but the vessels', () => {
    for (const g of GRADED) for (const v of [0, 0.5, 4]) expect(findingProblem(g.id, v)).toBeNull();
    expect(findingsConflict({ kFlatMm: 7.8, kSteepMm: 7.6, pupilRoom: 4, pupilDim: 6 })).toEqual([]);
    expect(findingsConflict({ staining: 0, stainingPlace: 'central' })[0]?.code).toBe('placeWithoutStaining');
  });
});

describe('stops', () => {
  const strengths = (eyes: Findings, said: Answers = {}) => firedRules(facts(said, { eyes })).map((f) => `${f.rule.strength}:${f.rule.id}`);
  it('ordinary eyes set nothing off: bulbar redness near 2 is ordinary (common practice)', () => {
    expect(
      strengths({ lidMargin: 1, bulbarRedness: 2, limbalRedness: 1.5, papillae: 1.5, staining: 1, vessels: 0.5, infiltrates: 0, scars: 0, breakUp: 12 }),
    ).toEqual([]);
  });
  it.each<[string, Findings, string]>([
    ['pain in a red eye', { bulbarRedness: 2.5, pain: 3 }, 'absolute:redPainful'],
    ['light hurting in a red eye', { bulbarRedness: 2.5, light: 'hurts' }, 'absolute:redPainful'],
    ['an infiltrate that hurts', { infiltrates: 0.5, pain: 1 }, 'absolute:infiltrateWithSymptoms'],
    ['an infiltrate with central staining', { infiltrates: 1, staining: 1, stainingPlace: 'central' }, 'absolute:infiltrateWithSymptoms'],
    ['sticky discharge', { discharge: 'sticky' }, 'absolute:externalInfection'],
    ['deep staining', { staining: 0.5, stainingDepth: 'deep' }, 'absolute:deepStaining'],
    ['an infiltrate alone', { infiltrates: 0.5 }, 'stop:infiltrate'],
    ['central staining', { staining: 1, stainingPlace: 'central' }, 'treatFirst:staining'],
    ['staining at the edge acts later', { staining: 1.5, stainingPlace: 'lower' }, 'treatFirst:staining'],
    ['vessels', { vessels: 1 }, 'overwear:vessels'],
  ])('%s', (_name, eyes, first) => {
    expect(strengths(eyes)[0]).toBe(first);
  });
  it('the strongest stand first', () => {
    const all = firedRules(facts(answers({ work: ['dust'], drops: ['other'] }), { eyes: { suspected: 'cornealInfection', lidMargin: 3, scars: 1 } })).map(
      (f) => f.rule.strength,
    );
    expect(all).toEqual(['absolute', 'stop', 'treatFirst', 'overwear', 'caution']);
  });
  it('a reason stands for its evidence only', () => {
    const [mild] = firedRules(facts({}, { eyes: { papillae: 2 } }));
    const [worse] = firedRules(facts({}, { eyes: { papillae: 3 } }));
    if (!mild || !worse) throw new Error('papillae');
    expect(notOverridden([mild], [evidenceKey(mild)])).toEqual([]);
    expect(notOverridden([worse], [evidenceKey(mild)])).toHaveLength(1);
  });
  it('the second school of dust: protected, not stopped', () => {
    const ids = (dust: 'stop' | 'protect') => firedRules(facts(answers({ work: ['fumes'] }), { settings: { dust } })).map((f) => f.rule.id);
    expect(ids('stop')).toEqual(['dust']);
    expect(ids('protect')).toEqual(['dustProtected']);
  });
  it('more findings never lift a stop', () => {
    const grade = fc.integer({ min: 0, max: 8 }).map((n) => n / 2);
    const eyes = fc.record(Object.fromEntries(GRADED.map((g) => [g.id, grade]))) as fc.Arbitrary<Findings>;
    fc.assert(
      fc.property(eyes, fc.constantFrom(...GRADED.map((g) => g.id)), (at, id) => {
        const worse = { ...at, [id]: 4 };
        const before = firedRules(facts({}, { eyes: at })).map((f) => f.rule.id);
        const after = firedRules(facts({}, { eyes: worse })).map((f) => f.rule.id);
        expect(before.filter((r) => !after.includes(r))).toEqual([]);
      }),
    );
  });
});

describe('the kind of lens (weights: common practice)', () => {
  const careful = answers({ hygieneCare: 'good', returns: 'yes', daysPerWeek: 7 });
  it.each<[string, Answers, Parameters<typeof facts>[1], string]>([
    ['a teenager', careful, { age: 15 }, 'daily'],
    ['worn twice a week', answers({ daysPerWeek: 2, hygieneCare: 'good' }), {}, 'daily'],
    ['worn every day and cared for', careful, {}, 'monthly'],
    ['care with lapses', answers({ daysPerWeek: 7, hygieneCare: 'lapses' }), {}, 'daily'],
    ['a solution that irritates', { ...careful, ...answers({ allergy: ['solution'] }) }, {}, 'daily'],
    ['two-weekly kept a month', { ...careful, ...answers({ whichLens: 'twoWeekly', replacedEvery: 29 }) }, {}, 'monthly'],
    ['two-weekly really replaced', { ...careful, ...answers({ whichLens: 'twoWeekly', replacedEvery: 14 }) }, {}, 'twoWeekly'],
    ['monthly kept for six weeks', { ...careful, ...answers({ whichLens: 'monthly', replacedEvery: 43 }) }, {}, 'daily'],
    ['the only good eye', { ...careful, ...answers({ eyeHistory: ['onlyGoodEye'] }) }, {}, 'daily'],
    [
      'a strong power',
      answers({ daysPerWeek: 7, hygieneCare: 'good', freeTime: ['makeUp'] }),
      { power: { strongestSphere: 9, strongestCylinder: 0 } },
      'monthly',
    ],
  ])('%s', (_name, said, more, modality) => {
    expect(kindOf(said, more)?.modality).toBe(modality);
  });
  it('sleeping in lenses: only with a reason, a graded clear cornea, and enough oxygen', () => {
    const night = { ...careful, ...answers({ nights: 'onCall' }) };
    const clear: Findings = { staining: 0, infiltrates: 0, vessels: 0 };
    expect(kindOf(night)).toMatchObject({ wear: 'day' });
    expect(kindOf(night, { eyes: clear })).toMatchObject({ wear: 'overnight', modality: 'monthly', material: 'siliconeHydrogel' });
    expect(kindOf(careful, { eyes: clear })).toMatchObject({ wear: 'day' });
    for (const bar of [
      { ...clear, staining: 1 },
      { ...clear, infiltrates: 0.5 },
      { ...clear, vessels: 0.5 },
    ])
      expect(kindOf(night, { eyes: bar })).toMatchObject({ wear: 'day' });
    expect(kindOf({ ...night, ...answers({ returns: 'unsure' }) }, { eyes: clear })).toMatchObject({ wear: 'day' });
    expect(kindOf(night, { eyes: clear, age: 17 })).toMatchObject({ wear: 'day' });
    // Shift work alone is no reason strong enough against the risk.
    expect(kindOf({ ...careful, ...answers({ nights: 'shifts' }) }, { eyes: clear })).toMatchObject({ wear: 'day' });
    // A lens is weighed where it is thickest: centre figures do not help.
    const thick = LIBRARY.map((f) => ({ ...f, dktThickest: 124 }));
    expect(
      recommend(facts(night, { eyes: clear }), NONE, thick)
        .notOffered.filter((n) => n.wear === 'overnight')
        .map((n) => n.why),
    ).toContain('tooLittleOxygen');
    const unknown = LIBRARY.map((f) => ({ ...f, dktThickest: null }));
    expect(recommend(facts(night, { eyes: clear }), NONE, unknown).recommended?.kind.wear).toBe('day');
  });
  it('a kind whose best lens lets too little oxygen through speaks against itself, double on long days', () => {
    const points = (dkt: number | null, hours: number, oxygenSchool: 'harvittBonanno' | 'holdenMertz' = 'harvittBonanno') => {
      const library = [
        { modality: 'daily' as const, geometry: 'sphere' as const, material: 'hydrogel' as const, overnightApproved: false, dktCentre: null, dktThickest: dkt },
      ];
      const found = recommend(facts(answers({ hoursPerDay: hours }), { settings: { oxygenSchool } }), NONE, library).recommended;
      return found?.reasons.find((r) => r.rule === 'oxygenLimit')?.points;
    };
    expect([points(34, 10), points(35, 10), points(34, 12), points(null, 12), points(24, 10, 'holdenMertz')]).toEqual([-2, 1, -4, undefined, 1]);
  });
  it('never a second way to sleep in them as the second choice', () => {
    const night = { ...careful, ...answers({ nights: 'onCall' }) };
    expect(recommend(facts(night, { eyes: { staining: 0, infiltrates: 0, vessels: 0 } }), NONE, LIBRARY).second?.kind.wear).toBe('day');
  });
  it('a practice that leaves out too little oxygen by day is offered none of it', () => {
    const needs = { right: { sphere: -3, cylinder: -1.25, axis: 20 }, left: null };
    const strict = recommend(facts(careful, { settings: { oxygenByDay: 'leaveOut' } }), needs, LIBRARY);
    expect(strict.recommended?.kind.material).toBe('siliconeHydrogel');
    expect(strict.notOffered).toContainEqual({ modality: 'daily', wear: 'day', why: 'tooLittleOxygen', evidence: [] });
  });
  it('what can no longer be ordered is not on offer', () => {
    const ended = DEMO_FAMILIES.map((f) => ({ ...wholeFamily(f, f.code), lastOrderOn: f.modality === 'monthly' ? '2026-11-23' : null }));
    const out = recommend(facts(careful), { right: { sphere: -3, cylinder: -1.25, axis: 20 }, left: null }, onOffer(ended, '2026-11-24'));
    expect(out.notOffered).toContainEqual({ modality: 'monthly', wear: 'day', why: 'notMade', evidence: [] });
    expect(onOffer(ended, '2026-11-23')).toHaveLength(ended.length);
  });
  it('only what the library makes is on offer', () => {
    const needs = { right: { sphere: -3, cylinder: -1.25, axis: 20 }, left: null };
    const out = recommend(facts(careful, { age: 50 }), needs, LIBRARY);
    expect(out.geometry.geometry).toBe('toricMultifocal');
    expect(out.recommended?.kind).toMatchObject({ modality: 'monthly', geometry: 'toricMultifocal', material: 'hydrogel' });
    expect(out.notOffered).toContainEqual({ modality: 'daily', wear: 'day', why: 'notMade', evidence: [] });
    expect(recommend(facts(careful), NONE, []).recommended).toBeNull();
  });
  it.each([
    [-0.5, 30, 'sphere'],
    [-0.75, 30, 'toric'],
    [-0.5, 45, 'multifocal'],
    [-0.75, 45, 'toricMultifocal'],
    [-0.75, 44, 'toric'],
  ])('cylinder %d at %d years: %s (0.75 D and up asks a toric; common practice)', (cylinder, age, geometry) => {
    expect(geometryAsked({ right: { sphere: -3, cylinder, axis: 90 }, left: null }, age, 45).geometry).toBe(geometry);
  });
  it('the same answers give the same advice, in whatever order they were said', () => {
    const said = answers({ daysPerWeek: 6, hygieneCare: 'good', dryness: 'evening', allergy: ['season'], budget: 'careful' });
    const entries = Object.entries(said);
    fc.assert(
      fc.property(fc.shuffledSubarray(entries, { minLength: entries.length, maxLength: entries.length }), (shuffled) => {
        expect(recommend(facts(Object.fromEntries(shuffled) as Answers), NONE, LIBRARY)).toEqual(recommend(facts(said), NONE, LIBRARY));
      }),
    );
  });
  it('each named change really brings the other kind, alone, and no new stop', () => {
    const said = {
      ...careful,
      ...answers({
        whichLens: 'twoWeekly',
        lastWorn: 'now',
        replacedEvery: 29,
        sleptIn: 'never',
        hoursPerDay: 11,
        goals: ['everyDay'],
        budget: 'open',
        dryness: 'none',
      }),
    };
    const run = (a: Answers) => ({
      recommendation: recommend(facts(a), NONE, LIBRARY),
      stops: firedRules(facts(a)).filter((f) => f.rule.strength === 'stop').length,
    });
    const would = whatWouldChange(said, 30, run);
    expect(would.monthly).toEqual([]);
    expect(would.twoWeekly).toContainEqual({ question: 'replacedEvery', to: 17 });
    let looked = 0;
    for (const modality of ['daily', 'twoWeekly'] as const) {
      for (const { question: id, to } of would[modality]) {
        const changed = { ...said, [id]: { value: to, note: null } };
        expect(run(changed).recommendation.recommended?.kind.modality, `${id} ${String(to)}`).toBe(modality);
        expect(run(changed).stops).toBe(0);
        expect(question(id)).toBeDefined();
        looked += 1;
      }
    }
    expect(looked).toBeGreaterThan(2);
  });
});

describe('oxygen and risk', () => {
  it('Dk over thickness (Holden and Mertz 1984; Harvitt and Bonanno 1999; from memory)', () => {
    expect(transmissibility(140, 0.08)).toBeCloseTo(175, 6);
    expect(transmissibility(28, 0.07)).toBeCloseTo(40, 6);
    expect(DKT_LIMITS).toEqual({ holdenMertz: { day: 24, overnight: 87 }, harvittBonanno: { day: 35, overnight: 125 } });
  });
  it('infections in 10,000 a year (Stapleton 2008, from memory): nights cost most, silicone hydrogel saves nothing', () => {
    const r = INFECTIONS_PER_10000;
    expect([r.softDay, r.dailyDisposable, r.siliconeHydrogelDay, r.softOvernight, r.siliconeHydrogelOvernight]).toEqual([1.9, 2, 11.9, 19.5, 25.4]);
  });
});

describe('lines for whoever comes next', () => {
  it('two things a line, the strongest first, the rest counted', () => {
    const said = answers({
      goals: ['sport', 'outdoors'],
      nights: 'onCall',
      tell: 'nervous',
      whichLens: 'monthly',
      replacedEvery: 43,
      work: ['dust'],
      drops: ['other'],
      dryness: 'severe',
    });
    const lines = handOverLines(said, firedRules(facts(said)));
    expect(lines.wants.map((w) => w.value)).toEqual(['nervous', 'onCall']);
    expect(lines.cautions).toHaveLength(2);
    expect(lines.cautions[0]?.strength).toBe('stop');
    expect(lines.more).toBe(1);
    expect(lines.wears).toMatchObject({ which: 'monthly', days: 43 });
  });
  it('the lens given up: as named, else as handed over; not when only its price was too high', () => {
    const why = (value: string[], note: string | null): Answers => ({ whyChange: { value, note: null }, whichLens: { value: 'daily', note } });
    expect(droppedLenses(why(['dryness'], 'Dunlin 1 Day'), [])).toEqual(['Dunlin 1 Day']);
    expect(isDropped({ code: 'x', name: 'Dunlin 1-Day' }, ['dunlin 1 day'])).toBe(true);
    // Two families of one name are told apart by their code.
    expect(isDropped({ code: 'b-knot', name: 'Knot' }, ['a-knot'])).toBe(false);
    expect(isDropped({ code: 'a-knot', name: 'Knot' }, ['a-knot'])).toBe(true);
    expect(droppedLenses(why(['comfort'], null), ['Knot 1-Day', 'Knot 1-Day'])).toEqual(['Knot 1-Day']);
    expect(droppedLenses(why(['cost'], 'Knot 1-Day'), ['Knot 1-Day'])).toEqual([]);
  });
});

describe('settings', () => {
  const keys = Object.keys(SETTINGS) as SettingKey[];
  it.each(keys)('%s: its default may be set', (key) => {
    expect(settingProblem(key, DEFAULT_SETTINGS[key])).toBeNull();
  });
  it('a threshold of a sign is a setting', () => {
    for (const g of GRADED) if ('threshold' in g) expect(keys).toContain(g.threshold);
    expect(EYES).toHaveLength(2);
  });
});
