import { describe, expect, it } from 'vitest';
import { QUESTIONS, type Answers, type EyeState } from '../../src/core';
import { gradesToSend, historyToday, lookAtMark, readBack, type EyeToday } from '../../src/features/visit/steps/asLastTime/model';

const said = (value: string | number | readonly string[]) => ({ value, note: null });
const BEFORE: Answers = { lastWorn: said('now'), goals: said(['sport']), nights: said('none'), medicines: said([]), daysPerWeek: said(6) };

describe('history, read back', () => {
  it('in groups, in the order in which it is asked', () => {
    const { groups } = historyToday({ said: {}, before: BEFORE }, 30);
    expect(groups.map((g) => g.group)).toEqual(['before', 'goals', 'days', 'health']);
    expect(groups[1]?.items.map((i) => i.question)).toEqual(['goals', 'nights']);
  });
  it('danger signs are never among what is read back', () => {
    const { open, groups } = historyToday({ said: {}, before: { ...BEFORE, danger: said(['none']), headache: said(['none']) } }, 30);
    expect(open).not.toContain('danger');
    expect(open).not.toContain('headache');
    expect(groups.flatMap((g) => g.items.map((i) => i.question))).not.toContain('danger');
  });
  it('what was said today is not asked to be confirmed, what nobody ever said is counted', () => {
    const today = historyToday({ said: { goals: said(['near']) }, before: BEFORE }, 30);
    expect(today.open).toEqual(['lastWorn', 'nights', 'daysPerWeek', 'medicines']);
    const needed = QUESTIONS.filter((q) => !('optional' in q) && !['danger', 'headache', 'guardian'].includes(q.id));
    expect(today.missing).toBe(needed.length - 5);
  });
  it('a medicine that may raise pressure in the head asks about headache afresh', () => {
    const without = historyToday({ said: {}, before: BEFORE }, 30).missing;
    expect(historyToday({ said: {}, before: { ...BEFORE, medicines: said(['doxycycline']) } }, 30).missing).toBe(without + 1);
  });
  it('a press confirms them as they were said', () => {
    expect(readBack({ before: BEFORE }, ['goals', 'daysPerWeek'])).toEqual([
      { question: 'goals', value: ['sport'], note: null, readBack: true },
      { question: 'daysPerWeek', value: 6, note: null, readBack: true },
    ]);
  });
});

describe('one eye', () => {
  const eye = (change: Partial<EyeToday>, state: Partial<EyeState> = {}): EyeToday =>
    ({ eye: 'right', worn: null, lensOnEyeId: 'on', grades: [], state: state as EyeState, done: {}, ...change }) as EyeToday;
  const grade = { findingId: 'f1', sign: 'lidMargin', value: 0.5, seenAt: '2025-11-20T15:00:00Z', bar: null } as const;

  it('a look at the mark is recorded only where the lens has one and it is known where it sits', () => {
    expect(lookAtMark(eye({}, { toric: true, turnKnown: 9.67 }))).toEqual([{ rotationLeft: 10, how: 'look' }]);
    expect(lookAtMark(eye({}, { toric: true, turnKnown: null }))).toEqual([]);
    expect(lookAtMark(eye({}, { toric: false, turnKnown: 10 }))).toEqual([]);
  });
  it('stain, infiltrates, swelling and the chamber are always looked at afresh; of the rest what is not otherwise is as last time', () => {
    const sent = gradesToSend(
      eye({ grades: [grade, { ...grade, findingId: 'f2', sign: 'lashes' }, { ...grade, findingId: 'f3', sign: 'papillae', bar: 'acts' }] }),
      {
        'right:lashes': '1.5',
      },
    );
    expect(sent.findings).toEqual([
      { sign: 'staining', value: 0 },
      { sign: 'infiltrates', value: 0 },
      { sign: 'oedema', value: 0 },
      { sign: 'chamber', value: 'quiet' },
      { sign: 'lashes', value: 1.5 },
    ]);
    expect(sent.asLastTime).toEqual(['f1']);
  });
});
