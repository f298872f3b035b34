import { OWN, TRADE, type Source } from '../advice/source';
import type { LensFindings, LensSignId } from './lensSigns';
import { MOVEMENT_SCHOOLS, STUCK_UNDER, UP_GAZE, type MovementSchool } from './movement';

/** Push-up tightness, %: 50 is ideal, 40 to 60 good; a watch on either side of it, past which nothing settles it. */
export const PUSH_UP = { from: 40, to: 60, watchFrom: 30, watchTo: 70 } as const;
const MARTIN: Source = { mark: 'P', text: 'Martin 1989; Young 1996; from memory' };
const UP_GAZE_SOURCE: Source = { mark: 'P', text: 'Wolffsohn 2009, from memory' };
/** Off the middle by more than this counts against a lens, mm. */
export const OFF_CENTRE_MM = 0.5;
/** Lag over this: a lens hangs, mm. From memory. */
export const LAG_MM = 1;
/** From this comfort down a lens that fits is asked about, 0 to 10. */
export const COMFORT_ASKS = 6;

export type FitSide = 'loose' | 'tight' | 'fits';
/**
 * How much a sign weighs. `condemns`: nothing settles it; `watch`: settled by a sign that is good, two on one side condemn;
 * `weak`: speaks only beside others; `good`: it is as it should be.
 */
export type FitWeight = 'condemns' | 'watch' | 'weak' | 'good';
export interface FitReason {
  readonly code: string;
  readonly sign: LensSignId;
  readonly side: FitSide;
  readonly weight: FitWeight;
  readonly data: Readonly<Record<string, number>>;
  readonly source: Source;
}
export interface FitVerdict {
  /** `mixed`: signs of both; null: too little was looked at. */
  readonly verdict: FitSide | 'mixed' | null;
  /** The side of a single watch that nothing has settled yet: the next sign to look at decides. */
  readonly unsettled: 'loose' | 'tight' | null;
  readonly reasons: readonly FitReason[];
  /** It fits but hurts: the steps of comfort before another lens. */
  readonly hurts: boolean;
}

const num = (value: number | string | undefined): number | null => (typeof value === 'number' ? value : null);
const below = (value: number, limit: number): boolean => value < limit - 1e-9;
const above = (value: number, limit: number): boolean => value > limit + 1e-9;

function movementReason(findings: LensFindings, school: MovementSchool): FitReason | null {
  const mm = num(findings.movement);
  if (mm === null) return null;
  const { accepted, wanted, watch } = MOVEMENT_SCHOOLS[school];
  const side: FitSide = below(mm, accepted[0]) ? 'tight' : above(mm, accepted[1]) ? 'loose' : 'fits';
  const weight: FitWeight = side === 'fits' ? 'good' : below(mm, Math.max(watch[0], STUCK_UNDER)) || above(mm, watch[1]) ? 'condemns' : 'watch';
  const inWanted = !below(mm, wanted[0]) && !above(mm, wanted[1]);
  const code = side === 'tight' ? 'movesLittle' : side === 'loose' ? 'movesMuch' : inWanted ? 'movesWell' : 'movesAccepted';
  return { code, sign: 'movement', side, weight, data: { mm, from: accepted[0], to: accepted[1] }, source: TRADE };
}

/** Up gaze has limits of its own, and is a watch at most: but a lens that does not move even there is stuck. */
function upGazeReason(findings: LensFindings): FitReason | null {
  const mm = num(findings.movementUp);
  if (mm === null) return null;
  const side: FitSide = below(mm, UP_GAZE.from) ? 'tight' : above(mm, UP_GAZE.to) ? 'loose' : 'fits';
  const weight: FitWeight = side === 'fits' ? 'good' : below(mm, STUCK_UNDER) ? 'condemns' : 'watch';
  const code = side === 'tight' ? 'movesLittleUp' : side === 'loose' ? 'movesMuchUp' : 'movesWellUp';
  return { code, sign: 'movementUp', side, weight, data: { mm, ...UP_GAZE }, source: UP_GAZE_SOURCE };
}

function pushUpReason(findings: LensFindings): FitReason | null {
  const percent = num(findings.pushUp);
  if (percent === null) return null;
  const { from, to, watchFrom, watchTo } = PUSH_UP;
  const side: FitSide = percent > to ? 'tight' : percent < from ? 'loose' : 'fits';
  const weight: FitWeight = side === 'fits' ? 'good' : percent < watchFrom || percent > watchTo ? 'condemns' : 'watch';
  const code = side === 'tight' ? 'pushUpHard' : side === 'loose' ? 'pushUpEasy' : 'pushUpGood';
  return { code, sign: 'pushUp', side, weight, data: { percent, from, to }, source: MARTIN };
}

/** Words that say loose or tight by themselves. */
const WORDS: readonly { readonly sign: LensSignId; readonly value: string; readonly side: FitSide; readonly weight?: FitWeight }[] = [
  { sign: 'edge', value: 'indents', side: 'tight' },
  { sign: 'edge', value: 'lifts', side: 'loose' },
  { sign: 'edgeVessels', value: 'blanched', side: 'tight' },
  { sign: 'edgeVessels', value: 'red', side: 'tight' },
  { sign: 'afterBlink', value: 'clearThenBlurs', side: 'tight' },
  { sign: 'afterBlink', value: 'worseJustAfter', side: 'loose' },
  { sign: 'coverage', value: 'edgeShows', side: 'loose' },
  // The line has three words a sign: one off is a watch, two on one side condemn.
  { sign: 'lineMovement', value: 'less', side: 'tight', weight: 'watch' },
  { sign: 'lineMovement', value: 'more', side: 'loose', weight: 'watch' },
  { sign: 'lineRecovery', value: 'slow', side: 'tight', weight: 'watch' },
  { sign: 'lineRecovery', value: 'fast', side: 'loose', weight: 'watch' },
  { sign: 'lineLag', value: 'more', side: 'loose', weight: 'weak' },
  { sign: 'lineLag', value: 'less', side: 'tight', weight: 'weak' },
  { sign: 'lineCentre', value: 'more', side: 'loose' },
  { sign: 'lineCentre', value: 'less', side: 'loose', weight: 'weak' },
];
/** Words that say a lens was looked at and is as it should be. */
const GOOD: readonly LensSignId[] = ['lineMovement', 'lineRecovery'];

function wordReasons(findings: LensFindings): FitReason[] {
  const found = WORDS.filter((w) => findings[w.sign] === w.value).map((w): FitReason => ({
    code: `${w.sign}.${w.value}`,
    sign: w.sign,
    side: w.side,
    weight: w.weight ?? 'condemns',
    data: {},
    source: TRADE,
  }));
  const good = GOOD.filter((sign) => findings[sign] === 'middle').map((sign): FitReason => ({
    code: `${sign}.middle`,
    sign,
    side: 'fits',
    weight: 'good',
    data: {},
    source: TRADE,
  }));
  return [...found, ...good];
}

function placeReasons(findings: LensFindings): FitReason[] {
  const reasons: FitReason[] = [];
  const off = Math.hypot(num(findings.offNose) ?? 0, num(findings.offUp) ?? 0);
  if (above(off, OFF_CENTRE_MM))
    reasons.push({
      code: 'offCentre',
      sign: 'offNose',
      side: 'loose',
      weight: 'weak',
      data: { mm: Math.round(off * 10) / 10, from: OFF_CENTRE_MM },
      source: OWN,
    });
  for (const sign of ['overlapUp', 'overlapDown', 'overlapNose', 'overlapEar'] as const) {
    const mm = num(findings[sign]);
    if (mm !== null && mm <= 0) reasons.push({ code: 'limbusShows', sign, side: 'loose', weight: 'condemns', data: { mm }, source: TRADE });
  }
  const lag = num(findings.lag);
  if (lag !== null && above(lag, LAG_MM))
    reasons.push({ code: 'hangs', sign: 'lag', side: 'loose', weight: 'weak', data: { mm: lag, from: LAG_MM }, source: UP_GAZE_SOURCE });
  return reasons;
}

/**
 * Loose, fits or tight, with every sign that says so. A sign that condemns is settled by nothing; one watch is settled by
 * another sign that is good; two watches on one side condemn. A push-up or a movement must have been judged before a lens
 * can be said to fit; signs of both kinds make it `mixed`, to be looked at again.
 * @param school of movement, a practice setting
 * @example judgeFit({movement: 0.3, pushUp: 50}, 'modern').verdict → 'fits'
 * @source movement: common practice; push-up: Martin 1989, Young 1996; simplified record: Wolffsohn 2009; all from memory
 */
export function judgeFit(findings: LensFindings, school: MovementSchool): FitVerdict {
  const reasons = [
    movementReason(findings, school),
    upGazeReason(findings),
    pushUpReason(findings),
    ...wordReasons(findings),
    ...placeReasons(findings),
  ].filter((r) => r !== null);
  const count = (side: FitSide, weight: FitWeight): number => reasons.filter((r) => r.side === side && r.weight === weight).length;
  const condemned = (side: 'loose' | 'tight'): boolean => count(side, 'condemns') > 0 || count(side, 'watch') > 1;
  const watched = (side: 'loose' | 'tight'): boolean => condemned(side) || count(side, 'watch') > 0;
  const good = count('fits', 'good') > 0;
  const loose = condemned('loose');
  const tight = condemned('tight');
  // Watches that contradict each other settle nothing either: the lens is looked at again.
  const mixed = (loose && tight) || (watched('loose') && watched('tight') && (loose || tight || !good));
  const verdict = mixed ? 'mixed' : loose ? 'loose' : tight ? 'tight' : good ? 'fits' : null;
  const unsettled = verdict !== null ? null : watched('tight') ? 'tight' : watched('loose') ? 'loose' : null;
  const comfort = num(findings.comfort);
  return { verdict, unsettled, reasons, hurts: verdict === 'fits' && comfort !== null && comfort <= COMFORT_ASKS };
}

/** What to try, in this order, when a lens fits but hurts. Source: common practice. */
export const COMFORT_LADDER = ['slideAndBack', 'insideOut', 'debris', 'anotherLens'] as const;
