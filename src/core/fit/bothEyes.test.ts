import { describe, expect, it } from 'vitest';
import { chains } from '../record/chains';
import { linesLostTogether, sightOfBoth } from './bothEyes';
import type { AcuityBothFact } from '../record/visitFacts';
import type { EyeAcuities } from './overDoubts';

const eye = (lens: number | null, over: number | null = null): EyeAcuities => ({ glasses: 0, lens, over, pinhole: null });
const row = (id: string, change: Partial<AcuityBothFact>): AcuityBothFact => ({
  id,
  rootId: id,
  correctsId: null,
  voided: false,
  reason: null,
  eye: null,
  visitId: 'visit',
  observedAt: '2026-11-24T15:00:00Z',
  recordedAt: '2026-11-24T15:00:00Z',
  recordedBy: 'fitter',
  recordedByName: 'Fitter',
  rightLensOnEyeId: 'r1',
  leftLensOnEyeId: 'l1',
  acuityLogMar: 0,
  acuityTyped: '20/20',
  provisional: false,
  ...change,
});

describe('sight of both eyes', () => {
  it('belongs to the two lenses it was read through', () => {
    const all = chains([row('a', { acuityLogMar: 0.1 }), row('b', { rightLensOnEyeId: 'r2', acuityLogMar: 0 })]);
    expect(sightOfBoth(all, { right: 'r1', left: 'l1' })?.current.acuityLogMar).toBe(0.1);
    expect(sightOfBoth(all, { right: 'r2', left: 'l1' })?.current.acuityLogMar).toBe(0);
    expect(sightOfBoth(all, { right: 'r2', left: 'l2' })).toBeNull();
    expect(sightOfBoth(all, { right: null, left: null })).toBeNull();
  });
  it('a correction takes its place; one taken back leaves nothing', () => {
    const first = row('a', { acuityLogMar: 0.3 });
    const corrected = row('b', { rootId: 'a', correctsId: 'a', reason: 'misread', acuityLogMar: 0.1 });
    expect(sightOfBoth(chains([first, corrected]), { right: 'r1', left: 'l1' })?.current.acuityLogMar).toBe(0.1);
    const gone = row('b', { rootId: 'a', correctsId: 'a', reason: 'not read', voided: true });
    expect(sightOfBoth(chains([first, gone]), { right: 'r1', left: 'l1' })).toBeNull();
  });
  it('two eyes see at least as much as the better one: a line lost is told, less is not', () => {
    expect(linesLostTogether(0.2, { right: eye(0), left: eye(0.3) })).toBe(2);
    expect(linesLostTogether(0.1, { right: eye(0), left: eye(0) })).toBe(1);
    expect(linesLostTogether(0.08, { right: eye(0), left: eye(0) })).toBeNull();
    expect(linesLostTogether(-0.1, { right: eye(0), left: eye(0) })).toBeNull();
  });
  it('is held against the sight through the lenses, not against a lens in front of them', () => {
    expect(linesLostTogether(0.2, { right: eye(0.2, 0), left: eye(0.2) })).toBeNull();
  });
  it('says nothing while one of the two was not read', () => {
    expect(linesLostTogether(null, { right: eye(0), left: eye(0) })).toBeNull();
    expect(linesLostTogether(0.3, { right: eye(null), left: eye(null) })).toBeNull();
    expect(linesLostTogether(0.3, { right: eye(0), left: eye(null) })).toBe(3);
  });
});
