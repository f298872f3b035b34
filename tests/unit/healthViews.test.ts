import { describe, expect, it } from 'vitest';
import { firedRules, handOverLines, NEVER_LOCKED, QUESTIONS, stepAnswers, SETTINGS, type Answers } from '../../src/core';
import { asChains, draftKey, faults, gradeAfter, readFinding, ruleOn, typedFindings, WALK } from '../../src/features/visit/steps/eyeHealth/model';
import { digitOf, originOf, press, readTyped, sameAnswer, sheetOf, typedOf } from '../../src/features/visit/steps/history/model';
import { placeOf, reasonRows } from '../../src/features/visit/steps/kind/model';
import { adviceOf, healthOfRecord } from '../../src/features/visit/shell/health';
import { en as messages } from '../../src/i18n/messages/en';
import { record } from '../fixtures';

const NEEDS = { right: null, left: null };
const q = (id: string) => {
  const found = QUESTIONS.find((x) => x.id === id);
  if (!found) throw new Error(id);
  return found;
};
const said = (value: Answers) => ({ said: value, before: {} });

describe('the history sheet', () => {
  it.each([
    ['daysPerWeek', '5', 5],
    ['daysPerWeek', '5.5', '5.5'],
    ['daysPerWeek', 'five', 'five'],
    ['medicines', '0', []],
    ['medicines', 'none', []],
    ['medicines', 'cetirizine 10 mg, metformin;', ['cetirizine 10 mg', 'metformin']],
    ['goals', 'sport,near', ['sport', 'near']],
  ])('%s typed “%s” reads as %j', (id, text, value) => {
    expect(readTyped(q(id), text)).toEqual(value);
  });
  it('what a field holds reads back as the same answer', () => {
    for (const [id, value] of [
      ['goals', ['sport', 'near']],
      ['daysPerWeek', 6],
      ['nights', 'onCall'],
      ['medicines', []],
      ['medicines', ['a', 'b']],
    ] as const)
      expect(readTyped(q(id), typedOf(q(id), value))).toEqual(value);
  });
  it('digits choose, 0 is none, several can be on', () => {
    expect(press(q('nights'), 3, undefined)).toEqual({ value: 'onCall', on: true });
    expect(press(q('danger'), 0, ['pain'])).toEqual({ value: ['none'], on: true });
    expect(press(q('danger'), 2, ['none'])).toEqual({ value: ['pain'], on: false });
    expect(press(q('danger'), 2, ['pain', 'light'])).toEqual({ value: ['light'], on: false });
    expect(press(q('nights'), 9, undefined)).toBeNull();
    expect(press(q('goals'), 0, undefined)).toBeNull();
    for (const question of QUESTIONS)
      if ('options' in question)
        for (const option of question.options)
          expect(press(question, digitOf(question, option), undefined)?.value).toEqual(question.kind === 'one' ? option : [option]);
  });
  it('no question has more answers than digits', () => {
    for (const question of QUESTIONS) if ('options' in question) expect(question.options.length).toBeLessThanOrEqual(10);
  });
  it('answers come from typing, from today, or carried over; a danger sign is never carried', () => {
    const before: Answers = { nights: { value: 'shifts', note: null }, danger: { value: ['none'], note: null }, returns: { value: 'yes', note: null } };
    const sheet = sheetOf({ nights: 'onCall' }, { said: { returns: { value: 'yes', note: null } }, before }, 30, false);
    expect(originOf('nights', sheet, before)).toBe('typing');
    expect(originOf('returns', sheet, before)).toBe('said');
    expect(originOf('danger', sheet, before)).toBe('none');
    expect(originOf('budget', sheet, before)).toBe('none');
    expect(sheet.missing.map((x) => x.id)).toContain('danger');
    expect(sheet.missing.map((x) => x.id)).not.toContain('tell');
  });
  it('“never worn”, carried or said, folds the questions about earlier lenses', () => {
    expect(sheetOf({ lastWorn: 'never' }, said({}), 30, false).questions.map((x) => x.id)).not.toContain('sleptIn');
    expect(sheetOf({}, { said: {}, before: { lastWorn: { value: 'never', note: null } } }, 30, false).questions.map((x) => x.id)).not.toContain('sleptIn');
  });
  it('“never worn” after answers about earlier lenses: a contradiction until they are taken back', () => {
    const all = { said: { sleptIn: { value: 'never', note: null } } as Answers, before: {} };
    expect(sheetOf({ lastWorn: 'never' }, all, 30, false).problems.map((p) => p.code)).toEqual(['neverButWorn']);
    const taken = sheetOf({ lastWorn: 'never', withdraw: 'yes' }, all, 30, false);
    expect(taken.problems).toEqual([]);
    expect(taken.withdrawn).toEqual(['sleptIn']);
    expect(sheetOf({ lastWorn: 'now', withdraw: 'yes' }, all, 30, false).withdrawn).toEqual([]);
  });
  it('the order in which options were chosen makes no change', () => {
    expect(sameAnswer({ value: ['a', 'b'], note: null }, { value: ['b', 'a'], note: null })).toBe(true);
    expect(sameAnswer({ value: 5, note: null }, { value: 6, note: null })).toBe(false);
  });
});

describe('the eye health page', () => {
  it('a digit sets a grade, a point adds or takes its half, never past severe', () => {
    expect(gradeAfter('2', undefined)).toBe(2);
    expect(gradeAfter('.', 2)).toBe(2.5);
    expect(gradeAfter('.', 2.5)).toBe(2);
    expect(gradeAfter('.', undefined)).toBe(0.5);
    expect(gradeAfter('.', 4)).toBeNull();
    expect(gradeAfter('5', 1)).toBeNull();
  });
  it('figures are read with comma or point; curves in dioptres too; else they stay as typed', () => {
    expect(readFinding('hvid', '11,8')).toBe(11.8);
    expect(readFinding('kFlatMm', '45')).toBe(7.5);
    expect(readFinding('hvid', 'wide')).toBe('wide');
    expect(readFinding('light', 'hurts')).toBe('hurts');
  });
  it('faults stand at their field, between two findings of one eye too', () => {
    const typed = typedFindings({ 'right:kFlatMm': '0', 'left:pupilDim': '3', 'left:nonsense': '1', foot: '1' });
    expect(typed).toHaveLength(2);
    expect(Object.keys(faults(typed, { right: {}, left: { pupilRoom: 5 } })).sort()).toEqual([draftKey('left', 'pupilDim'), draftKey('right', 'kFlatMm')]);
  });
  it('what is typed counts for the rules before it is recorded; what cannot be does not', () => {
    const typed = typedFindings({ 'right:lidMargin': '2.5', 'left:lidMargin': '9' });
    const health = healthOfRecord(record(), NEEDS, { findings: asChains(typed, 'visit') });
    expect(health.fired.map((f) => [f.rule.id, f.eyes])).toEqual([['lidMargin', ['right']]]);
    expect(ruleOn(health.fired, 'right', 'lidMargin')?.rule.id).toBe('lidMargin');
    expect(ruleOn(health.fired, 'left', 'lidMargin')).toBeNull();
    expect(WALK).toHaveLength(11);
  });
});

describe('the recommendation page', () => {
  const r = record();
  const health = healthOfRecord(r, NEEDS, {
    answers: [
      { id: 'a', visitId: 'visit', question: 'daysPerWeek', value: 7, note: null, acknowledgedAt: null },
      { id: 'b', visitId: 'visit', question: 'hygieneCare', value: 'good', note: null, acknowledgedAt: null },
      { id: 'c', visitId: 'visit', question: 'dryness', value: 'evening', note: null, acknowledgedAt: null },
    ],
  });
  it('lays reasons of both choices side by side, most weight at the top', () => {
    const rows = reasonRows(adviceOf(r, health, NEEDS));
    const weights = rows.map((row) => Math.max(Math.abs(row.recommended?.points ?? 0), Math.abs(row.second?.points ?? 0)));
    expect(weights).toEqual([...weights].sort((a, b) => b - a));
    expect(rows.find((row) => row.rule === 'dryness')).toMatchObject({ recommended: expect.anything() as object, second: expect.anything() as object });
  });
  it('every reason leads to where it came from', () => {
    expect(placeOf({ from: 'history', key: 'dryness', eye: null, value: 'evening' }, 'v')).toEqual({ href: '/visits/v/history#q-dryness', number: 15 });
    expect(placeOf({ from: 'history', key: 'medicineGroups', eye: null, value: [] }, 'v').href).toBe('/visits/v/history#q-medicines');
    expect(placeOf({ from: 'eye', key: 'breakUp', eye: 'right', value: 8 }, 'v').href).toBe('/visits/v/eye-health#sign-breakUp');
    expect(placeOf({ from: 'power', key: 'strongestSphere', eye: null, value: 8 }, 'v').href).toBe('/visits/v/refraction');
  });
  it('its lines reach the strip', () => {
    expect(handOverLines(health.answers, health.fired).cautions.map((c) => c.rule)).toEqual(['dryness']);
    expect(firedRules(health.facts)).toHaveLength(1);
  });
});

describe('while an absolute stop stands', () => {
  const stop = {
    id: 's',
    visitId: 'visit',
    rule: 'redPainful',
    eyes: ['right'] as const,
    evidence: [],
    openedAt: '',
    openedByName: '',
    endedAt: null,
    endedHow: null,
    endedByName: null,
    endedReason: null,
  };
  it('every step but history and eye health is shut', () => {
    const r = { ...record(), health: { ...record().health, stops: [stop] } };
    const eye = { refraction: null, onEye: null, series: [], turn: null, overRefraction: null, fit: null, verdict: {} } as never;
    const all = stepAnswers({ ...r, ...r.health, visitId: r.visit.id, kind: r.visit.kind, eyes: { right: eye, left: eye }, health: healthOfRecord(r, NEEDS) });
    for (const [id, answer] of Object.entries(all)) expect(answer.code === 'locked', id).toBe(!NEVER_LOCKED.includes(id as 'history'));
    expect(all.eyeHealth).toEqual({ code: 'noLens', state: 'stop' });
  });
});

describe('words for what is data', () => {
  const history: Readonly<Record<string, { name: string; o?: Readonly<Record<string, string>> }>> = messages.answers.q;
  it('every question and answer', () => {
    for (const question of QUESTIONS) {
      expect(history[question.id]?.name, question.id).toBeTruthy();
      if ('options' in question) for (const o of question.options) expect(history[question.id]?.o?.[o], `${question.id}.${o}`).toBeTruthy();
    }
  });
  const settings: Readonly<Record<string, { name: string; what: string; o?: Readonly<Record<string, string>> }>> = messages.settings.s;
  it('every setting says what it changes; every choice has its name', () => {
    for (const [key, d] of Object.entries(SETTINGS)) {
      expect(settings[key]?.what, key).toBeTruthy();
      if (d.kind === 'choice') for (const o of d.options) expect(settings[key]?.o?.[o], `${key}.${o}`).toBeTruthy();
    }
  });
});
