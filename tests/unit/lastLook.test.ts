import { describe, expect, it } from 'vitest';
import { lastLook, lastLookAtWearer, type Eye, type Findings, type LookArea, type ToSign } from '../../src/core';
import { asChains } from '../../src/features/visit/steps/eyeHealth/model';
import { eyesOfRecord } from '../../src/features/visit/shell/eyes';
import { healthOfRecord } from '../../src/features/visit/shell/health';
import { lensesOfRecord } from '../../src/features/visit/shell/lenses';
import { fit, lens, onEye, overRefraction, record, refraction, rotation, type RecordParts } from '../fixtures';

const NEEDS = { right: null, left: null };
const BY_DAY: ToSign = { wearsAdd: false, overnight: false, overnightApproved: false };
const chains = (eyes: Readonly<Record<Eye, Findings>>) =>
  asChains(
    (['right', 'left'] as const).flatMap((eye) => Object.entries(eyes[eye]).map(([sign, value]) => ({ eye, sign: sign as 'pain', value: value as number }))),
    'visit',
  );

/** One right eye with a toric trial, read three times, judged, read through. */
function tried(change: Partial<RecordParts> = {}): RecordParts {
  const trial = onEye('right', 'trial');
  return {
    lenses: [lens('trial', 'plover-30-toric', -3, -1.75, 20)],
    refractions: [refraction('right', -3.25, -1.75, 20)],
    onEye: [trial],
    rotations: [9, 10, 11].map((turn) => rotation('right', trial.id, turn)),
    fits: [fit('right', trial.id, 'fits')],
    overRefractions: [overRefraction('right', trial.id, 0, 0, 180)],
    ...change,
  };
}
function look(parts: RecordParts, lensToSign: ToSign = BY_DAY, eyes: Readonly<Record<Eye, Findings>> = { right: { staining: 0 }, left: {} }) {
  const r = record(parts);
  const health = healthOfRecord(r, NEEDS, { findings: chains(eyes) });
  const lines = lastLook(eyesOfRecord(r, lensesOfRecord(r)).right, health, 'right', lensToSign);
  const at = (area: LookArea) => lines.find((l) => l.area === area);
  return { lines, at, health };
}

describe('the last look before signing', () => {
  it('a good fit, looked at today, asks nothing but its sight', () => {
    const { lines } = look(tried());
    expect(lines.filter((l) => l.state === 'asks' || l.state === 'stop')).toEqual([]);
    expect(lines.map((l) => l.area)).toEqual(['need', 'order', 'fit', 'sight', 'cornea', 'oxygen', 'turn', 'add']);
  });
  it('a lens recorded tight is never silent, whatever the signs say', () => {
    const trial = onEye('right', 'trial');
    const parts = tried({
      onEye: [trial],
      rotations: [9, 10, 11].map((turn) => rotation('right', trial.id, turn)),
      fits: [fit('right', trial.id, 'tight')],
      overRefractions: [],
    });
    expect(look(parts).at('fit')).toMatchObject({ code: 'fitTight', state: 'asks' });
  });
  it('an eye never graded today asks; what was graded on another day does not count', () => {
    expect(look(tried(), BY_DAY, { right: {}, left: {} }).at('cornea')).toMatchObject({ code: 'corneaUngraded', state: 'asks' });
    expect(look(tried(), BY_DAY, { right: { papillae: 0 }, left: { staining: 0 } }).at('cornea')).toMatchObject({ state: 'asks' });
    expect(look(tried()).at('cornea')).toMatchObject({ state: 'ok' });
  });
  it('danger signs never asked about', () => {
    expect(lastLookAtWearer(look(tried()).health)).toMatchObject([{ code: 'dangerUnasked', state: 'asks' }]);
  });
  it('a turn never read, and fewer than three readings, ask', () => {
    const trial = onEye('right', 'trial');
    const base = { onEye: [trial], fits: [fit('right', trial.id, 'fits')], overRefractions: [] };
    expect(look(tried({ ...base, rotations: [] })).at('turn')).toMatchObject({ code: 'turnUnread', state: 'asks' });
    expect(look(tried({ ...base, rotations: [rotation('right', trial.id, 10)] })).at('order')).toMatchObject({ state: 'asks' });
  });
  it('an addition that is worn and was never measured is said', () => {
    expect(look(tried(), { ...BY_DAY, wearsAdd: true }).at('add')).toMatchObject({ code: 'addUnread', state: 'watch' });
  });
  it('a near eye whose addition nobody found asks: its lens would be for far', () => {
    const r = record(tried());
    const eye = eyesOfRecord(r, lensesOfRecord(r)).right;
    const { health } = look(tried());
    const at = (plus: number) => lastLook({ ...eye, aim: { sees: 'near', plus } }, health, 'right', BY_DAY).find((l) => l.area === 'add');
    expect(at(0)).toMatchObject({ code: 'nearAddMissing', state: 'asks' });
    expect(at(1.5)).toMatchObject({ code: 'addNone', state: 'ok' });
  });
  it('a near eye that reads badly at distance asks for near: it may be sick as well (hazard: a sick eye taken for an expected loss)', () => {
    const r = record(tried());
    const eye = eyesOfRecord(r, lensesOfRecord(r)).right;
    const { health } = look(tried());
    const at = (acuities: Partial<typeof eye.acuities>) =>
      lastLook({ ...eye, acuities: { ...eye.acuities, glasses: 0, lens: null, over: null, nearEye: true, ...acuities } }, health, 'right', BY_DAY).find(
        (l) => l.area === 'sight',
      );
    expect(at({})).toMatchObject({ code: 'sightNearUnread', state: 'watch' });
    expect(at({ lens: 0.6 })).toMatchObject({ code: 'sightNearUnread', state: 'asks' });
    expect(at({ lens: 0.6, near: 0.04 })?.code).not.toBe('sightNearUnread');
    expect(at({ lens: 0.6, near: 0.3 })).toMatchObject({ code: 'sightUnrestored', state: 'asks' });
  });
  it('for nights no sentence overrides a lens without approval, without oxygen at its power, or an eye not looked at', () => {
    const night: ToSign = { wearsAdd: false, overnight: true, overnightApproved: true, dkt: 140 };
    expect(look(tried(), { ...night, overnightApproved: false }).at('oxygen')).toMatchObject({ code: 'nightNotApproved', state: 'stop' });
    expect(look(tried(), { ...night, dkt: null }).at('oxygen')).toMatchObject({ code: 'nightOxygen', state: 'stop' });
    expect(look(tried(), night).at('oxygen')).toMatchObject({ code: 'nightsNotClear', state: 'stop' });
  });
  it('by day too little or unknown oxygen asks only where the cornea shows its want', () => {
    const low = { ...BY_DAY, dkt: 20 };
    expect(look(tried(), low).at('oxygen')).toMatchObject({ code: 'oxygenLow', state: 'watch' });
    expect(look(tried(), low, { right: { staining: 0, oedema: 0.5 }, left: {} }).at('oxygen')).toMatchObject({ state: 'asks' });
    expect(look(tried(), { ...BY_DAY, dkt: null }, { right: { staining: 0, vessels: 1 }, left: {} }).at('oxygen')).toMatchObject({
      code: 'oxygenUnknown',
      state: 'asks',
    });
  });
});
