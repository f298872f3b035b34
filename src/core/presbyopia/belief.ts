import type { LogMar } from '../optics/acuity';
import type { Dioptres, Eye } from '../units';
import type { Forecast, Otherwise, TaskDemand } from './outlook';
import { changedPair, type LensPair } from './pair';

/** What was read of a task with a pair, both eyes open. */
export interface TaskReading {
  readonly demand: TaskDemand;
  readonly acuity: LogMar | null;
  /** 0 to 10. */
  readonly satisfaction: number;
}
/** A quarter of a dioptre held before an eye with both open, and what the wearer said of a task. */
export interface HeldAnswer {
  readonly eye: Eye;
  readonly by: Dioptres;
  readonly demand: TaskDemand;
  readonly answer: 'better' | 'same' | 'worse';
}
/** Everything read through one pair. */
export interface PairReading {
  readonly pair: LensPair;
  readonly tasks: readonly TaskReading[];
  readonly held: readonly HeldAnswer[];
}

/** How the far power may differ from what was found, D, and how likely: a refraction repeats with an SD of 0.25 D. Common practice. */
const BEYOND: readonly (readonly [Dioptres, number])[] = [
  [-0.5, 0.135],
  [-0.25, 0.607],
  [0, 1],
  [0.25, 0.607],
  [0.5, 0.135],
];
/** How an addition may differ from its name, and how likely. Our own. */
const MADE: readonly (readonly [number, number])[] = [
  [0.75, 0.5],
  [1, 1],
  [1.2, 0.5],
];
/** SD of an acuity about its forecast: the chart's own noise and the model's. Our own. */
const ACUITY_SD: LogMar = 0.08;
/** A held quarter is felt from this gain on, and so sharply. Our own. */
const FELT: LogMar = 0.02;
const FEELS: LogMar = 0.03;

const likely = (gain: LogMar, answer: HeldAnswer['answer']): number => {
  const better = 1 / (1 + Math.exp(-(gain - FELT) / FEELS));
  const worse = 1 / (1 + Math.exp((gain + FELT) / FEELS));
  return 0.05 + 0.85 * (answer === 'better' ? better : answer === 'worse' ? worse : Math.max(0, 1 - better - worse));
};

/** One way things may be, and how far it is believed; the weights add up to 1. */
export interface Believed {
  readonly otherwise: Otherwise;
  readonly weight: number;
}

/**
 * What is to be believed of an eye's far power and of the additions after what was read: each way things may be is weighed by how
 * well it foretells acuities and held quarters.
 * @source Bayes; the noise: our own, stated above
 */
export function believe(forecast: Forecast, readings: readonly PairReading[]): readonly Believed[] {
  const ways: { otherwise: Otherwise; weight: number }[] = [];
  for (const [right, r] of BEYOND)
    for (const [left, l] of BEYOND)
      for (const [addMade, m] of MADE) {
        const otherwise: Otherwise = { right, left, addMade };
        let log = Math.log(r * l * m);
        for (const { pair, tasks, held } of readings) {
          for (const { demand, acuity } of tasks) if (acuity !== null) log -= ((acuity - forecast(pair, demand, otherwise)) / ACUITY_SD) ** 2 / 2;
          for (const { eye, by, demand, answer } of held) {
            const gain = forecast(pair, demand, otherwise) - forecast(changedPair(pair, { kind: 'sphere', eye, by }), demand, otherwise);
            log += Math.log(likely(gain, answer));
          }
        }
        ways.push({ otherwise, weight: log });
      }
  const top = Math.max(...ways.map((w) => w.weight));
  const total = ways.reduce((sum, w) => sum + Math.exp(w.weight - top), 0);
  return ways.map(({ otherwise, weight }) => ({ otherwise, weight: Math.exp(weight - top) / total }));
}
