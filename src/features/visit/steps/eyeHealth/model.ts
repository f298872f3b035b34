import {
  cornealCurveMm,
  EYES,
  findingProblem,
  findingsConflict,
  GRADED,
  sign,
  type Eye,
  type FactChain,
  type Findings,
  type Fired,
  type HealthState,
  type PracticeSettings,
  type RecordedFinding,
  type AcuityWay,
  type SignId,
  type TrendPoint,
} from '@/core';
import type { VisitRecord } from '../../shell/visitData';

/** View logic of the eye health page, without React. */

/** From which grade a sign counts by the practice's settings; null for one that is only recorded. */
export function thresholdOf(id: SignId, settings: PracticeSettings): number | null {
  if (id === 'infiltrates') return 0.5;
  const graded = GRADED.find((g) => g.id === id);
  return graded && 'threshold' in graded ? settings[graded.threshold] : null;
}

export const draftKey = (eye: Eye, id: SignId | AcuityWay) => `${eye}:${id}` as const;

export interface TypedFinding {
  readonly eye: Eye;
  readonly sign: SignId;
  readonly value: number | string;
}

/** A field's text as the finding it stands for: words as they are, curves in millimetres or dioptres, else a number. */
export function readFinding(id: string, text: string): number | string {
  if (sign(id)?.kind === 'word') return text;
  const number = /^-?\d+([.,]\d+)?$/.test(text.trim()) ? Number(text.trim().replace(',', '.')) : NaN;
  if (Number.isNaN(number)) return text;
  return id === 'kFlatMm' || id === 'kSteepMm' ? cornealCurveMm(number) : number;
}

export function typedFindings(body: Readonly<Record<string, string>>): TypedFinding[] {
  return Object.entries(body).flatMap(([key, text]): TypedFinding[] => {
    const [eye, id] = key.split(':');
    if (!id || (eye !== 'right' && eye !== 'left') || !sign(id)) return [];
    return [{ eye, sign: id as SignId, value: readFinding(id, text) }];
  });
}

export interface FindingFault {
  readonly code: string;
  readonly data: Readonly<Record<string, string | number>>;
}

/** What is wrong with what is typed, by its field. */
export function faults(typed: readonly TypedFinding[], today: HealthState['today']): Readonly<Record<string, FindingFault>> {
  const out: Record<string, FindingFault> = {};
  for (const f of typed) {
    const problem = findingProblem(f.sign, f.value);
    if (problem) out[draftKey(f.eye, f.sign)] = problem;
  }
  for (const eye of EYES) {
    const now = { ...today[eye], ...Object.fromEntries(typed.filter((f) => f.eye === eye).map((f) => [f.sign, f.value])) } as Findings;
    for (const conflict of findingsConflict(now)) out[draftKey(eye, conflict.sign)] ??= conflict;
  }
  return out;
}

/** Typed findings as chains, so that the rules can be shown before they are recorded. */
export const asChains = (typed: readonly TypedFinding[], visitId: string): FactChain<RecordedFinding>[] =>
  typed
    .filter((f) => findingProblem(f.sign, f.value) === null)
    .map((f) => {
      const row: RecordedFinding = {
        id: `typing-${f.eye}-${f.sign}`,
        rootId: `typing-${f.eye}-${f.sign}`,
        correctsId: null,
        voided: false,
        eye: f.eye,
        visitId,
        observedAt: '',
        recordedAt: '',
        recordedBy: '',
        recordedByName: '',
        reason: null,
        sign: f.sign,
        numberValue: typeof f.value === 'number' ? f.value : null,
        wordValue: typeof f.value === 'string' ? f.value : null,
        copiedFromId: null,
      };
      return { rootId: row.rootId, rows: [row], current: row };
    });

/** The strongest rule that rests on this sign of this eye. */
export const ruleOn = (fired: readonly Fired[], eye: Eye, id: string): Fired | null =>
  fired.find((f) => f.rule.id !== 'gradeRose' && f.evidence.some((e) => e.from === 'eye' && e.eye === eye && e.key === id)) ?? null;

/** The signs walked with the arrow keys. */
export const WALK: readonly SignId[] = GRADED.map((g) => g.id);

/** Grade after a key: a digit sets it, a point adds or takes the half. */
export function gradeAfter(key: string, now: number | undefined): number | null {
  if (/^[0-4]$/.test(key)) return Number(key);
  if (key !== '.') return null;
  const at = now ?? 0;
  const next = at % 1 === 0 ? at + 0.5 : at - 0.5;
  return next <= 4 ? next : null;
}

/** Figures that the words "frees it" name, by rule. */
export const LIMIT_OF = {
  lidMargin: 'actsLidMargin',
  redness: 'actsBulbarRedness',
  limbalRedness: 'actsLimbalRedness',
  papillae: 'actsPapillae',
  staining: 'actsStaining',
} as const;

/** Graded at earlier visits, oldest first: the trend beside today's grade. */
export const trendOf = (record: VisitRecord, eye: Eye, id: string): readonly TrendPoint[] => record.trend[eye][id] ?? [];

export const openStops = (record: VisitRecord): VisitRecord['health']['stops'] => record.health.stops.filter((s) => s.endedAt === null);
