import { describe, expect, it } from 'vitest';
import { careTopicsFor, eyeState, formatRefraction, type Eye, type EyeState, eyeSupply, isAnswered, orderOf, stateOf } from '../../src/core';
import { healthOfRecord } from '../../src/features/visit/shell/health';
import { lensesOfRecord } from '../../src/features/visit/shell/lenses';
import { stepAnswers } from '../../src/core';
import { checkOf, toPrescribe } from '../../src/features/visit/steps/prescription/model';
import { hasReading, liveEye, noteOf, turnText } from '../../src/features/visit/steps/onEye/model';
import { expectedWorking, routesWorking } from '../../src/features/visit/steps/onEye/working';
import { cornealWorking } from '../../src/features/visit/steps/refraction/working';
import { sourceOf } from '../../src/features/visit/steps/supply/model';
import { eyeInTurn, lessonView, lockList } from '../../src/features/visit/steps/lesson/model';
import type { VisitRecord } from '../../src/features/visit/shell/visitData';
import {
  AT,
  attempt,
  handedOver,
  LATER,
  lens,
  lesson,
  onEye,
  order,
  overRefraction,
  prescription,
  record,
  refraction,
  rotation,
  topic,
  type RecordParts,
} from '../fixtures';

const stateFor = (r: VisitRecord, eye: Eye): EyeState => eyeState(r.facts, eye, lensesOfRecord(r), r.session.settings);
/** One eye of the screen, with a body of typing on top and a lens that has settled. */
const liveOf = (r: VisitRecord, body: Readonly<Record<string, string>> = {}, instrument: VisitRecord['instruments'][number] | null = null) =>
  liveEye({ record: r, state: stateFor(r, 'right'), eye: 'right', body, vertexMm: 12, instrument, lensOf: lensesOfRecord(r), early: false });
/** Three blinks at one place. */
const blinks = (turn: number) => [1, 2, 3].map(() => rotation('right', trial.id, turn));
const trial = onEye('right', 'l20');
const plover20 = lens('l20', 'plover-30-toric', -3, -1.75, 20);
const read = (parts: RecordParts = {}) =>
  record({ refractions: [refraction('right', -3.25, -1.75, 20)], onEye: [trial], lenses: [plover20], rotations: blinks(10), ...parts });

describe('on the eye: what is recorded, with what is being typed on top', () => {
  it('typed text counts before it is recorded', () => {
    const r = read();
    const live = liveOf(r, { right: '+0.25 -0.50 x 70' });
    expect(live.turn).toBe(10);
    expect(live.verdict.routes?.agree).toBe(true);
    expect(live.made?.lens.power).toEqual({ sphere: -3, cylinder: -1.75, axis: 30 });
  });
  it('a half-typed power changes nothing', () => {
    const r = read();
    const live = liveOf(r, { right: '+0.25 -0.50' });
    expect(live.verdict.fromOverRefraction).toBeNull();
    expect(live.verdict.order?.axis).toBeCloseTo(30, 9);
  });
  it('a typed turn stands in front of the recorded one', () => {
    const r = read();
    expect(liveOf(r, { rightTurn: '5r' })).toMatchObject({ turn: -5, turnKnown: true });
  });
  it('nothing read: the drawing stands at zero but says that it is not known', () => {
    const r = read({ rotations: [] });
    expect(liveOf(r)).toMatchObject({ turn: 0, turnKnown: false });
  });
  it('no lens is offered while the routes disagree', () => {
    const r = read({ overRefractions: [overRefraction('right', trial.id, -0.75, -0.75, 160)] });
    expect(liveOf(r)).toMatchObject({ made: null, verdict: { order: null } });
  });
  it('an unconfirmed lens gives no second route', () => {
    const r = read({ unconfirmed: true, overRefractions: [overRefraction('right', trial.id, 0.25, -0.5, 70)] });
    expect(liveOf(r).verdict.fromOverRefraction).toBeNull();
  });
  it.each([
    [10, '10l'],
    [-5, '5r'],
    [0, '0l'],
  ])('%d is typed %s', (turn, text) => {
    expect(turnText(turn)).toBe(text);
  });
  it('knows whether anything waits to be recorded', () => {
    expect(hasReading({ rightTurn: ' ' }, 'right')).toBe(false);
    expect(hasReading({ leftFit: 'fits' }, 'right')).toBe(false);
    expect(hasReading({ leftFit: 'fits' }, 'left')).toBe(true);
  });
});

describe('workings', () => {
  const words = {
    title: 't',
    lensAsLabelled: 'label',
    asItLies: (a: string) => `lies ${a}`,
    overAtCornea: 'over',
    need: 'need',
    route1: 'one',
    route2: 'two',
    gap: 'gap',
    gapOfMean: 'gap of mean',
    meanOnly: 'mean only',
    weighted: 'weighted',
    gate: 'gate',
    order: (a: string) => `order ${a}`,
    made: 'made',
    foot: 'f',
  };
  it('both routes, line by line, to the lens that is made', () => {
    const r = read({ overRefractions: [overRefraction('right', trial.id, 0.25, -0.5, 70)] });
    const live = liveOf(r);
    const block = routesWorking('id', live, { power: { sphere: 0.25, cylinder: -0.5, axis: 70 }, vertexMm: 12 }, words);
    const lines = Object.fromEntries((block?.lines ?? []).map((l) => [l.what, l.comes]));
    expect(lines['one: −3.25 −1.75 × 20']).toBe('−3.13 −1.59 × 20');
    expect(lines['lies 20 − 10']).toBe('−3.00 −1.75 × 10');
    expect(lines.two).toBe('−3.09 −1.56 × 18');
    expect(lines.gap).toBe('0.07 D');
    expect(lines.gate).toBe('0.76 D');
    expect(lines.weighted).toBe('−3.10 −1.57 × 19');
    expect(lines['order 18 + 10']).toBe('× 28');
    expect(lines.made).toBe('−3.00 −1.75 × 30');
  });
  it('a turn to the right is added where the lens lies and subtracted in the order', () => {
    const r = read({ rotations: blinks(-10) });
    const block = routesWorking('id', liveOf(r), null, words);
    expect(block?.lines.map((l) => l.what)).toEqual(expect.arrayContaining(['lies 20 + 10', 'order 20 − 10']));
  });
  it('without a lens there is nothing to work out', () => {
    const r = record({ refractions: [refraction('right', -1, 0, 180)] });
    expect(routesWorking('id', liveOf(r), null, words)).toBeNull();
  });
  it('the expected over-refraction', () => {
    const r = read();
    const live = liveOf(r);
    const { fromRefraction, expectedOverRefraction } = live.verdict;
    if (!fromRefraction || !expectedOverRefraction) throw new Error('verdict');
    const block = expectedWorking(
      'id',
      { need: fromRefraction, lens: { sphere: -3, cylinder: -1.75, axis: 20 }, turn: 10, expected: expectedOverRefraction, vertexMm: 12 },
      { title: 't', need: 'n', lies: 'l', left: 'o', atFrame: 'at', foot: 'f' },
    );
    expect(block.lines.map((l) => l.comes)).toEqual(['−3.13 −1.59 × 20', '−3.00 −1.75 × 10', '+0.25 −0.60 × 68', formatRefraction(expectedOverRefraction)]);
  });
  it('from the glasses to the cornea, both meridians', () => {
    const block = cornealWorking('id', { sphere: -3.25, cylinder: -1.75, axis: 20 }, 12, 'R', {
      title: 't',
      formula: 'f',
      along: (a) => `along ${a}`,
      foot: '',
    });
    expect(block.lines.map((l) => `${l.what}: ${l.comes}`)).toEqual([
      'f: d = 0.012 m',
      'along 20: −3.25 ÷ 1.039 = −3.128',
      'along 110: −5.00 ÷ 1.060 = −4.717',
      'R: −3.13 −1.59 × 20',
    ]);
  });
  it('a sphere has one meridian to show', () => {
    expect(cornealWorking('id', { sphere: -4, cylinder: 0, axis: 180 }, 12, 'R', { title: '', formula: '', along: String, foot: '' }).lines).toHaveLength(3);
  });
});

describe('what would be prescribed', () => {
  it('the nearest of the family that was tried, in the curve that was tried', () => {
    const r = read({ overRefractions: [overRefraction('right', trial.id, 0.25, -0.5, 70)] });
    const plan = toPrescribe(r, stateFor(r, 'right'), 'right', {});
    expect(plan).toMatchObject({ blocked: null, sameAsTried: false, variant: { baseCurve: 8.6, diameter: 14.2 } });
    expect(plan.lens?.power.axis).toBe(30);
    expect(plan.offers).toHaveLength(5);
  });
  it('says when it is the same lens', () => {
    const r = read({ rotations: blinks(0) });
    expect(toPrescribe(r, stateFor(r, 'right'), 'right', {}).sameAsTried).toBe(true);
  });
  it.each([
    ['disagreeing routes', { overRefractions: [overRefraction('right', trial.id, -0.75, -0.75, 160)] }, 'measureAgain'],
    ['nothing measured', { refractions: [], overRefractions: [], onEye: [], rotations: [] }, 'nothingMeasured'],
    ['no family known', { onEye: [], rotations: [] }, 'noFamily'],
  ] as const)('%s blocks it', (_name, parts, blocked) => {
    const r = read(parts);
    expect(toPrescribe(r, stateFor(r, 'right'), 'right', {}).blocked).toBe(blocked);
  });
  it('a family can be chosen where none was tried; an eye can be left out', () => {
    const r = read({ onEye: [], rotations: [] });
    expect(toPrescribe(r, stateFor(r, 'right'), 'right', { rightFamily: 'godwit-made-toric' }).lens?.power.axis).toBe(20);
    expect(toPrescribe(r, stateFor(r, 'right'), 'right', { rightOut: 'yes' }).leftOut).toBe(true);
  });
  it('another of the offers can be taken', () => {
    const r = read();
    const first = toPrescribe(r, stateFor(r, 'right'), 'right', {});
    const second = toPrescribe(r, stateFor(r, 'right'), 'right', { rightPower: '1' });
    expect(second.lens).toEqual(first.offers[1]);
    expect(toPrescribe(r, stateFor(r, 'right'), 'right', { rightPower: '99' }).lens).toEqual(first.offers[0]);
  });
});

describe('what is said before signing, and of the readings', () => {
  const check = (r: VisitRecord, body: Record<string, string> = {}) => checkOf(toPrescribe(r, stateFor(r, 'right'), 'right', body));
  it.each([
    ['left out by hand', {}, { rightOut: 'yes' }, 'leftOut', 'watch'],
    ['nothing measured', { refractions: [], onEye: [], rotations: [] }, {}, 'leftOut', 'watch'],
    ['routes disagree', { overRefractions: [overRefraction('right', trial.id, -0.75, -0.75, 160)] }, {}, 'blocked', 'stop'],
    ['as tried', { rotations: blinks(0) }, {}, 'same', 'ok'],
    ['changed by the readings', { rotations: blinks(10) }, {}, 'changed', 'ok'],
    ['one blink only', { rotations: [rotation('right', trial.id, 10)] }, {}, 'blocked', 'stop'],
    ['one blink, and a prescriber orders all the same', { rotations: [rotation('right', trial.id, 10)] }, { rightDespite: 'yes' }, 'changed', 'ok'],
    ['a lens that does not sit still', { rotations: [0, 20, -10, 15, -5].map((turn) => rotation('right', trial.id, turn)) }, {}, 'blocked', 'stop'],
    [
      'too early, and not at rest yet',
      { rotations: [0, 20, -10, 15, -5].map((turn) => ({ ...rotation('right', trial.id, turn), provisional: true })) },
      {},
      'blocked',
      'stop',
    ],
    ['rotated over 30°', { rotations: blinks(35) }, {}, 'blocked', 'stop'],
  ] as const)('%s', (_name, parts, body, code, state) => {
    expect(check(read(parts), body)).toEqual({ code, state });
  });
  it.each([
    ['the turn asks for another axis', { rotations: blinks(10) }, { code: 'other', power: '−3.00 −1.75 × 30', turned: true, provisional: null }],
    ['from one blink no order', { rotations: [rotation('right', trial.id, 10)] }, { code: 'fewBlinks', state: 'watch', power: '' }],
    [
      'read too early and not at rest: no power, no axis',
      { rotations: [0, 20, -10, 15, -5].map((turn) => ({ ...rotation('right', trial.id, turn), provisional: true })) },
      { code: 'notSteadyYet', state: 'watch', power: '' },
    ],
    ['the lens on the eye is the nearest', { rotations: blinks(0) }, { code: 'same', state: 'ok', provisional: null }],
    ['measure again', { overRefractions: [overRefraction('right', trial.id, -0.75, -0.75, 160)] }, { code: 'measureAgain', state: 'stop' }],
  ] as const)('%s', (_name, parts, note) => {
    const r = read(parts);
    expect(noteOf(liveOf(r))).toMatchObject(note);
  });
  it('nothing on the eye says nothing', () => {
    const r = read({ onEye: [], rotations: [] });
    expect(noteOf(liveOf(r))).toBeNull();
  });
});

describe('the step index', () => {
  const answers = (r: VisitRecord) =>
    stepAnswers({
      aftercare: [],
      aftercareEnds: [],
      ...r,
      visitId: r.visit.id,
      kind: r.visit.kind,
      eyes: { right: stateFor(r, 'right'), left: stateFor(r, 'left') },
      health: healthOfRecord(r, { right: null, left: null }),
    });
  it('an empty visit has nothing done', () => {
    const all = answers(record());
    expect(all.refraction).toEqual({ code: 'notYet', state: null });
    expect(all.history.code).toBe('notAsked');
    expect(all.eyeHealth.code).toBe('notGraded');
  });
  it('one eye is said to be one eye', () => {
    expect(answers(read())).toMatchObject({ refraction: { code: 'rightOnly' }, lens: { code: 'rightOnly' }, onEye: { code: 'read', state: 'ok' } });
  });
  it('disagreeing routes ask for a look', () => {
    expect(answers(read({ overRefractions: [overRefraction('right', trial.id, -0.75, -0.75, 160)] })).onEye).toEqual({ code: 'measureAgain', state: 'watch' });
  });
  it('a power measured after the signature marks it to be checked again; the prescription stays', () => {
    const signed = prescription([{ eye: 'right', lensId: 'l20' }]);
    expect(answers(read({ prescriptions: [signed] })).prescription).toMatchObject({ code: 'signed', number: 7 });
    expect(answers(read({ prescriptions: [signed], refractions: [refraction('right', -3.5, -1.75, 20, LATER)] })).prescription).toEqual({
      code: 'checkAgain',
      state: 'watch',
    });
  });
  it('order and lesson as they go on', () => {
    const orders = (states: Parameters<typeof order>[1]) => answers(read({ orders: [order([{ eye: 'right', lensId: 'l20', packs: 1 }], states)] })).supply;
    expect(orders(['placed'])).toMatchObject({ code: 'ordered', state: 'watch' });
    expect(orders(['placed', 'sendFailed', 'acknowledged'])).toMatchObject({ code: 'acknowledged', state: 'ok', number: 3 });
    expect(answers(read({ lessons: [lesson('a')] })).lesson).toEqual({ code: 'running', state: null });
    expect(answers(read({ lessons: [lesson('a', { signOffId: 's' })] })).lesson).toEqual({ code: 'signedOff', state: 'ok' });
  });
});

describe('the lesson on screen', () => {
  const viewOf = (of: Parameters<typeof lessonView>[0]) => lessonView(of, { right: {}, left: {} }, [], AT);
  it('nothing before it starts', () => {
    expect(viewOf(record())).toBeNull();
  });
  it('counts since the last sign-off only', () => {
    const before = lesson('old', { signOffId: 's', visitId: 'earlier' });
    const now = lesson('new', { onAtStart: ['right', 'left'] });
    const view = viewOf(
      record({
        lessons: [before, now],
        attempts: [attempt('old', 'right', 'on'), attempt('new', 'right', 'off')],
        topics: [topic('old', 'noWater'), topic('new', 'dangerSigns')],
      }),
    );
    expect(view?.gate.done.right).toEqual({ on: 0, off: 1 });
    expect(view?.topics.map((x) => x.topic)).toEqual(['dangerSigns']);
    expect(view?.next).toEqual({ right: 'on', left: 'off' });
  });
  it('right eye first, then the left', () => {
    const twice = (eye: Eye) => (['on', 'off', 'on', 'off'] as const).map((move) => attempt('a', eye, move));
    const view = viewOf(record({ lessons: [lesson('a')], attempts: twice('right') }));
    const start = viewOf(record({ lessons: [lesson('a')] }));
    if (!view || !start) throw new Error('view');
    expect([eyeInTurn(start), eyeInTurn(view)]).toEqual(['right', 'left']);
    expect(eyeInTurn({ ...start, lesson: lesson('a', { eyes: ['left'] }) })).toBe('left');
  });
  it('the lock’s list is short: no "once today" beside a move that is wanted anyway, topics counted', () => {
    const view = viewOf(record({ lessons: [lesson('a')] }));
    const list = lockList(view?.gate.missing ?? []);
    expect(list.moves.every((m) => m.kind === 'moves')).toBe(true);
    expect(list.moves).toHaveLength(4);
    expect(list.topics).toBe(careTopicsFor({ singleUse: false }).length);
  });
  it('a lesson on another day teaches the nights that were decided before it', () => {
    const base = record({ lessons: [lesson('a')] });
    const slept = { ...base, health: { ...base.health, wearBefore: 'overnight' as const } };
    expect(viewOf(slept)?.mandatory).toContain('overnightRules');
    expect(viewOf(base)?.mandatory).toContain('neverSleep');
  });
  it('a single-use lens asks fewer topics', () => {
    expect(viewOf(record({ lessons: [lesson('a', { singleUse: true })] }))?.mandatory).not.toContain('freshSolution');
  });
});

describe('supply on screen', () => {
  const rx = prescription([{ eye: 'right', lensId: 'l20' }]);
  const base = { lenses: [plover20], prescriptions: [rx] };
  it('proposes boxes up to the expiry and dates them', () => {
    const s = eyeSupply(sourceOf(record(base)), rx, 'right', null);
    expect(s).toMatchObject({ packs: 2, proposed: 2, packSize: 6, leadDays: 5, plan: { ifOpened: true, orderOpens: '2026-11-29' } });
  });
  it('what was handed over comes first', () => {
    const s = eyeSupply(sourceOf(record({ ...base, handOvers: [handedOver('right', 'l20')] })), rx, 'right', null);
    expect(s?.plan).toMatchObject({ inHandUntil: '2026-12-23', orderOpens: '2026-12-24', runOut: '2027-06-21' });
  });
  it('what is ordered counts before what is typed', () => {
    const s = eyeSupply(sourceOf(record({ ...base, orders: [order([{ eye: 'right', lensId: 'l20', packs: 2 }])] })), rx, 'right', 9);
    expect(s?.packs).toBe(2);
  });
  it('a refused order does not count', () => {
    const r = record({ ...base, orders: [order([{ eye: 'right', lensId: 'l20', packs: 1 }], ['placed', 'refused'])] });
    expect(orderOf(r, rx, 'right')).toBeNull();
    expect(eyeSupply(sourceOf(r), rx, 'right', null)?.packs).toBe(2);
  });
  it('an eye that is not prescribed has none', () => {
    expect(eyeSupply(sourceOf(record(base)), rx, 'left', null)).toBeNull();
  });
  it.each([
    [['placed'], 'placed', false],
    [['placed', 'sendFailed'], 'sendFailed', false],
    [['placed', 'backordered'], 'backordered', true],
    [['placed', 'acknowledged'], 'acknowledged', true],
  ] as const)('%j is %s', (states, state, settled) => {
    const o = order([{ eye: 'right', lensId: 'l20', packs: 1 }], states);
    expect([stateOf(o), isAnswered(o)]).toEqual([state, settled]);
  });
});
