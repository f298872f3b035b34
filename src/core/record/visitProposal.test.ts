import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEFAULT_SETTINGS, feeOf, firstStep, isFollowUp, proposeVisit, STEP_IDS, stepsOf, stepsShown, VISIT_KINDS, type ProposalOf } from '..';

const WORN: ProposalOf = {
  today: '2026-11-24',
  redEye: false,
  wears: true,
  fittedOn: '2024-03-01',
  complex: false,
  expiresOn: '2026-12-20',
  examinedOn: '2026-06-01',
};
const kind = (change: Partial<ProposalOf>, months = 12) => proposeVisit({ ...WORN, ...change }, months).kind;

/** Kinds of visit and what tells them apart: common practice. */
describe('which kind of visit is proposed', () => {
  it('an absolute stop comes before everything', () => {
    expect(kind({ redEye: true })).toBe('redEye');
    expect(kind({ redEye: true, wears: false })).toBe('redEye');
  });
  it('nothing worn: a first fit', () => expect(kind({ wears: false, fittedOn: null, expiresOn: null })).toBe('firstFit'));
  it('within 90 days of a fit: short for a straight lens, at no charge; long for a complex one', () => {
    // 26 August is 90 days before 24 November, 25 August is 91.
    expect(kind({ fittedOn: '2026-08-26' })).toBe('shortFollowUp');
    expect(kind({ fittedOn: '2026-08-26', complex: true })).toBe('longFollowUp');
    expect(kind({ fittedOn: '2026-08-25' })).toBe('lensAnnual');
    expect(feeOf('shortFollowUp', { ...DEFAULT_SETTINGS, followUpFee: 45, fitFee: 120 })).toBe(0);
    expect(feeOf('longFollowUp', { ...DEFAULT_SETTINGS, followUpFee: 45 })).toBe(45);
  });
  it('due: lens-only while a full examination counts, to its last day; else the full one', () => {
    expect(kind({ examinedOn: '2025-11-24' })).toBe('lensAnnual');
    expect(kind({ examinedOn: '2025-11-23' })).toBe('fullAnnual');
    expect(kind({ examinedOn: '2025-11-23' }, 24)).toBe('lensAnnual');
    expect(kind({ examinedOn: null })).toBe('fullAnnual');
    expect(kind({ expiresOn: null, examinedOn: null })).toBe('fullAnnual');
  });
  it('60 days before the end of the prescription the annual visit is due, not a day sooner', () => {
    expect(kind({ expiresOn: '2027-01-23' })).toBe('lensAnnual');
    expect(kind({ expiresOn: '2027-01-24' })).toBe('longFollowUp');
  });
  it('says why, with its figures', () => {
    expect(proposeVisit({ ...WORN, fittedOn: '2026-11-10' }, 12)).toMatchObject({ because: 'fittedSimple', data: { days: 14, within: 90 } });
    expect(proposeVisit(WORN, 12)).toMatchObject({ because: 'annualExamined', data: { examined: '2026-06-01', until: '2027-06-01' } });
  });
});

describe('steps of a visit', () => {
  it('every kind has its own, each step once, and begins with one of them', () => {
    for (const k of VISIT_KINDS) {
      const steps = stepsOf(k);
      expect(new Set(steps).size, k).toBe(steps.length);
      expect(firstStep(k), k).toBe(steps[0]);
    }
    expect(firstStep('firstFit')).toBe('history');
    expect(firstStep('collection')).toBe('supply');
  });
  it('who comes wearing lenses is read through them before they come off; a lens-only annual has no refraction', () => {
    for (const k of ['fullAnnual', 'lensAnnual', 'shortFollowUp', 'longFollowUp'] as const) {
      expect(stepsOf(k).indexOf('onEye'), k).toBeLessThan(stepsOf(k).indexOf('eyeHealth'));
      expect(stepsOf(k)).toContain('wornNow');
      expect(isFollowUp(k)).toBe(true);
    }
    for (const k of ['fullAnnual', 'lensAnnual'] as const) expect(firstStep(k)).toBe('asLastTime');
    expect(stepsOf('lensAnnual')).not.toContain('refraction');
    expect(isFollowUp('refit')).toBe(false);
  });
  it('what is open, or has something in it, is listed whatever the kind; nothing twice, nothing of the kind left out', () => {
    fc.assert(
      fc.property(fc.constantFrom(...VISIT_KINDS), fc.constantFrom(...STEP_IDS), fc.subarray([...STEP_IDS]), (k, open, used) => {
        const shown = stepsShown(k, open, (step) => used.includes(step), true);
        expect(new Set(shown)).toEqual(new Set([...stepsOf(k), open, ...used]));
        expect(shown.slice(0, stepsOf(k).length)).toEqual(stepsOf(k));
        expect(new Set(shown).size).toBe(shown.length);
      }),
    );
  });
});
