import { describe, expect, it } from 'vitest';
import { chains, eyeState, type Eye, type VisitFacts } from '../index';

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
      prismText: null,
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
  rotations: chains([{ ...fact('rot1', 'right'), lensOnEyeId: 't1', rotationLeftDeg: 10, how: 'drag' as const, provisional: false }]),
  overRefractions: [],
  ...change,
});
const power = (id: string) => ({ sphere: -3, cylinder: -1.75, axis: id === 'lens20' ? 20 : 30 });

describe('one eye as it stands', () => {
  it('readings through an earlier lens do not count for the one that is on now', () => {
    const state = eyeState(facts(), 'right', power, 2);
    expect(state.onEye?.current.id).toBe('t2');
    expect(state.rotation).toBeNull();
    expect(state.verdict.order?.axis).toBe(20);
  });
  it('an unconfirmed lens counts for nothing', () => {
    const over = chains([
      { ...fact('o', 'right'), lensOnEyeId: 't2', sphereD: 0.25, cylinderD: 0, axisDeg: 180, vertexMm: 12, typedText: '', provisional: false },
    ]);
    const state = eyeState(
      facts({ overRefractions: over, onEyeExtras: [{ lensOnEyeId: 't2', how: null, takenOffAt: null, withdrawnOffAt: null, withdrawnReason: null }] }),
      'right',
      power,
      2,
    );
    expect(state.confirmed).toBeNull();
    expect(state.verdict.fromOverRefraction).toBeNull();
  });
  it('the other eye is untouched', () => {
    expect(eyeState(facts(), 'left', power, 2)).toMatchObject({ refraction: null, onEye: null, verdict: { order: null } });
  });
});
