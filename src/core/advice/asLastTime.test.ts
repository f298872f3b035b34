import { describe, expect, it } from 'vitest';
import { COPIED_SIGNS, DEFAULT_SETTINGS, earlierGrades, GRADED, healthState, SYMPTOMS, type FactChain, type RecordedFinding } from '../index';

let serial = 0;
/** A finding of the right eye. */
function found(sign: string, value: number, visitId: string, observedAt: string, copiedFromId: string | null = null): FactChain<RecordedFinding> {
  serial += 1;
  const id = `f${serial}`;
  const row: RecordedFinding = {
    id,
    rootId: id,
    correctsId: null,
    voided: false,
    eye: 'right',
    visitId,
    observedAt,
    recordedAt: observedAt,
    recordedBy: 'p',
    recordedByName: 'P',
    reason: null,
    sign,
    numberValue: value,
    wordValue: null,
    copiedFromId,
  };
  return { rootId: id, rows: [row], current: row };
}
const of = { visitId: 'today', today: '2026-11-24', timeZone: 'America/New_York', settings: DEFAULT_SETTINGS };
const LAST = '2025-11-20T15:00:00Z';

describe('what can be said to be as last time', () => {
  it('what threatens an eye is never on the list: stain, infiltrates, swelling, the chamber, what hurts', () => {
    for (const sign of ['staining', 'infiltrates', 'oedema', ...SYMPTOMS.map((s) => s.id)]) expect(COPIED_SIGNS as readonly string[]).not.toContain(sign);
    for (const sign of COPIED_SIGNS) expect(GRADED.map((g) => g.id)).toContain(sign);
    expect(earlierGrades([found('staining', 0, 'before', LAST)], 'right', of)).toEqual([]);
  });
  it('a grade of an earlier visit, with the day on which it was seen; of this eye alone', () => {
    const seen = found('lashes', 0.5, 'before', LAST);
    expect(earlierGrades([seen], 'right', of)).toEqual([{ findingId: seen.rootId, sign: 'lashes', value: 0.5, seenAt: LAST, bar: null }]);
    expect(earlierGrades([seen], 'left', of)).toEqual([]);
  });
  it('not what was graded today', () => {
    expect(earlierGrades([found('lashes', 0, 'before', LAST), found('lashes', 1, 'today', '2026-11-24T15:00:00Z')], 'right', of)).toEqual([]);
  });
  it('what called for action is graded again, just under it is not', () => {
    const at = DEFAULT_SETTINGS.actsPapillae;
    expect(earlierGrades([found('papillae', at, 'before', LAST)], 'right', of)[0]?.bar).toBe('acts');
    expect(earlierGrades([found('papillae', at - 0.5, 'before', LAST)], 'right', of)[0]?.bar).toBeNull();
  });
  it('after two years it is graded again: to the day, by the practice’s calendar', () => {
    // 03:00 of 25 November in UTC is still the 24th in New York.
    expect(earlierGrades([found('lashes', 0, 'before', '2024-11-25T03:00:00Z')], 'right', of)[0]?.bar).toBeNull();
    expect(earlierGrades([found('lashes', 0, 'before', '2024-11-24T03:00:00Z')], 'right', of)[0]?.bar).toBe('old');
  });
  it('repeated, it never counts as graded today, and keeps its day', () => {
    const first = found('lidMargin', 1, 'before', LAST);
    const copy = found('lidMargin', 1, 'today', LAST, first.rootId);
    const state = healthState({
      visitId: 'today',
      answers: [],
      findings: [first, copy],
      lowest: { right: {}, left: {} },
      stops: [],
      overrides: [],
      age: 30,
      guardianNamed: false,
      power: null,
      settings: DEFAULT_SETTINGS,
    });
    expect(state.today.right).toEqual({});
    expect(state.findings.right.lidMargin).toBe(1);
    expect(state.repeated.right).toEqual({ lidMargin: LAST });
  });
});
