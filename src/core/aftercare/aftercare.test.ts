import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  addDays,
  ADVERSE_EVENTS,
  aftercareProblem,
  AFTERCARE_RULES,
  aftercareTopics,
  chains,
  daysBetween,
  DEFAULT_SETTINGS,
  keepsLensesOff,
  keptBySupply,
  lastWearDay,
  nextAftercare,
  openEvent,
  pointsTo,
  returnMissing,
  type AdverseEventFact,
  type HandOverFact,
  type ReturnToWearFact,
} from '../index';

const TODAY = '2026-11-29';
const day = { today: TODAY, outcome: 'keep', since: null, reusable: true, complex: false, firstNight: null } as const;

describe('when the wearer is seen next (1 or 2 weeks, 1 to 3 months, 6 to 12 months; overnight: morning after, 1 week, 1 month, 3 months; common practice)', () => {
  it.each([
    ['reusable, just begun: a week', { since: TODAY }, 'week', 7],
    ['dailies, just begun: two weeks', { since: TODAY, reusable: false }, 'twoWeeks', 14],
    ['a complex daily: a week', { since: TODAY, reusable: false, complex: true }, 'week', 7],
    ['seen at a week: within three months of the start', { since: addDays(TODAY, -7) }, 'threeMonths', 84],
    ['seen two days early: that was the week’s visit', { since: addDays(TODAY, -5) }, 'threeMonths', 86],
    ['worn for years: half a year', { since: '2020-01-01' }, 'halfYear', 182],
    ['a change begins again', { since: '2020-01-01', outcome: 'change' }, 'week', 7],
    ['first night tonight: tomorrow morning', { since: addDays(TODAY, -10), firstNight: TODAY }, 'morningAfter', 1],
    ['the morning after: at a week', { firstNight: addDays(TODAY, -1) }, 'nightsWeek', 6],
    ['a week of nights: at a month', { firstNight: addDays(TODAY, -7) }, 'nightsMonth', 23],
    ['a month of nights: every three months', { firstNight: addDays(TODAY, -30) }, 'nightsQuarter', 91],
    ['years of nights: every three months', { firstNight: '2024-01-01' }, 'nightsQuarter', 91],
  ] as const)('%s', (_name, change, due, days) => {
    const next = nextAftercare({ ...day, ...change });
    expect([next.due, daysBetween(TODAY, next.on)]).toEqual([due, days]);
  });
  it('is never past, never further off than half a year, and by night never further than by day', () => {
    const arb = fc.record({ since: fc.integer({ min: 0, max: 2000 }), nights: fc.option(fc.integer({ min: 0, max: 2000 })), reusable: fc.boolean() });
    fc.assert(
      fc.property(arb, ({ since, nights, reusable }) => {
        const of = { ...day, reusable, since: addDays(TODAY, -since), firstNight: nights === null ? null : addDays(TODAY, -nights) };
        const ahead = daysBetween(TODAY, nextAftercare(of).on);
        expect(ahead).toBeGreaterThan(0);
        expect(ahead).toBeLessThanOrEqual(nights === null ? 182 : 91);
      }),
    );
  });
});

const given = (id: string, handedOn: string, lensCount: number, lensId = 'm'): HandOverFact =>
  ({ id, rootId: id, correctsId: null, voided: false, eye: 'right', lensId, handedOn, openedOn: null, lensCount }) as unknown as HandOverFact;
const modality = (id: string) => ({ m: 'monthly', d: 'daily' })[id] as 'monthly' | 'daily' | undefined;

describe('how often lenses are really replaced', () => {
  it('a monthly that lasts 45 days: six lenses in 270 days (common practice)', () => {
    const kept = keptBySupply(chains([given('a', '2026-01-01', 6), given('b', '2026-09-28', 6)]), 'right', modality, 7, '2026-10-10');
    expect(kept).toEqual({ daysPerLens: 45, labelDays: 30, days: 270, lenses: 6, atLeast: false });
  });
  it('lenses in hand count once their time is up: at least so long', () => {
    const all = chains([given('a', '2026-01-01', 6)]);
    expect(keptBySupply(all, 'right', modality, 7, '2026-06-01')).toBeNull();
    expect(keptBySupply(all, 'right', modality, 7, '2026-10-28')).toMatchObject({ daysPerLens: 50, atLeast: true });
  });
  it('dailies count wearing days; another modality before them does not count; nothing of the other eye', () => {
    const all = chains([given('a', '2025-01-01', 6), given('b', '2026-01-01', 30, 'd'), given('c', '2026-02-12', 30, 'd')]);
    expect(keptBySupply(all, 'right', modality, 5, '2026-02-12')).toMatchObject({ daysPerLens: 1, days: 42, lenses: 30 });
    expect(keptBySupply(all, 'left', modality, 5, '2026-02-12')).toBeNull();
  });
  it('whoever keeps the label, by the day, shows the label', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12 }), (lenses) => {
        const next = Array.from({ length: lenses }).reduce<string>((from) => addDays(lastWearDay(from, 'monthly'), 1), '2026-01-01');
        expect(keptBySupply(chains([given('a', '2026-01-01', lenses), given('b', next, 1)]), 'right', modality, 7, next)?.daysPerLens).toBe(30);
      }),
    );
  });
});

describe('answers of aftercare', () => {
  it.each([
    ['trouble', ['none'], 'right', null],
    ['trouble', ['haze', 'itch'], 'left', null],
    ['trouble', ['none', 'haze'], 'left', 'noneWithOthers'],
    ['trouble', [], 'left', 'required'],
    ['trouble', ['haze'], null, 'answerUnknown'],
    ['trouble', ['haze', 'haze'], 'left', 'answerTwice'],
    ['glasses', ['usable'], null, null],
    ['glasses', ['usable'], 'right', 'answerUnknown'],
    ['glasses', ['usable', 'none'], null, 'answerUnknown'],
    ['solutionUsed', ['saline'], null, null],
    ['solutionUsed', ['5b3fd6a0-0000-4000-8000-000000000001'], null, null],
    ['solutionUsed', ['milk'], null, 'answerUnknown'],
    ['saidBack', [], null, null],
    ['saidBack', ['noWater', 'flying'], null, 'answerUnknown'],
    ['firstNight', ['2026-11-29'], null, null],
    ['firstNight', ['tonight'], null, 'notADay'],
    ['shoeSize', ['9'], null, 'answerUnknown'],
  ] as const)('%s %j of %s', (question, said, eye, problem) => {
    expect(aftercareProblem(question, said, eye)).toBe(problem);
  });
  it('a single-use lens is not rubbed; overnight wearers do not say back that they never sleep in them', () => {
    expect(aftercareTopics(true, false)).not.toContain('rubAndRinse');
    expect(aftercareTopics(false, true)).not.toContain('neverSleep');
    expect(aftercareTopics(false, true)).toEqual(expect.arrayContaining(['noWater', 'dangerSigns']));
  });
});

describe('trouble, cause, next step (common practice)', () => {
  const of = (right: object, left: object = {}, person: object = {}) =>
    pointsTo({ person: { age: 30, ...person }, eyes: { right, left }, baseline: { right: {}, left: {} }, settings: DEFAULT_SETTINGS }).map((p) => [
      p.rule.id,
      p.rule.step,
      ...p.eyes,
    ]);
  it.each([
    ['deposits on a reusable lens: peroxide or a shorter cycle', { deposits: 'film', modality: 'monthly' }, ['depositsReusable', 'peroxideOrShorter', 'right']],
    ['haze with a listed pair: another solution', { trouble: ['haze'], pair: 'irritates' }, ['hazePair', 'otherSolution', 'right']],
    ['dry late: another material, or daily', { trouble: ['dryLate'], modality: 'twoWeekly' }, ['dryLateReusable', 'otherMaterialOrDaily', 'right']],
    ['reduced vision, inside out', { trouble: ['farBlur'], insideOut: 'yes' }, ['insideOut', 'turnOver', 'right']],
    ['reduced vision, swapped', { trouble: ['farBlur'], overPattern: 'swapped' }, ['swapped', 'changeSides', 'right']],
    ['reduced vision, wrong lens', { overPattern: 'surprise' }, ['wrongLens', 'checkLens', 'right']],
    ['reduced vision, rotation', { lensKind: 'toric', turn: 'unsteady' }, ['turnCosts', 'readTurn', 'right']],
    ['lens awareness in one eye: look at this lens', { trouble: ['awareness'], onlyThisEye: 'yes' }, ['oneEyeFeels', 'checkLens', 'right']],
    ['a child’s lens worn less than its label says', { label: 'missed' }, ['labelMissed', 'moreHours', 'right']],
    ['a stretched two-weekly: prescribe what is kept', { modality: 'twoWeekly', overdueDays: 16 }, ['stretched', 'prescribeAsWorn', 'right']],
  ] as const)('%s', (_name, right, first) => {
    expect(of(right)).toContainEqual([...first]);
  });
  it('overwear: long hours with vessels; hours alone are none', () => {
    expect(of({ vessels: 1.5 }, {}, { hoursPerDay: 15 })).toContainEqual(['overwear', 'fewerHours', 'right']);
    expect(of({}, {}, { hoursPerDay: 15 })).toEqual([]);
    expect(of({ label: 'met' })).toEqual([]);
  });
  it('a happy wearer in clean, steady lenses points to nothing', () => {
    const fine = {
      ...{ trouble: ['none'], onlyThisEye: 'no', comfort: 9, deposits: 'none', damage: 'none', debris: 'none', insideOut: 'no', fit: 'fits' },
      ...{ lossLines: 0, changeD: 0.25, overPattern: 'none', turn: 'steady', modality: 'monthly', lensKind: 'toric', overdueDays: 0, staining: 0 },
      ...{ overnight: 'notPrescribed' },
    };
    const person = { hoursPerDay: 12, sleptIn: 'never', water: 'never', solutionUsed: 'known', glasses: 'usable', notSaidBack: [] };
    expect(of(fine, fine, person)).toEqual([]);
  });
  it('every rule names where it comes from', () => {
    for (const rule of AFTERCARE_RULES) expect(rule.source.text.length).toBeGreaterThan(5);
  });
});

describe('adverse events, and back into lenses (released, stain 0, drops off, new lens and case, aftercare within a week; common practice)', () => {
  const event = (id: string, what: Partial<AdverseEventFact> = {}): AdverseEventFact =>
    ({ id, rootId: id, correctsId: null, voided: false, eye: 'right', event: 'abrasion', lensesOff: true, ...what }) as AdverseEventFact;
  it('lenses stay off until the very event was ended; what hurts no cornea keeps nothing off', () => {
    const events = chains([event('a')]);
    expect(openEvent(events, [], 'right')?.rootId).toBe('a');
    expect(openEvent(events, [], 'left')).toBeNull();
    const back = chains([{ id: 'r', rootId: 'r', correctsId: null, voided: false, eye: 'right', adverseEventId: 'a' } as ReturnToWearFact]);
    expect(openEvent(events, back, 'right')).toBeNull();
    expect(openEvent(chains([event('a'), event('b')]), back, 'right')?.rootId).toBe('b');
    expect(ADVERSE_EVENTS.filter(keepsLensesOff)).not.toContain('tornLens');
    expect(keepsLensesOff('microbialKeratitis')).toBe(true);
  });
  const ready = { stopped: false, staining: 0, dropsOff: true, newLens: true, newCase: true, seenOn: addDays(TODAY, 5), today: TODAY };
  it.each([
    ['a stop is open', { stopped: true }, 'released'],
    ['stain half a grade', { staining: 0.5 }, 'clearCornea'],
    ['nobody looked', { staining: undefined }, 'clearCornea'],
    ['still on drops', { dropsOff: false }, 'dropsOff'],
    ['the old lens', { newLens: false }, 'newLens'],
    ['the old case', { newCase: false }, 'newCase'],
    ['nothing booked', { seenOn: null }, 'aftercareBooked'],
    ['booked in eight days', { seenOn: addDays(TODAY, 8) }, 'aftercareBooked'],
    ['only today’s own appointment', { seenOn: TODAY }, 'aftercareBooked'],
  ] as const)('%s: not yet', (_name, change, missing) => {
    expect(returnMissing({ ...ready, ...change })).toEqual([missing]);
    expect(returnMissing(ready)).toEqual([]);
  });
});
