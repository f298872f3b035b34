import { describe, expect, it } from 'vitest';
import { chains, handedFor, turnHistory, type HandedLens } from '../../src/core';
import { onEye, rotation } from '../fixtures';

const handed = (id: string, change: Partial<HandedLens> = {}): HandedLens => ({
  id,
  rootId: id,
  correctsId: null,
  voided: false,
  eye: 'right',
  visitId: 'before',
  observedAt: '2026-11-01T10:00:00Z',
  recordedAt: '2026-11-01T10:00:00Z',
  recordedBy: 'p',
  recordedByName: 'P',
  reason: null,
  lensId: 'plover',
  lot: 'P1',
  expiresOn: '2028-01-01',
  handedOn: '2026-11-01',
  ...change,
});

describe('a lens worn home', () => {
  it('is offered by eye, the newest first, each lens of a lot once', () => {
    const rows = [
      handed('a'),
      handed('b', { recordedAt: '2026-11-08T10:00:00Z', lot: 'P2' }),
      handed('c', { recordedAt: '2026-11-09T10:00:00Z' }),
      handed('d', { eye: 'left' }),
    ];
    expect(handedFor('right', chains(rows)).map((h) => h.rootId)).toEqual(['c', 'b']);
    expect(handedFor('left', chains(rows)).map((h) => h.rootId)).toEqual(['d']);
  });
  it('keeps how it turned: the last series of each visit, never another lens or the other eye', () => {
    const first = { ...onEye('right', 'plover'), visitId: 'one' };
    const other = { ...onEye('right', 'knot'), visitId: 'one' };
    const second = { ...onEye('right', 'plover'), visitId: 'two' };
    const read = (lens: { id: string; visitId: string }, turn: number, seriesNo: number, at: string) => ({
      ...rotation('right', lens.id, turn, at),
      visitId: lens.visitId,
      seriesNo,
    });
    const rotations = [
      read(first, 20, 1, '2026-11-01T10:00:00Z'),
      read(first, 9, 2, '2026-11-01T10:05:00Z'),
      read(first, 11, 2, '2026-11-01T10:06:00Z'),
      read(other, -30, 1, '2026-11-01T10:07:00Z'),
      read(second, 8, 1, '2026-11-08T10:00:00Z'),
    ];
    const history = turnHistory('right', 'plover', chains([first, other, second]), chains(rotations));
    expect(history.map((h) => [h.visitId, h.rotationLeft, h.readings])).toEqual([
      ['two', 8, 1],
      ['one', 10, 2],
    ]);
    expect(turnHistory('left', 'plover', chains([first, other, second]), chains(rotations))).toEqual([]);
  });
});
