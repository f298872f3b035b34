import { describe, expect, it } from 'vitest';
import type { NearFindingFact } from '../record/visitFacts';
import { drivingGate, farOfBoth } from './driving';

let place = 0;
const found = (sign: string, wordValue: string, visitId = 'now') => {
  place += 1;
  const id = `f${place}`;
  const at = `2026-01-05T10:${String(place).padStart(2, '0')}:00Z`;
  const row: NearFindingFact = {
    id,
    rootId: id,
    correctsId: null,
    voided: false,
    visitId,
    eye: null,
    observedAt: at,
    recordedAt: at,
    recordedBy: 'p',
    recordedByName: 'P',
    reason: null,
    sign: sign as NearFindingFact['sign'],
    numberValue: null,
    wordValue,
    note: null,
  };
  return { rootId: id, rows: [row], current: row };
};
const gate = (nearFindings: ReturnType<typeof found>[], far: number | null = null, firstPair = true) =>
  // 20/40 with both eyes: common practice, from memory.
  drivingGate({ nearFindings, visitId: 'now', far, needs: 0.3, firstPair });

describe('driving is asked about before lenses that serve near go home (no driving until adapted: common practice)', () => {
  it('where nothing serves near, or glasses do, nobody is asked', () => {
    expect(gate([])).toBeNull();
    expect(gate([found('way', 'readers')])).toBeNull();
  });
  it('waits until somebody asked; “waits” and “does not drive” let the lenses go', () => {
    expect(gate([found('way', 'monovision')])).toBe('drivingUnasked');
    expect(gate([found('way', 'monovision'), found('driving', 'waits')])).toBeNull();
    expect(gate([found('way', 'multifocal'), found('driving', 'doesNotDrive')])).toBeNull();
  });
  it('who is used to them reads 20/40 with both eyes first', () => {
    const used = [found('way', 'monovision'), found('driving', 'usedToIt')];
    expect(gate(used)).toBe('drivingUnread');
    expect(gate(used, 0.4)).toBe('drivingShort');
    expect(gate(used, 0.3)).toBeNull();
  });
  it('asks again where another way was decided since, and before the next first pair of who was to wait', () => {
    expect(gate([found('way', 'monovision', 'before'), found('driving', 'usedToIt', 'before'), found('way', 'multifocal')])).toBe('drivingUnasked');
    const waited = [found('way', 'monovision', 'before'), found('driving', 'waits', 'before')];
    expect(gate(waited)).toBe('drivingUnasked');
    expect(gate(waited, null, false)).toBeNull();
    expect(gate([found('way', 'monovision', 'before'), found('driving', 'usedToIt', 'before')])).toBeNull();
  });
});

describe('sight of both eyes at distance', () => {
  const task = (recordedAt: string, acuityLogMar: number, more: object = {}) => ({
    rootId: recordedAt,
    rows: [],
    current: { recordedAt, acuityLogMar, covered: null, distanceCm: 600, ...more } as never,
  });
  it('is the newest, never one with an eye covered, never one at near', () => {
    expect(farOfBoth({ acuitiesBoth: [], taskSights: [] })).toBeNull();
    expect(
      farOfBoth({ acuitiesBoth: [task('2', 0.1)], taskSights: [task('1', 0.3), task('3', 0.5, { distanceCm: 40 }), task('4', 0.6, { covered: 'left' })] }),
    ).toBe(0.1);
    expect(farOfBoth({ acuitiesBoth: [task('2', 0.1)], taskSights: [task('5', 0.3)] })).toBe(0.3);
  });
});
