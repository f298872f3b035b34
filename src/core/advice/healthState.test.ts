import { describe, expect, it } from 'vitest';
import {
  chains,
  DEFAULT_SETTINGS,
  evidenceKey,
  findingChain,
  healthState,
  overrideOf,
  powerSummary,
  type Eye,
  type HealthInput,
  type QuestionId,
  type RecordedAnswer,
  type RecordedFinding,
} from '../index';

let serial = 0;
const next = (): string => `id-${(serial += 1)}`;
const answer = (question: QuestionId, value: RecordedAnswer['value'], visitId = 'today', acknowledgedAt: string | null = null): RecordedAnswer => ({
  id: next(),
  visitId,
  question,
  value,
  note: null,
  acknowledgedAt,
});
function finding(eye: Eye, sign: string, value: number | string, visitId = 'today', change: Partial<RecordedFinding> = {}): RecordedFinding {
  const id = next();
  return {
    id,
    rootId: id,
    correctsId: null,
    voided: false,
    eye,
    visitId,
    observedAt: '',
    recordedAt: '',
    recordedBy: '',
    recordedByName: '',
    reason: null,
    sign,
    numberValue: typeof value === 'number' ? value : null,
    wordValue: typeof value === 'string' ? value : null,
    copiedFromId: null,
    ...change,
  };
}
/** The lowest figure of each sign before today, each visit by its last. */
function lowestOf(findings: readonly RecordedFinding[], eye: 'right' | 'left'): Record<string, number> {
  const out: Record<string, number> = {};
  for (const f of findings)
    if (f.eye === eye && f.visitId !== 'today' && f.numberValue !== null) out[f.sign] = Math.min(f.numberValue, out[f.sign] ?? Infinity);
  return out;
}
const state = (change: Partial<Omit<HealthInput, 'findings'>> & { readonly findings?: readonly RecordedFinding[] } = {}) =>
  healthState({
    visitId: 'today',
    answers: [],
    stops: [],
    overrides: [],
    age: 30,
    guardianNamed: true,
    power: null,
    settings: DEFAULT_SETTINGS,
    ...change,
    findings: chains(change.findings ?? []),
    lowest: { right: lowestOf(change.findings ?? [], 'right'), left: lowestOf(change.findings ?? [], 'left') },
  });

describe('answers as they stand', () => {
  it('the last answer of a visit holds; one taken back is gone', () => {
    expect(state({ answers: [answer('returns', 'no'), answer('returns', 'yes')] }).said.returns?.value).toBe('yes');
    expect(state({ answers: [answer('returns', 'no'), answer('returns', null)] }).said.returns).toBeUndefined();
  });
  it('what was said before is carried over, apart from what is said today', () => {
    const s = state({ answers: [answer('returns', 'no', 'before'), answer('budget', 'tight', 'before'), answer('budget', 'open')] });
    expect(s.said).toEqual({ budget: { value: 'open', note: null } });
    expect(s.before.budget?.value).toBe('tight');
    expect([s.answers.returns?.value, s.answers.budget?.value]).toEqual(['no', 'open']);
    expect(s.fired.map((f) => f.rule.id)).toEqual(['noAftercare']);
  });
  it('“never worn”, said today, drops what was carried over about wearing lenses', () => {
    const before = [answer('lastWorn', 'now', 'before'), answer('sleptIn', 'mostNights', 'before'), answer('budget', 'tight', 'before')];
    expect(state({ answers: before }).fired.map((f) => f.rule.id)).toEqual(['sleptIn']);
    const s = state({ answers: [...before, answer('lastWorn', 'never')] });
    expect(Object.keys(s.answers).sort()).toEqual(['budget', 'lastWorn']);
    expect(s.fired).toEqual([]);
  });
  it('a danger sign of last time is not one of today, but stays an alert until somebody took note', () => {
    const heard = answer('danger', ['pain'], 'before');
    const s = state({ answers: [heard] });
    expect(s.answers.danger).toBeUndefined();
    expect(s.alert).toEqual({ answerId: heard.id, signs: ['pain'] });
    expect(state({ answers: [{ ...heard, acknowledgedAt: 'then' }] }).alert).toBeNull();
    expect(state({ answers: [answer('danger', ['none'])] }).alert).toBeNull();
  });
});

describe('findings as they stand', () => {
  it('today’s grade holds, last visit’s is its baseline; each eye its own', () => {
    const s = state({
      findings: [finding('right', 'lidMargin', 0.5, 'before'), finding('right', 'lidMargin', 1.5), finding('left', 'lidMargin', 1, 'before')],
    });
    expect([s.findings.right.lidMargin, s.baseline.right.lidMargin, s.today.left.lidMargin, s.findings.left.lidMargin]).toEqual([1.5, 0.5, undefined, 1]);
    expect(s.fired.map((f) => [f.rule.id, f.eyes])).toEqual([['gradeRose', ['right']]]);
  });
  it('grades are carried over and still stop; symptoms are of the day', () => {
    const s = state({
      findings: [finding('right', 'papillae', 3, 'before'), finding('right', 'pain', 8, 'before'), finding('right', 'bulbarRedness', 3, 'before')],
    });
    expect(s.fired.map((f) => f.rule.id)).toEqual(['redness', 'papillae']);
    expect(s.findings.right.pain).toBeUndefined();
  });
  it('a corrected grade counts as corrected, one taken back not at all', () => {
    const first = finding('right', 'papillae', 3);
    const corrected = finding('right', 'papillae', 1, 'today', { correctsId: first.id, rootId: first.id, reason: 'other eye' });
    expect(state({ findings: [first, corrected] }).today.right.papillae).toBe(1);
    expect(state({ findings: [first, { ...corrected, voided: true }] }).today.right.papillae).toBeUndefined();
    expect(findingChain(chains([first, corrected]), 'today', 'right', 'papillae')?.rows).toHaveLength(2);
    expect(findingChain(chains([first]), 'today', 'left', 'papillae')).toBeNull();
  });
  it('moved to the other eye by a correction, it leaves the first', () => {
    const wrong = finding('right', 'scars', 2);
    const s = state({ findings: [wrong, finding('left', 'scars', 2, 'today', { correctsId: wrong.id, rootId: wrong.id, reason: 'it was the left' })] });
    expect([s.today.right.scars, s.today.left.scars]).toEqual([undefined, 2]);
  });
});

describe('stops as they stand', () => {
  it('only those nobody has ended', () => {
    expect(
      state({
        stops: [
          { id: 'a', endedAt: 'then' },
          { id: 'b', endedAt: null },
        ],
      }).absolute,
    ).toEqual(['b']);
  });
  it('a stop waits until a reason is given for just this evidence', () => {
    const findings = [finding('right', 'papillae', 2.5)];
    const [waiting] = state({ findings }).waiting;
    if (!waiting) throw new Error('papillae');
    const pass = { evidenceKey: evidenceKey(waiting) };
    expect(state({ findings, overrides: [pass] }).waiting).toEqual([]);
    expect(overrideOf(waiting, [pass])).toBe(pass);
    expect(state({ findings: [...findings, finding('left', 'papillae', 2)], overrides: [pass] }).waiting).toHaveLength(1);
  });
  it('an absolute stop never waits for a reason: none is asked', () => {
    const s = state({ findings: [finding('left', 'suspected', 'cornealInfection')] });
    expect(s.fired.map((f) => f.rule.strength)).toEqual(['absolute']);
    expect(s.waiting).toEqual([]);
  });
});

it('the strongest power of either eye steers the kind of lens', () => {
  expect(powerSummary({ right: { sphere: -3, cylinder: -0.5 }, left: { sphere: 5, cylinder: -2 } })).toEqual({ strongestSphere: 5, strongestCylinder: 2 });
  expect(powerSummary({ right: null, left: null })).toBeNull();
});

describe('a cornea that gives way', () => {
  it('a dioptre steeper than within the last year stops; less, or flatter, does not; nothing is said without an earlier measure', () => {
    const now = (kSteepMm: number, before: number | null) =>
      state({ findings: [finding('right', 'kSteepMm', kSteepMm)], flattestSteep: { right: before, left: null } }).fired.map((f) => f.rule.id);
    // Source: keratometer constant 337.5; 7.40 mm is 45.61 D, 7.20 mm 46.88 D, 7.30 mm 46.23 D.
    expect(now(7.2, 7.4)).toContain('coneSteepens');
    expect(now(7.3, 7.4)).not.toContain('coneSteepens');
    expect(now(7.6, 7.4)).not.toContain('coneSteepens');
    expect(now(7.2, null)).not.toContain('coneSteepens');
  });
});
