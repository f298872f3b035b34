import { OWN, TRADE, type Source } from '../advice/source';
import type { LensFindings, LensSignId } from './lensSigns';
import { MOVEMENT_SCHOOLS, type MovementSchool } from './movement';

/** Push-up tightness, %: 50 is ideal, 40 to 60 good. */
export const PUSH_UP_GOOD = { from: 40, to: 60 } as const;
const MARTIN: Source = { mark: 'P', text: 'Martin 1989; Young 1996; from memory' };
/** Off the middle by more than this counts against a lens, mm. */
export const OFF_CENTRE_MM = 0.5;
/** Lag from which a lens hangs, mm. */
export const LAG_MM = 1.5;
/** From this comfort down a lens that fits is asked about, 0 to 10. */
export const COMFORT_ASKS = 6;

export type FitSide = 'loose' | 'tight' | 'fits';
export interface FitReason {
  readonly code: string;
  readonly sign: LensSignId;
  readonly side: FitSide;
  /** Weak signs speak only beside a strong one. */
  readonly weak: boolean;
  readonly data: Readonly<Record<string, number>>;
  readonly source: Source;
}
export interface FitVerdict {
  /** `mixed`: signs of both; null: too little was looked at. */
  readonly verdict: FitSide | 'mixed' | null;
  readonly reasons: readonly FitReason[];
  /** It fits but hurts: the steps of comfort before another lens. */
  readonly hurts: boolean;
}

const num = (value: number | string | undefined): number | null => (typeof value === 'number' ? value : null);

function movementReason(findings: LensFindings, school: MovementSchool): FitReason | null {
  // Up gaze moves more than straight ahead, so it stands in only where nothing else was read.
  const sign = findings.movement === undefined ? 'movementUp' : 'movement';
  const mm = num(findings[sign]);
  if (mm === null) return null;
  const { accepted, wanted } = MOVEMENT_SCHOOLS[school];
  const side: FitSide = mm < accepted[0] - 1e-9 ? 'tight' : mm > accepted[1] + 1e-9 ? 'loose' : 'fits';
  const inWanted = mm >= wanted[0] - 1e-9 && mm <= wanted[1] + 1e-9;
  const code = side === 'tight' ? 'movesLittle' : side === 'loose' ? 'movesMuch' : inWanted ? 'movesWell' : 'movesAccepted';
  return { code, sign, side, weak: false, data: { mm, from: accepted[0], to: accepted[1] }, source: TRADE };
}

function pushUpReason(findings: LensFindings): FitReason | null {
  const percent = num(findings.pushUp);
  if (percent === null) return null;
  const side: FitSide = percent > PUSH_UP_GOOD.to ? 'tight' : percent < PUSH_UP_GOOD.from ? 'loose' : 'fits';
  const code = side === 'tight' ? 'pushUpHard' : side === 'loose' ? 'pushUpEasy' : 'pushUpGood';
  return { code, sign: 'pushUp', side, weak: false, data: { percent, ...PUSH_UP_GOOD }, source: MARTIN };
}

/** Words that say loose or tight by themselves. */
const WORDS: readonly { readonly sign: LensSignId; readonly value: string; readonly side: FitSide; readonly weak?: true }[] = [
  { sign: 'edge', value: 'indents', side: 'tight' },
  { sign: 'edge', value: 'lifts', side: 'loose' },
  { sign: 'edgeVessels', value: 'blanched', side: 'tight' },
  { sign: 'edgeVessels', value: 'red', side: 'tight' },
  { sign: 'afterBlink', value: 'clearThenBlurs', side: 'tight' },
  { sign: 'afterBlink', value: 'worseJustAfter', side: 'loose' },
  { sign: 'coverage', value: 'edgeShows', side: 'loose' },
  { sign: 'lineMovement', value: 'less', side: 'tight' },
  { sign: 'lineMovement', value: 'more', side: 'loose' },
  { sign: 'linePushUp', value: 'less', side: 'loose' },
  { sign: 'linePushUp', value: 'more', side: 'tight' },
  { sign: 'lineLag', value: 'more', side: 'loose', weak: true },
  { sign: 'lineLag', value: 'less', side: 'tight', weak: true },
  { sign: 'lineCentre', value: 'more', side: 'loose' },
  { sign: 'lineCentre', value: 'less', side: 'loose', weak: true },
];
/** Words that say a lens was looked at and is as it should be. */
const GOOD: readonly LensSignId[] = ['lineMovement', 'linePushUp'];

function wordReasons(findings: LensFindings): FitReason[] {
  const found = WORDS.filter((w) => findings[w.sign] === w.value).map((w): FitReason => ({
    code: `${w.sign}.${w.value}`,
    sign: w.sign,
    side: w.side,
    weak: w.weak ?? false,
    data: {},
    source: TRADE,
  }));
  const good = GOOD.filter((sign) => findings[sign] === 'middle').map((sign): FitReason => ({
    code: `${sign}.middle`,
    sign,
    side: 'fits',
    weak: false,
    data: {},
    source: TRADE,
  }));
  return [...found, ...good];
}

function placeReasons(findings: LensFindings): FitReason[] {
  const reasons: FitReason[] = [];
  const off = Math.hypot(num(findings.offNose) ?? 0, num(findings.offUp) ?? 0);
  if (off > OFF_CENTRE_MM + 1e-9)
    reasons.push({ code: 'offCentre', sign: 'offNose', side: 'loose', weak: true, data: { mm: Math.round(off * 10) / 10, from: OFF_CENTRE_MM }, source: OWN });
  for (const sign of ['overlapUp', 'overlapDown', 'overlapNose', 'overlapEar'] as const) {
    const mm = num(findings[sign]);
    if (mm !== null && mm <= 0) reasons.push({ code: 'limbusShows', sign, side: 'loose', weak: false, data: { mm }, source: TRADE });
  }
  const lag = num(findings.lag);
  if (lag !== null && lag >= LAG_MM) reasons.push({ code: 'hangs', sign: 'lag', side: 'loose', weak: true, data: { mm: lag, from: LAG_MM }, source: OWN });
  return reasons;
}

/**
 * Loose, fits or tight, with every sign that says so. A push-up or a movement must have been judged before a lens can
 * be said to fit; signs of both kinds make it `mixed`, to be looked at again.
 * @param school of movement, a practice setting
 * @example judgeFit({movement: 0.3, pushUp: 50}, 'modern').verdict → 'fits'
 * @source movement: common practice; push-up: Martin 1989, Young 1996; simplified record: Wolffsohn 2009; all from memory
 */
export function judgeFit(findings: LensFindings, school: MovementSchool): FitVerdict {
  const reasons = [movementReason(findings, school), pushUpReason(findings), ...wordReasons(findings), ...placeReasons(findings)].filter((r) => r !== null);
  const strong = (side: FitSide): boolean => reasons.some((r) => r.side === side && !r.weak);
  const verdict = strong('loose') && strong('tight') ? 'mixed' : strong('loose') ? 'loose' : strong('tight') ? 'tight' : strong('fits') ? 'fits' : null;
  const comfort = num(findings.comfort);
  return { verdict, reasons, hurts: verdict === 'fits' && comfort !== null && comfort <= COMFORT_ASKS };
}

/** What to try, in this order, when a lens fits but hurts. Source: common practice. */
export const COMFORT_LADDER = ['slideAndBack', 'insideOut', 'debris', 'anotherLens'] as const;
