import {
  EYES,
  nextChange,
  otherOf,
  SATISFIED,
  USUAL_RULE,
  type Eye,
  type LensAdd,
  type LensPair,
  type MultifocalDesign,
  type PairReading,
  type PairWearer,
} from '../../../src/core';
import type { Fitter, Next, Seen } from './trial';
import { SIM_TASK_FIGURES, type SimTask } from './wearer';
import type { SimLens, SimPair } from './world';

/** What a made-up family makes: additions by name, weakest first. */
export interface SimFamily {
  readonly name: string;
  readonly adds: readonly { readonly add: LensAdd; readonly upTo: number; readonly power: number; readonly design: MultifocalDesign }[];
}
const bands = (design: MultifocalDesign): SimFamily['adds'] => [
  { add: 'low', upTo: 1.25, power: 1, design },
  { add: 'medium', upTo: 2, power: 1.75, design },
  { add: 'high', upTo: 4, power: 2.25, design },
];
export const SIM_FAMILIES: readonly SimFamily[] = [
  { name: 'centre-near in bands', adds: bands('centreNear') },
  {
    name: 'concentric, two bands',
    adds: [
      { add: 'low', upTo: 1.5, power: 1.25, design: 'concentric' },
      { add: 'high', upTo: 4, power: 2, design: 'concentric' },
    ],
  },
  { name: 'extended depth in bands', adds: bands('extendedDepth') },
];

const lensOf = (family: SimFamily, offset: number, add: LensAdd): SimLens => {
  const made = family.adds.find((a) => a.add === add);
  return { offset, near: made ? { design: made.design, power: made.power } : null, toric: false };
};
const addOf = (family: SimFamily, lens: SimLens): LensAdd | null => family.adds.find((a) => a.power === lens.near?.power)?.add ?? null;
const simPairOf = (family: SimFamily, pair: LensPair): SimPair => ({
  right: lensOf(family, pair.right.sphere, pair.right.add ?? 'low'),
  left: lensOf(family, pair.left.sphere, pair.left.add ?? 'low'),
});
const lensPairOf = (family: SimFamily, pair: SimPair): LensPair => ({
  right: { sphere: pair.right.offset, add: addOf(family, pair.right), toric: false },
  left: { sphere: pair.left.offset, add: addOf(family, pair.left), toric: false },
});

/** The pair that everybody begins with: far power as found, the band of the addition. */
export function startPair(family: SimFamily, add: number): SimPair {
  const made = family.adds.find((a) => add <= a.upTo + 0.1) ?? family.adds.at(-1);
  const lens = lensOf(family, 0, made?.add ?? 'low');
  return { right: lens, left: lens };
}

const demandOf = (task: SimTask) => ({
  vergence: SIM_TASK_FIGURES[task].vergence,
  light: task === 'road' ? ('dim' as const) : ('room' as const),
  needs: SIM_TASK_FIGURES[task].needs,
});
const content = (seen: Seen): boolean => seen.tasks.every((t) => t.satisfaction >= SATISFIED);
const weak = (seen: Seen): { readonly far: boolean; readonly near: boolean } => ({
  far: seen.tasks.some((t) => t.satisfaction < SATISFIED && SIM_TASK_FIGURES[t.task].vergence < 1),
  near: seen.tasks.some((t) => t.satisfaction < SATISFIED && SIM_TASK_FIGURES[t.task].vergence >= 1),
});

/** The product's own advice. */
export function advised(family: SimFamily): Fitter {
  const readings = new WeakMap<SimPair, PairReading>();
  return (seen) => {
    // A quarter is held before each eye, at far and at the weakest near task.
    const near = seen.tasks.filter((t) => t.task !== 'road').reduce((a, b) => (b.satisfaction < a.satisfaction ? b : a));
    const asked: SimTask[] = ['road', near.task];
    readings.set(seen.pair, {
      pair: lensPairOf(family, seen.pair),
      tasks: seen.tasks.map((t) => ({ demand: demandOf(t.task), acuity: t.acuity, satisfaction: t.satisfaction })),
      held: seen.tasks.every((t) => t.satisfaction > SATISFIED)
        ? []
        : EYES.flatMap((eye) => [0.25, -0.25].flatMap((by) => asked.map((task) => ({ eye, by, demand: demandOf(task), answer: seen.held(eye, by, task) })))),
    });
    const eye = { need: 0, halfCylinder: 0.15, halfCylinderToric: 0, best: 0, decentredMm: 0 };
    const wearer: PairWearer = {
      eyes: { right: eye, left: eye },
      pupilRoomMm: seen.pupilRoomMm,
      pupilDimMm: seen.pupilDimMm,
      comfortable: Math.max(0, 2.5 - seen.add),
      nearOf: (add) => {
        const made = family.adds.find((a) => a.add === add);
        return { design: made?.design ?? 'centreNear', power: made?.power ?? 0 };
      },
    };
    const verdict = nextChange({
      wearer,
      choices: { adds: family.adds.map((a) => a.add), makes: () => true, toric: [] },
      rule: USUAL_RULE,
      dominant: seen.dominant,
      worn: [...seen.before.map((b) => b.pair), seen.pair].flatMap((pair) => readings.get(pair) ?? []),
    });
    if (!verdict) return { do: 'stop' };
    switch (verdict.verdict) {
      case 'change':
        return { do: 'change', pair: simPairOf(family, verdict.proposed.pair) };
      case 'keep':
      case 'homeTrial':
      case 'stop':
        return { do: 'keep', pair: simPairOf(family, verdict.pair) };
    }
  };
}

const nextAdd = (family: SimFamily, lens: SimLens, by: 1 | -1): SimLens | null => {
  const at = family.adds.findIndex((a) => a.power === lens.near?.power);
  const made = family.adds[at + by];
  return made ? { ...lens, near: { design: made.design, power: made.power } } : null;
};
const changed = (pair: SimPair, eye: Eye, lens: SimLens): Next => ({ do: 'change', pair: { ...pair, [eye]: lens } });

/** Always the addition: near weak, the next one in the other eye, then in the dominant; far weak, the one before, dominant first. */
export const alwaysTheAdd =
  (family: SimFamily): Fitter =>
  (seen) => {
    if (content(seen)) return { do: 'keep' };
    const dominant = seen.dominant ?? 'right';
    const { near } = weak(seen);
    for (const eye of near ? [otherOf(dominant), dominant] : [dominant, otherOf(dominant)]) {
      const lens = nextAdd(family, seen.pair[eye], near ? 1 : -1);
      if (lens) return changed(seen.pair, eye, lens);
    }
    return { do: 'keep' };
  };

/** Always the other eye: a quarter more plus where near is weak, a quarter less where far is. */
export const alwaysTheOtherEye =
  (_family: SimFamily): Fitter =>
  (seen) => {
    if (content(seen)) return { do: 'keep' };
    const eye = otherOf(seen.dominant ?? 'right');
    return changed(seen.pair, eye, { ...seen.pair[eye], offset: seen.pair[eye].offset + (weak(seen).near ? 0.25 : -0.25) });
  };
