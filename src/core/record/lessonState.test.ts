import { describe, expect, it } from 'vitest';
import type { Eye } from '../units';
import { chains } from './chains';
import type { LessonRow } from './lesson';
import { lessonState, type LessonFile } from './lessonState';
import type { AttemptFact } from './visitFacts';

const lesson = (id: string, signOffId: string | null = null): LessonRow => ({
  id,
  visitId: `visit of ${id}`,
  wearerId: 'w',
  eyes: ['right'],
  onAtStart: [],
  singleUse: true,
  handler: null,
  startedAt: '2026-11-24T10:00:00Z',
  signOffId,
  signedAt: null,
  signedByName: null,
});
let made = 0;
const attempt = (lessonId: string, move: 'on' | 'off', observedAt = '2026-11-24T10:30:00Z'): AttemptFact => {
  const id = `a${(made += 1)}`;
  const eye: Eye = 'right';
  return {
    id,
    rootId: id,
    eye,
    lessonId,
    move,
    worked: true,
    unaided: true,
    miss: null,
    observedAt,
    recordedAt: observedAt,
    recordedBy: 'p',
    recordedByName: 'Teo Brannock',
    visitId: 'v',
    visitVersion: 1,
    correctsId: null,
    reason: null,
    voided: false,
  } as AttemptFact;
};
const file = (lessons: LessonRow[], attempts: AttemptFact[], more: Partial<LessonFile> = {}): LessonFile => ({
  lessons,
  attempts: chains(attempts),
  topics: [],
  wear: null,
  answers: [],
  ...more,
});
const today = { today: '2026-11-24', timeZone: 'Europe/London' };

describe('a lesson as it stands', () => {
  it('counts what was done on another day, but asks one of each today', () => {
    const [before, now] = [lesson('a'), lesson('b')];
    const moves = (['on', 'off', 'on', 'off'] as const).map((m) => attempt('a', m, '2026-11-20T10:00:00Z'));
    const state = lessonState(now, file([before, now], moves), today);
    expect(state.gate.done.right).toEqual({ on: 2, off: 2 });
    expect(state.gate.missing.filter((m) => m.kind === 'today')).toHaveLength(2);
  });
  it('an earlier day says nothing about whether a lens is on now', () => {
    const [before, now] = [lesson('a'), lesson('b')];
    expect(lessonState(now, file([before, now], [attempt('a', 'on')]), today).next.right).toBe('on');
    expect(lessonState(now, file([before, now], [attempt('b', 'on')]), today).next.right).toBe('off');
  });
  it('what was signed off does not count again, and the signed lesson itself still shows what it counted', () => {
    const [signed, now] = [lesson('a', 's'), lesson('b')];
    const all = file([signed, now], [attempt('a', 'on')]);
    expect(lessonState(now, all, today).attempts).toEqual([]);
    expect(lessonState(signed, all, today).attempts).toHaveLength(1);
  });
  it('who may sleep in them is taught the rules of the night', () => {
    const one = lesson('a');
    expect(lessonState(one, file([one], []), today).mandatory).toContain('neverSleep');
    expect(lessonState(one, file([one], [], { wear: 'overnight' }), today).mandatory).toContain('overnightRules');
  });
  it('the day is the practice’s: an attempt late in the evening counts as today where it is still today', () => {
    const one = lesson('a');
    const late = file([one], [attempt('a', 'on', '2026-11-25T01:00:00Z')]);
    const asks = (timeZone: string) =>
      lessonState(one, late, { today: '2026-11-24', timeZone }).gate.missing.some((m) => m.kind === 'today' && m.move === 'on');
    expect(asks('America/New_York')).toBe(false);
    expect(asks('Europe/London')).toBe(true);
  });
});
