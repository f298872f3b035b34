import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { careTopicsFor, CARE_TOPICS, lessonGate, nextMove, type Attempt, type Eye, type Move } from '../index';

const tried = (eye: Eye, move: Move, change: Partial<Attempt> = {}): Attempt => ({ eye, move, worked: true, unaided: true, today: true, ...change });
const twice = (eye: Eye): Attempt[] => [tried(eye, 'on'), tried(eye, 'off'), tried(eye, 'on'), tried(eye, 'off')];
const topics = careTopicsFor(false);
const all = { topicsSaidBack: [...topics], eyes: ['right', 'left'] as const };

describe('the lesson’s lock (two on and two off, topics said back: common practice)', () => {
  it('opens after two on and two off of each eye and every topic', () => {
    expect(lessonGate({ ...all, attempts: [...twice('right'), ...twice('left')] }, topics)).toMatchObject({ open: true, missing: [] });
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
    const gate = lessonGate({ ...all, attempts: [...attempts] }, topics);
    expect(gate.open).toBe(false);
    expect(gate.missing).toContainEqual(missing);
  });
  it('two in a row of the same move count once: a lens that fell in between is an event', () => {
    expect(lessonGate({ ...all, attempts: [tried('right', 'on'), tried('right', 'on')] }, topics).done.right.on).toBe(1);
  });
  it('each topic locks it by itself', () => {
    for (const topic of topics) {
      const gate = lessonGate(
        { attempts: [...twice('right'), ...twice('left')], topicsSaidBack: topics.filter((t) => t !== topic), eyes: ['right', 'left'] },
        topics,
      );
      expect(gate.missing).toEqual([{ kind: 'topic', topic }]);
    }
  });
  it('a single-use lens has no rubbing, every lens has the danger signs and no water', () => {
    expect(careTopicsFor(true)).not.toContain('rubAndRinse');
    expect(careTopicsFor(true)).toEqual(expect.arrayContaining(['dangerSigns', 'noWater', 'stuckLens']));
    expect(careTopicsFor(false)).toHaveLength(CARE_TOPICS.length);
  });
  it('one eye only', () => {
    expect(lessonGate({ attempts: twice('left'), topicsSaidBack: [...topics], eyes: ['left'] }, topics).open).toBe(true);
    expect(lessonGate({ attempts: [], topicsSaidBack: [...topics], eyes: [] }, topics).open).toBe(false);
  });
  it('more tries never lock it again', () => {
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
        const a = lessonGate({ ...all, attempts: before }, topics);
        const b = lessonGate({ ...all, attempts: [...before, ...more] }, topics);
        if (a.open) expect(b.open).toBe(true);
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
