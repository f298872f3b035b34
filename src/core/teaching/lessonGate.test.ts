import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  careTopicsFor,
  CARE_TOPICS,
  lessonGate,
  nextMove,
  topicsAgain,
  topicsOfChange,
  type Attempt,
  type Eye,
  type LessonSoFar,
  type Move,
  type OnceTaught,
} from '../index';

const tried = (eye: Eye, move: Move, change: Partial<Attempt> = {}): Attempt => ({ eye, move, worked: true, unaided: true, today: true, ...change });
const twice = (eye: Eye): Attempt[] => [tried(eye, 'on'), tried(eye, 'off'), tried(eye, 'on'), tried(eye, 'off')];
const topics = careTopicsFor({ singleUse: false });
const asked = { topics, again: topicsAgain(topics) };
const all: LessonSoFar = {
  attempts: [...twice('right'), ...twice('left')],
  topicsSaidBack: topics,
  saidAgain: asked.again,
  eyes: ['right', 'left'],
  sightRead: ['right', 'left'],
  careNamed: true,
};

describe('the lesson’s lock (two on and two off, acuity, topics said back: common practice)', () => {
  it('opens after two on and two off of each eye, acuity of each, every topic, and the care system named', () => {
    expect(lessonGate(all, asked)).toMatchObject({ open: true, missing: [], practise: true });
  });
  it.each([
    ['one off short', [...twice('right'), ...twice('left').slice(0, 3)], { kind: 'moves', eye: 'left', move: 'off', more: 1 }],
    [
      'helped once',
      [...twice('right'), ...twice('left').slice(0, 3), tried('left', 'off', { unaided: false })],
      { kind: 'moves', eye: 'left', move: 'off', more: 1 },
    ],
    [
      'a miss does not count',
      [...twice('right'), ...twice('left').slice(0, 3), tried('left', 'off', { worked: false })],
      { kind: 'moves', eye: 'left', move: 'off', more: 1 },
    ],
    ['nothing today', [...twice('right'), ...twice('left').map((a) => ({ ...a, today: false }))], { kind: 'today', eye: 'left', move: 'on' }],
  ] as const)('%s keeps it locked', (_name, attempts, missing) => {
    const gate = lessonGate({ ...all, attempts: [...attempts] }, asked);
    expect(gate.open).toBe(false);
    expect(gate.missing).toContainEqual(missing);
  });
  it.each([
    ['acuity of an eye', { sightRead: ['right'] }, { kind: 'sight', eye: 'left' }],
    ['the care system', { careNamed: false }, { kind: 'care' }],
    ['what is asked again', { saidAgain: asked.again.slice(1) }, { kind: 'again', topic: asked.again[0] }],
  ] as const)('%s keeps it locked by itself', (_name, change, missing) => {
    expect(lessonGate({ ...all, ...change }, asked).missing).toEqual([missing]);
  });
  it('two in a row of the same move count once: a lens that fell in between is an event', () => {
    expect(lessonGate({ ...all, attempts: [tried('right', 'on'), tried('right', 'on')] }, asked).done.right.on).toBe(1);
  });
  it('each topic locks it by itself', () => {
    for (const topic of topics) {
      const gate = lessonGate({ ...all, topicsSaidBack: topics.filter((t) => t !== topic) }, asked);
      expect(gate.missing).toEqual([{ kind: 'topic', topic }]);
    }
  });
  it('practising at home needs every lens to come off without help and every topic, not yet two on', () => {
    const offs = (eye: Eye): Attempt[] => [tried(eye, 'off'), tried(eye, 'on', { unaided: false }), tried(eye, 'off')];
    const so = { ...all, attempts: [...offs('right'), ...offs('left')], sightRead: [] };
    expect(lessonGate(so, asked)).toMatchObject({ open: false, practise: true });
    expect(lessonGate({ ...so, attempts: offs('right') }, asked).practise).toBe(false);
    expect(lessonGate({ ...so, saidAgain: [] }, asked).practise).toBe(false);
  });
  it('one eye only; topics alone', () => {
    expect(lessonGate({ ...all, attempts: twice('left'), eyes: ['left'], sightRead: ['left'] }, asked).open).toBe(true);
    expect(lessonGate({ ...all, attempts: [], eyes: [], sightRead: [] }, asked).open).toBe(true);
    expect(lessonGate({ ...all, attempts: [], eyes: [], sightRead: [], topicsSaidBack: [] }, asked).open).toBe(false);
  });
  it('more attempts never lock it again', () => {
    const arb = fc.array(
      fc.record({
        eye: fc.constantFrom<Eye>('right', 'left'),
        move: fc.constantFrom<Move>('on', 'off'),
        worked: fc.boolean(),
        unaided: fc.boolean(),
        today: fc.boolean(),
      }),
      { maxLength: 30 },
    );
    fc.assert(
      fc.property(arb, arb, (before, more) => {
        if (lessonGate({ ...all, attempts: before }, asked).open) expect(lessonGate({ ...all, attempts: [...before, ...more] }, asked).open).toBe(true);
      }),
    );
  });
  it('on and off alternate, from what is on the eye', () => {
    expect(nextMove([], 'right', true)).toBe('off');
    expect(nextMove([tried('right', 'off')], 'right', true)).toBe('on');
    expect(nextMove([tried('right', 'off', { worked: false })], 'right', true)).toBe('off');
    expect(nextMove([tried('left', 'on')], 'right', false)).toBe('on');
  });
});

describe('which topics', () => {
  it('a single-use lens has no rubbing, every lens has the danger signs and no water', () => {
    expect(careTopicsFor({ singleUse: true })).not.toContain('rubAndRinse');
    expect(careTopicsFor({ singleUse: true })).toEqual(expect.arrayContaining(['dangerSigns', 'noWater', 'stuckLens', 'droppedLens']));
  });
  it('every topic is somebody’s', () => {
    const everybody = [true, false].flatMap((b) => careTopicsFor({ singleUse: false, overnight: b, longNails: b, labelled: b, system: 'peroxide' }));
    expect(new Set(everybody)).toEqual(new Set(CARE_TOPICS));
  });
  it('a peroxide has its own case and hours; only where lenses are kept', () => {
    expect(careTopicsFor({ singleUse: false, system: 'peroxide' })).toContain('ownCaseFullHours');
    expect(careTopicsFor({ singleUse: true, system: 'peroxide' })).not.toContain('ownCaseFullHours');
    expect(careTopicsFor({ singleUse: false, system: 'multipurpose' })).not.toContain('ownCaseFullHours');
  });
});

describe('topics that a change asks for anew (common practice)', () => {
  const kept: OnceTaught = { singleUse: false, overnight: false, productId: 'a' };
  it.each([
    ['nothing changed', kept, kept, null, []],
    ['another solution', kept, { ...kept, productId: 'b' }, 'multipurpose', ['rubAndRinse', 'freshSolution']],
    ['a peroxide instead', kept, { ...kept, productId: 'b' }, 'peroxide', ['rubAndRinse', 'freshSolution', 'ownCaseFullHours']],
    ['single-use instead of kept ones', kept, { singleUse: true, overnight: false, productId: null }, null, []],
    [
      'kept ones instead of single-use',
      { singleUse: true, overnight: false, productId: null },
      kept,
      'multipurpose',
      ['rubAndRinse', 'freshSolution', 'noWater', 'droppedLens', 'replaceOnTime'],
    ],
    ['nights', kept, { ...kept, overnight: true }, 'multipurpose', ['overnightRules', 'stuckLens', 'dangerSigns']],
    ['days again', { ...kept, overnight: true }, kept, 'multipurpose', []],
  ] as const)('%s', (_name, before, now, system, expected) => expect(topicsOfChange(before, now, system)).toEqual(expected));
});
