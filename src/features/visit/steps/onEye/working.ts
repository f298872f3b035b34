import {
  addPowers,
  fromPowerVector,
  subtractVectors,
  formatAxis,
  formatPower,
  formatRefraction,
  powerOnEye,
  toCornealPlane,
  toPowerVector,
  powerOf,
  sagitta,
  steadinessLimit,
  EARLY_SHARE,
  turnCost,
  type CurveDiameter,
  type PracticeSettings,
  type Refraction,
  type SeriesStats,
} from '@/core';
import type { WorkingBlock } from '../../../common/Working';
import type { LiveEye } from './model';

export interface RouteWords {
  readonly title: string;
  readonly lensAsLabelled: string;
  readonly asItLies: (axis: string) => string;
  readonly overAtCornea: string;
  readonly need: string;
  readonly route1: string;
  readonly route2: string;
  readonly gap: string;
  readonly gapOfMean: string;
  readonly meanOnly: string;
  readonly weighted: string;
  readonly gate: string;
  readonly order: (turn: string) => string;
  readonly made: string;
  readonly foot: string;
}

/** Both routes to what the eye asks, step by step, and the lens to order. */
export function routesWorking(id: string, live: LiveEye, over: { power: Refraction; vertexMm: number } | null, words: RouteWords): WorkingBlock | null {
  const { verdict, lens } = live;
  if (!lens) return null;
  // As it lay when the over-refraction was taken; the order counts where it sits now.
  const turn = Math.round((over ? (live.overTurn ?? 0) : (live.stats?.mean ?? 0)) * 10) / 10;
  const turnNow = Math.round((live.stats?.mean ?? 0) * 10) / 10;
  const labelled: Refraction = { sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg };
  const lying = powerOnEye(labelled, turn);
  const lines: WorkingBlock['lines'][number][] = [];
  if (live.state.refraction && verdict.fromRefraction) {
    lines.push({
      what: `${words.route1}: ${formatRefraction(powerOf(live.state.refraction.current))}`,
      comes: formatRefraction(verdict.fromRefraction),
      strong: true,
    });
  }
  lines.push({ what: words.lensAsLabelled, comes: formatRefraction(labelled) });
  if (labelled.cylinder !== 0)
    lines.push({ what: words.asItLies(`${formatAxis(labelled.axis)} ${turn < 0 ? '+' : '−'} ${Math.abs(turn)}`), comes: formatRefraction(lying) });
  if (over && verdict.fromOverRefraction) {
    const atCornea = toCornealPlane(over.power, over.vertexMm);
    const [a, b, sum] = [lying, atCornea, addPowers(lying, atCornea)].map(toPowerVector);
    lines.push({ what: words.overAtCornea, comes: formatRefraction(atCornea) });
    for (const part of ['m', 'j0', 'j45'] as const) {
      if (a && b && sum)
        lines.push({ what: part.toUpperCase(), comes: `${formatPower(a[part], 3)} + (${formatPower(b[part], 3)}) = ${formatPower(sum[part], 3)}` });
    }
    lines.push({ what: words.route2, comes: formatRefraction(verdict.fromOverRefraction.need), strong: true });
    if (verdict.need && verdict.parts === 'mean') lines.push({ what: words.meanOnly, comes: formatRefraction(verdict.need), strong: true });
  }
  if (verdict.routes) {
    lines.push(
      { what: verdict.routes.parts === 'mean' ? words.gapOfMean : words.gap, comes: `${verdict.routes.gap.toFixed(2)} D` },
      { what: words.gate, comes: `${verdict.routes.gate.toFixed(2)} D` },
    );
  }
  if (verdict.weighted) lines.push({ what: words.weighted, comes: formatRefraction(verdict.weighted.need) });
  if (verdict.order) {
    const { need } = verdict;
    if (need && need.cylinder !== 0 && verdict.rotation?.code !== 'leave') {
      lines.push({
        what: words.order(`${formatAxis(need.axis)} ${turnNow < 0 ? '−' : '+'} ${Math.abs(turnNow)}`),
        comes: `× ${formatAxis(verdict.order.axis)}`,
      });
    }
    if (live.made) lines.push({ what: words.made, comes: formatRefraction(live.made.lens.power), strong: true });
  }
  return { id, title: words.title, lines, foot: words.foot };
}

export interface ExpectedWords {
  readonly title: string;
  readonly need: string;
  readonly lies: string;
  readonly left: string;
  readonly atFrame: string;
  readonly foot: string;
}

/** Which over-refraction the glasses predict through this lens as it lies. */
export function expectedWorking(
  id: string,
  eye: { readonly need: Refraction; readonly lens: Refraction; readonly turn: number; readonly expected: Refraction; readonly vertexMm: number },
  words: ExpectedWords,
): WorkingBlock {
  const lying = powerOnEye(eye.lens, eye.turn);
  const left = fromPowerVector(subtractVectors(toPowerVector(eye.need), toPowerVector(lying)));
  return {
    id,
    title: words.title,
    lines: [
      { what: words.need, comes: formatRefraction(eye.need) },
      { what: words.lies, comes: formatRefraction(lying) },
      { what: words.left, comes: formatRefraction(left) },
      { what: `${words.atFrame} ${eye.vertexMm} mm`, comes: formatRefraction(eye.expected), strong: true },
    ],
    foot: words.foot,
  };
}

export interface SeriesWords {
  readonly title: string;
  readonly readings: string;
  readonly mean: string;
  readonly sd: string;
  readonly noise: string;
  readonly own: string;
  readonly slope: string;
  readonly limit: (cylinder: string, blur: string) => string;
  readonly three: string;
  readonly foot: string;
}
const minus = (text: string): string => text.replace('-', '−');

/** From the blinks to the lens's own scatter and drift. */
export function seriesWorking(
  id: string,
  blinks: readonly number[],
  stats: SeriesStats,
  cylinder: number,
  settings: PracticeSettings,
  words: SeriesWords,
): WorkingBlock {
  const limit = steadinessLimit(cylinder, settings.scatterBlur);
  const sd = stats.sd ?? 0;
  return {
    id,
    title: words.title,
    lines: [
      { what: words.readings, comes: minus(blinks.join(', ')) },
      { what: words.mean, comes: minus(`${stats.mean.toFixed(1)}°`) },
      { what: words.sd, comes: `${sd.toFixed(2)}°` },
      { what: words.noise, comes: `√(${sd.toFixed(2)}² − ${settings.readerNoiseDegrees}²)` },
      { what: words.own, comes: `${(stats.lensSd ?? 0).toFixed(1)}°`, strong: true },
      { what: words.slope, comes: minus(`${(stats.slope ?? 0).toFixed(1)}°`) },
      { what: words.limit(Math.abs(cylinder).toFixed(2), settings.scatterBlur.toFixed(2)), comes: `${limit.toFixed(1)}°`, strong: true },
      { what: words.three, comes: `${(EARLY_SHARE * limit).toFixed(1)}°` },
    ],
    foot: words.foot,
  };
}

/** What a turn costs a cylinder that is otherwise right. */
export function costWorking(
  id: string,
  cylinder: number,
  turn: number,
  words: { readonly title: string; readonly cylinder: string; readonly blur: string; readonly foot: string },
): WorkingBlock {
  const cost = turnCost(cylinder, turn);
  const angle = Math.abs(Math.round(turn * 10) / 10);
  return {
    id,
    title: words.title,
    lines: [
      { what: words.cylinder, comes: `2 × ${Math.abs(cylinder).toFixed(2)} × sin ${angle}° = ${cost.cylinder.toFixed(2)} D` },
      { what: words.blur, comes: `${Math.abs(cylinder).toFixed(2)} × sin ${angle}° = ${cost.blur.toFixed(2)} D`, strong: true },
    ],
    foot: words.foot,
  };
}

/** The depth of each curve a family is made in, beside the one on the eye. */
export function nextWorking(
  id: string,
  tried: CurveDiameter,
  curves: readonly CurveDiameter[],
  words: { readonly title: string; readonly foot: string },
): WorkingBlock {
  const distinct = [...new Map(curves.map((c) => [`${c.baseCurve}|${c.diameter}`, c])).values()];
  return {
    id,
    title: words.title,
    lines: distinct.map((c) => ({
      what: `${c.baseCurve.toFixed(1)} / ${c.diameter.toFixed(1)}`,
      comes: `${sagitta(c.baseCurve, c.diameter)?.toFixed(3) ?? ''} mm`,
      strong: c.baseCurve === tried.baseCurve && c.diameter === tried.diameter,
    })),
    foot: words.foot,
  };
}
