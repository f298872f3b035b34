import { compareAdds, rangeValues, type CurveDiameter, type LensBlock, type StepRange } from './family';

/** Splits ascending values into the longest evenly spaced runs, in order. @example runsOf([-7, -6.5, -6, -5.75, -5.5], 0.25) → [{from: -7, to: -6, step: 0.5}, {from: -5.75, to: -5.5, step: 0.25}] */
export function runsOf(values: readonly number[], loneStep: number): StepRange[] {
  const runs: StepRange[] = [];
  let at = 0;
  while (at < values.length) {
    const from = values[at]!;
    const next = values[at + 1];
    if (next === undefined) {
      runs.push({ from, to: from, step: loneStep });
      break;
    }
    const step = Math.round((next - from) * 1000) / 1000;
    let end = at + 1;
    while (values[end + 1] !== undefined && Math.abs(values[end + 1]! - values[end]! - step) < 1e-6) end++;
    runs.push({ from, to: values[end]!, step });
    at = end + 1;
  }
  return runs;
}

const ascending = (a: number, b: number): number => a - b;
const distinct = (values: readonly number[]): number[] => [...new Set(values)].sort(ascending);
const rangeKey = (r: StepRange): string => (r.from === r.to ? `${r.from}` : `${r.from}:${r.to}:${r.step}`);
const curvesKey = (list: readonly CurveDiameter[]): string => list.map((c) => `${c.baseCurve}/${c.diameter}`).join(' ');
/** A zero cylinder has no axis: listed beside others it is a block of its own, or it would be merged as if they had none either. */
function apart(block: LensBlock): LensBlock[] {
  const others = block.cylinders.filter((c) => c !== 0);
  if (others.length === 0 || others.length === block.cylinders.length) return [block];
  return [
    { ...block, cylinders: [0], axes: { from: 180, to: 180, step: 10 } },
    { ...block, cylinders: others },
  ];
}

/** Zero cylinders have no axis: they never share a block with others. */
const zeroKey = (b: LensBlock): string => (b.cylinders[0] === 0 ? 'zero' : 'toric');

function grouped(blocks: readonly LensBlock[], key: (b: LensBlock) => string, join: (group: readonly LensBlock[]) => LensBlock[]): LensBlock[] {
  const groups = new Map<string, LensBlock[]>();
  for (const block of blocks) {
    const k = `${zeroKey(block)}|${key(block)}`;
    const group = groups.get(k);
    if (group) group.push(block);
    else groups.set(k, [block]);
  }
  return [...groups.values()].flatMap((group) => (group.length === 1 ? group : join(group)));
}

const orderCurves = (list: readonly CurveDiameter[]): CurveDiameter[] => {
  const seen = new Map<string, CurveDiameter>();
  for (const c of list) if (!seen.has(`${c.baseCurve}/${c.diameter}`)) seen.set(`${c.baseCurve}/${c.diameter}`, c);
  return [...seen.values()];
};

function pass(blocks: readonly LensBlock[]): LensBlock[] {
  const cylinders = (b: LensBlock): string => b.cylinders.join(' ');
  const adds = (b: LensBlock): string => b.adds.map(String).join(' ');
  const bySphere = grouped(
    blocks,
    (b) => `${cylinders(b)}|${rangeKey(b.axes)}|${adds(b)}|${curvesKey(b.curves)}`,
    (group) => runsOf(distinct(group.flatMap((b) => rangeValues(b.spheres))), 0.25).map((spheres) => ({ ...group[0]!, spheres })),
  );
  const byAxis = grouped(
    bySphere,
    (b) => `${rangeKey(b.spheres)}|${cylinders(b)}|${adds(b)}|${curvesKey(b.curves)}`,
    (group) =>
      zeroKey(group[0]!) === 'zero' ? [group[0]!] : runsOf(distinct(group.flatMap((b) => rangeValues(b.axes))), 10).map((axes) => ({ ...group[0]!, axes })),
  );
  const byCylinder = grouped(
    byAxis,
    (b) => `${rangeKey(b.spheres)}|${rangeKey(b.axes)}|${adds(b)}|${curvesKey(b.curves)}`,
    (group) => [{ ...group[0]!, cylinders: distinct(group.flatMap((b) => b.cylinders)).reverse() }],
  );
  const byAdd = grouped(
    byCylinder,
    (b) => `${rangeKey(b.spheres)}|${cylinders(b)}|${rangeKey(b.axes)}|${curvesKey(b.curves)}`,
    (group) => [{ ...group[0]!, adds: [...new Set(group.flatMap((b) => b.adds))].sort(compareAdds) }],
  );
  return grouped(
    byAdd,
    (b) => `${rangeKey(b.spheres)}|${cylinders(b)}|${rangeKey(b.axes)}|${adds(b)}`,
    (group) => [{ ...group[0]!, curves: orderCurves(group.flatMap((b) => b.curves)) }],
  );
}

/**
 * The same lenses in fewer blocks: a family listed power by power becomes the ranges it is made in.
 * Exactly the same lenses are made before and after (an import counts them: `lensesLost`); curves keep the order in which they were named.
 * @example mergeBlocks(family.blocks).length → 1
 */
export function mergeBlocks(blocks: readonly LensBlock[]): LensBlock[] {
  let merged = blocks.flatMap(apart);
  for (;;) {
    const next = pass(merged);
    if (next.length >= merged.length) return merged;
    merged = next;
  }
}
