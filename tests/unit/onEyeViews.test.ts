import { describe, expect, it } from 'vitest';
import { eyeState, type Eye } from '../../src/core';
import { lensesOfRecord } from '../../src/features/visit/shell/lenses';
import { liveEye, pendingBlink, readBlinks, readOn, typedFindings, writeBlinks, type Blink } from '../../src/features/visit/steps/onEye/model';
import { livePatterns } from '../../src/features/visit/steps/onEye/patterns';
import { costWorking, nextWorking, seriesWorking } from '../../src/features/visit/steps/onEye/working';
import type { VisitRecord } from '../../src/features/visit/shell/visitData';
import { lens, onEye, record, refraction, rotation, type RecordParts } from '../fixtures';

const trial = onEye('right', 'l20');
const plover = lens('l20', 'plover-30-toric', -3, -1.75, 20);
const visit = (parts: RecordParts = {}): VisitRecord =>
  record({ refractions: [refraction('right', -3.25, -1.75, 20)], onEye: [trial], lenses: [plover], ...parts });
const scale: VisitRecord['instruments'][number] = { id: 'i', name: 'Room 2', zero: 90, grows: 'right', addedAt: '', addedByName: '' };
const live = (r: VisitRecord, body: Readonly<Record<string, string>> = {}, early = false, instrument: typeof scale | null = null, eye: Eye = 'right') =>
  liveEye({
    record: r,
    state: eyeState(r.facts, eye, lensesOfRecord(r), r.session.settings),
    eye,
    body,
    vertexMm: 12,
    instrument,
    lensOf: lensesOfRecord(r),
    early,
  });

describe('blinks before they are recorded', () => {
  const kept: Blink[] = [
    { rotationLeft: 10, how: 'drag', scaleReading: null, instrumentId: null, photo: null },
    { rotationLeft: -4, how: 'scale', scaleReading: 94, instrumentId: 'i', photo: null },
    { rotationLeft: 0, how: 'pedal', scaleReading: null, instrumentId: null, photo: null },
    { rotationLeft: 12, how: 'photo', scaleReading: null, instrumentId: null, photo: { pictureId: 'p', rollDeg: -1.5, lid: 'held', foundDeg: 11.7 } },
    { rotationLeft: 12, how: 'photo', scaleReading: null, instrumentId: null, photo: { pictureId: 'q', rollDeg: 0, lid: 'free', foundDeg: null } },
  ];
  it('are written as one text and read back the same', () => {
    expect(readBlinks(writeBlinks(kept))).toEqual(kept);
    expect(readBlinks(undefined)).toEqual([]);
    expect(readBlinks('x:drag 1:hand 2.5:keys 3:photo 7:typed')).toEqual([
      { rotationLeft: 7, how: 'typed', scaleReading: null, instrumentId: null, photo: null },
    ]);
  });
  it('count with the one in hand, and make the verdict live', () => {
    const eye = live(visit(), { rightBlinks: writeBlinks([10, 8, 11, 10].map((rotationLeft) => ({ ...kept[0]!, rotationLeft }))), rightTurn: '11l' });
    expect(eye.blinks).toEqual([10, 8, 11, 10, 11]);
    expect(eye.stats?.mean).toBe(10);
    expect(eye.verdict.rotation?.code).toBe('compensate');
    expect(eye.made?.lens.power.axis).toBe(30);
  });
  it('go on with a series that is not full; begin another when it is, when read anew, or after settling', () => {
    const two = visit({ rotations: [rotation('right', trial.id, 10), rotation('right', trial.id, 10)] });
    expect(live(two, { rightTurn: '4l' })).toMatchObject({ continues: true, blinks: [10, 10, 4] });
    expect(live(two, { rightTurn: '4l', rightFresh: 'yes' })).toMatchObject({ continues: false, blinks: [4] });
    expect(live(two, { rightTurn: '4l' }, true)).toMatchObject({ continues: false, blinks: [4] });
    const five = visit({ rotations: [1, 2, 3, 4, 5].map(() => rotation('right', trial.id, 10)) });
    expect(live(five, { rightTurn: '4l' })).toMatchObject({ continues: false, blinks: [4] });
    expect(live(five).blinks).toEqual([10, 10, 10, 10, 10]);
  });
  it('a bare number is a reading of the scale in use, and nothing without one', () => {
    const on = readOn(scale, plover);
    expect(pendingBlink({ rightTurn: '100' }, 'right', scale, on)).toEqual({ rotationLeft: -10, how: 'scale', scaleReading: 100, instrumentId: 'i', photo: null });
    expect(pendingBlink({ rightTurn: '100' }, 'right', null, null)).toBeNull();
    expect(pendingBlink({ rightTurn: '10l' }, 'right', scale, on)).toMatchObject({ rotationLeft: 10, how: 'typed', scaleReading: null });
    expect(pendingBlink({ rightTurn: '10l', rightHow: 'drag' }, 'right', scale, on)).toMatchObject({ rotationLeft: 10, how: 'drag' });
    expect(readOn(scale, null)).toBeNull();
  });
});

describe('findings as typed', () => {
  it('numbers, words and acuities, each in its own way', () => {
    const body = {
      rightF_movement: '0,3',
      rightF_edge: 'lifts',
      rightF_acuityLens: '20/25',
      rightF_offUp: '−0.2',
      leftF_lag: '1',
      rightF_shine: '1',
      rightF_lag: 'much',
    };
    expect(typedFindings(body, 'right', 'feet')).toEqual([
      { sign: 'movement', text: '0,3', value: 0.3 },
      { sign: 'edge', text: 'lifts', value: 'lifts' },
      { sign: 'acuityLens', text: '20/25', value: 0.1 },
      { sign: 'offUp', text: '−0.2', value: -0.2 },
      { sign: 'lag', text: 'much', value: null },
    ]);
  });
  it('count in the verdict before they are recorded; what cannot be read does not', () => {
    expect(live(visit(), { rightF_movement: '0.3', rightF_pushUp: '50' }).fitVerdict.verdict).toBe('fits');
    expect(live(visit(), { rightF_movement: 'some' }).fitVerdict.verdict).toBeNull();
  });
});

describe('what is typed, looked at against this lens', () => {
  it('no lens, a surprise, nothing', () => {
    const r = visit({ rotations: [rotation('right', trial.id, 0)] });
    const of = (over: string) => livePatterns(r, { right: live(r, { right: over }), left: live(r, {}, false, null, 'left') }, lensesOfRecord(r)).right;
    expect(of('-3.00 -1.75 x 20')).toEqual([{ code: 'noLens' }]);
    expect(of('-1.50')).toMatchObject([{ code: 'surprise' }]);
    expect(of('plano')).toEqual([]);
  });
  it('sight typed beside a new over-refraction belongs to it, and the old one’s does not', () => {
    const r = visit();
    expect(live(r, { right: '+0.50', rightOverVa: '20/20' }).acuities.over).toBe(0);
    expect(live(r, { right: '+0.50' }).acuities.over).toBeNull();
  });
});

describe('workings of the desks', () => {
  const { settings } = visit().session;
  it('from the blinks to the lens’s own scatter', () => {
    const eye = live(visit(), { rightTurn: '', rightBlinks: '0:drag:: 12:drag:: -3:drag:: 15:drag:: 4:drag::' });
    if (!eye.stats) throw new Error('stats');
    const words = {
      title: '',
      readings: 'r',
      mean: 'm',
      sd: 's',
      noise: 'n',
      own: 'o',
      slope: 'd',
      limit: (a: string, b: string) => `${a}/${b}`,
      three: 't',
      foot: '',
    };
    const lines = Object.fromEntries(seriesWorking('x', eye.blinks, eye.stats, -1.75, settings, words).lines.map((l) => [l.what, l.comes]));
    expect(lines.r).toBe('0, 12, −3, 15, 4');
    expect(lines.n).toBe('√(7.70² − 2²)');
    expect(lines.o).toBe('7.4°');
    expect(lines['1.75/0.15']).toBe('4.9°');
    expect(lines.t).toBe('3.0°');
  });
  it('what a turn costs: the cylinder is twice the blur', () => {
    const { lines } = costWorking('x', -2.25, 10, { title: '', cylinder: 'c', blur: 'b', foot: '' });
    expect(lines.map((l) => l.comes)).toEqual(['2 × 2.25 × sin 10° = 0.78 D', '2.25 × sin 10° = 0.39 D']);
  });
  it('depths of a family’s curves, each once, the tried one strong', () => {
    const curves = [
      { baseCurve: 8.4, diameter: 14.2 },
      { baseCurve: 8.8, diameter: 14.2 },
      { baseCurve: 8.4, diameter: 14.2 },
    ];
    const block = nextWorking('x', { baseCurve: 8.8, diameter: 14.2 }, curves, { title: '', foot: '' });
    expect(block?.lines.map((l) => [l.what, l.comes, l.strong])).toEqual([
      ['8.4 / 14.2', '3.911 mm', false],
      ['8.8 / 14.2', '3.601 mm', true],
    ]);
  });
});
