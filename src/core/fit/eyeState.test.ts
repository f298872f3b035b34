import { describe, expect, it } from 'vitest';
import { chains, DEFAULT_SETTINGS, eyeState, type Eye, type VisitFacts } from '../index';

/** Read on no scale and off no picture. */
const READ = { scaleReading: null, pictureId: null, photoRollDeg: null, photoLid: null, photoFoundDeg: null } as const;
const at = '2026-11-24T15:00:00Z';
const fact = (id: string, eye: Eye) => ({
  id,
  rootId: id,
  correctsId: null,
  voided: false,
  eye,
  visitId: 'v',
  observedAt: at,
  recordedAt: at,
  recordedBy: 'p',
  recordedByName: 'P',
  reason: null,
});
const facts = (change: Partial<VisitFacts> = {}): VisitFacts => ({
  refractions: chains([
    {
      ...fact('r1', 'right'),
      sphereD: -3.25,
      cylinderD: -1.75,
      axisDeg: 20,
      vertexMm: 12,
      typedText: '',
      source: 'typed' as const,
      addD: null,
      addSource: null,
      nearCm: null,
      nearAcuityLogMar: null,
      nearAcuityTyped: null,
      prismText: null,
      acuityLogMar: null,
      acuityTyped: null,
    },
  ]),
  onEye: chains([
    {
      ...fact('t1', 'right'),
      lensId: 'lens20',
      description: null,
      source: 'trial' as const,
      trialNumber: 1,
      trialStockId: 's',
      diagnosticLensId: null,
      lot: 'A',
      expiresOn: null,
      putOnAt: at,
    },
    {
      ...fact('t2', 'right'),
      lensId: 'lens30',
      description: null,
      source: 'trial' as const,
      trialNumber: 2,
      trialStockId: 's',
      diagnosticLensId: null,
      lot: 'B',
      expiresOn: null,
      putOnAt: at,
    },
  ]),
  onEyeExtras: [
    { lensOnEyeId: 't1', how: 'putOnHere', takenOffAt: at, withdrawnOffAt: null, withdrawnReason: null },
    { lensOnEyeId: 't2', how: 'putOnHere', takenOffAt: null, withdrawnOffAt: null, withdrawnReason: null },
  ],
  fits: [],
  rotations: chains([{ ...fact('rot1', 'right'), lensOnEyeId: 't1', rotationLeftDeg: 10, how: 'drag' as const, provisional: false, seriesNo: 1, ...READ }]),
  overRefractions: [],
  lensFindings: [],
  acuitiesBoth: [],
  eyeAcuities: [],
  taskSights: [],
  heldQuarters: [],
  pairChanges: [],
  choices: [],
  guided: [],
  ...change,
});
const lensOf = (id: string) => ({ power: { sphere: -3, cylinder: -1.75, axis: id === 'lens20' ? 20 : 30 }, tried: null });

describe('one eye as it stands', () => {
  it('readings through an earlier lens do not count for the one that is on now', () => {
    const state = eyeState(facts(), 'right', lensOf, DEFAULT_SETTINGS);
    expect(state.onEye?.current.id).toBe('t2');
    expect(state.turn).toBeNull();
    expect(state.verdict.order?.axis).toBe(20);
  });
  it('an unconfirmed lens counts for nothing', () => {
    const over = chains([
      {
        ...fact('o', 'right'),
        lensOnEyeId: 't2',
        sphereD: 0.25,
        cylinderD: 0,
        axisDeg: 180,
        vertexMm: 12,
        typedText: '',
        provisional: false,
        acuityLogMar: null,
        acuityTyped: null,
        cylinderTested: false,
        plusHalf: null,
        control: 'none' as const,
      },
    ]);
    const state = eyeState(
      facts({ overRefractions: over, onEyeExtras: [{ lensOnEyeId: 't2', how: null, takenOffAt: null, withdrawnOffAt: null, withdrawnReason: null }] }),
      'right',
      lensOf,
      DEFAULT_SETTINGS,
    );
    expect(state.confirmed).toBeNull();
    expect(state.verdict.fromOverRefraction).toBeNull();
  });
  it('an earlier lens taken up again brings its own readings, until another goes on', () => {
    const choice = { lensOnEyeId: 't1', why: 'it sat better', chosenAt: '2026-11-24T15:10:00Z', chosenByName: 'P' };
    const state = eyeState(facts({ choices: [choice] }), 'right', lensOf, DEFAULT_SETTINGS);
    expect(state).toMatchObject({ onEye: { rootId: 't1' }, choice: { why: 'it sat better' }, turn: { mean: 10, count: 1 } });
    const before = eyeState(facts({ choices: [{ ...choice, chosenAt: '2026-11-24T14:00:00Z' }] }), 'right', lensOf, DEFAULT_SETTINGS);
    expect(before).toMatchObject({ onEye: { rootId: 't2' }, choice: null });
  });
  it('only the last series of blinks counts, in the order read', () => {
    const blink = (id: string, turn: number, seriesNo: number) => ({
      ...fact(id, 'right'),
      lensOnEyeId: 't2',
      rotationLeftDeg: turn,
      how: 'pedal' as const,
      provisional: false,
      seriesNo,
      ...READ,
    });
    const rotations = chains([blink('a', 30, 1), blink('b', 8, 2), blink('c', 10, 2), blink('d', 12, 2)]);
    const state = eyeState(facts({ rotations }), 'right', lensOf, DEFAULT_SETTINGS);
    expect(state.series.map((c) => c.current.rotationLeftDeg)).toEqual([8, 10, 12]);
    expect(state.turn).toMatchObject({ mean: 10, count: 3, sd: 2 });
  });
  it('a lens that has not settled and does not sit still gives no order; steady blinks read as early do', () => {
    const early = (turns: readonly number[]) =>
      chains(
        turns.map((rotationLeftDeg, i) => ({
          ...fact(`e${i}`, 'right'),
          lensOnEyeId: 't2',
          rotationLeftDeg,
          how: 'pedal' as const,
          provisional: true,
          seriesNo: 1,
          ...READ,
        })),
      );
    const unsteady = eyeState(facts({ rotations: early([0, 25, -10, 22, 5]) }), 'right', lensOf, DEFAULT_SETTINGS);
    expect(unsteady.verdict).toMatchObject({ noOrder: 'notSteadyYet', order: null, rotation: { code: 'provisional', why: 'unsteady' } });
    // Another lens may still be chosen by the need.
    expect(unsteady.verdict.choosing?.axis).toBe(20);
    const steady = eyeState(facts({ rotations: early([10, 9, 11, 10, 10]) }), 'right', lensOf, DEFAULT_SETTINGS);
    expect(steady.verdict).toMatchObject({ noOrder: null, order: { axis: 30 }, rotation: { code: 'provisional', why: 'early' } });
  });
  it('findings are the newest of each sign, through this lens', () => {
    const seen = (id: string, lensOnEyeId: string, sign: string, numberValue: number) => ({
      ...fact(id, 'right'),
      lensOnEyeId,
      sign,
      numberValue,
      wordValue: null,
      typedText: null,
      provisional: false,
    });
    const lensFindings = chains([
      seen('a', 't2', 'movement', 0.9),
      seen('b', 't2', 'movement', 0.3),
      seen('c', 't1', 'pushUp', 90),
      seen('d', 't2', 'acuityLens', 0.1),
    ]);
    const state = eyeState(facts({ lensFindings }), 'right', lensOf, DEFAULT_SETTINGS);
    expect(state.findings).toEqual({ movement: 0.3, acuityLens: 0.1 });
    expect(state.fitVerdict.verdict).toBe('fits');
    expect(state.acuities.lens).toBe(0.1);
  });
  it('the other eye is untouched', () => {
    expect(eyeState(facts(), 'left', lensOf, DEFAULT_SETTINGS)).toMatchObject({ refraction: null, onEye: null, verdict: { order: null } });
  });
});
