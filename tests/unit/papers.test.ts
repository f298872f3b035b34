import { describe, expect, it } from 'vitest';
import { answersFirst, answersGiven, ASKED_FIRST, lensesOnPaper, prescriptionCopy, referralLetter, signedAt, type Prescription } from '../../src/core';
import { en } from '../../src/i18n/messages/en';

const LENS = { id: 'l', familyVersionId: 'f', sphereD: -3, cylinderD: -1.75, axisDeg: 20, addBand: null, baseCurveMm: 8.6, diameterMm: 14.2 };
const ROW = {
  ...LENS,
  familyCode: 'plover',
  familyName: 'Plover',
  maker: 'Marram',
  geometry: 'toric',
  modality: 'monthly',
  markLayout: 'six',
  settleMinutes: 10,
  irregular: false,
  sightMinutes: null,
  markSpacing: null,
  listed: true,
} as const;
const eyeRow = { mode: 'final', raw: null, lensId: 'l', baseCurveOrderedMm: 8.4 };
const signed = {
  id: 'p',
  number: 7,
  visitId: 'v',
  examinedOn: '2026-11-20',
  issuedOn: '2026-11-24',
  expiresOn: '2027-11-24',
  purpose: 'sport',
  prescriber: { name: 'A', title: 'OD', registerNumber: '1', practice: 'P', address: 'a', telephone: 't' },
  overrides: [{ eye: null, code: 'x', reason: 'nobody’s business', cost: null }],
  waitNote: 'nobody’s business',
  eyes: [
    { ...eyeRow, eye: 'left' },
    { ...eyeRow, eye: 'right', lensId: 'gone' },
  ],
} as unknown as Prescription;

describe('what papers say', () => {
  it('a prescription’s copy: right before left, the curve that was ordered, nothing of why', () => {
    const copy = prescriptionCopy(signed, { l: ROW });
    expect(copy.eyes.map((e) => [e.eye, e.lens?.id ?? null, e.baseCurveMm])).toEqual([
      ['right', null, 8.4],
      ['left', 'l', 8.4],
    ]);
    expect(copy.purpose).toBe('sport');
    expect(JSON.stringify(copy)).not.toContain('business');
    expect(prescriptionCopy({ ...signed, purpose: 'everyday' }, {}).purpose).toBeNull();
    expect(signedAt([signed], 'v')?.id).toBe('p');
    expect(signedAt([signed], 'another')).toBeNull();
  });
  it('a referral: the stops that are open, to whom it was opened, or to whom the practice refers', () => {
    const stop = (id: string, endedAt: string | null) => ({ id, rule: `r${id}`, endedAt, evidence: [] });
    const own = { to: 'Eye unit', telephone: '1' };
    const letter = referralLetter([stop('1', '2026-01-01'), stop('2', null)], [], own);
    expect(letter).toEqual({ referral: null, ...own, suspected: [{ stopId: '2', rule: 'r2' }], printed: false });
    const opened = {
      id: 'x',
      stopId: '2',
      visitId: 'v',
      addressedTo: 'Dr B',
      telephone: '2',
      openedAt: '',
      openedByName: '',
      steps: [{ step: 'printed', at: '', by: '' }],
    } as const;
    expect(referralLetter([stop('2', null)], [opened], own)).toMatchObject({ to: 'Dr B', telephone: '2', printed: true });
    // A referral for a stop that has ended is not this one's.
    expect(referralLetter([stop('2', '2026-01-01')], [opened], own)).toMatchObject({ to: 'Eye unit', suspected: [] });
  });
  it('what a colleague asks first is said, or said not to have been asked; every question has its word', () => {
    const answers = { lastWorn: { value: 'now', note: null }, dryness: { value: 'evening', note: null } } as const;
    expect(answersFirst(answers).map((a) => a.question)).toEqual(ASKED_FIRST);
    expect(answersFirst(answers).filter((a) => a.answer !== null)).toHaveLength(1);
    for (const id of ASKED_FIRST) expect(en.answers.q[id].name).toBeTypeOf('string');
    expect(answersGiven(answers, 30).map((a) => a.question)).toEqual(expect.arrayContaining(['lastWorn', 'dryness']));
    expect(answersGiven({}, 30)).toEqual([]);
  });
  it('the lens on an eye with its lot; with none on it the one handed over last; an unknown lens is not guessed', () => {
    const on = { lensId: 'l', lot: 'K9' } as never;
    const given = (lot: string) => ({ rootId: lot, rows: [], current: { eye: 'left', lensId: 'l', lot } }) as never;
    expect(lensesOnPaper({ right: on, left: null }, [given('A1'), given('A2')], { l: ROW }).map((p) => [p.eye, p.lot])).toEqual([
      ['right', 'K9'],
      ['left', 'A2'],
    ]);
    expect(lensesOnPaper({ right: { lensId: null, lot: null } as never, left: null }, [], {})).toEqual([]);
  });
});
