import type { LensAdd } from '../lens/family';
import { EYES, type Dioptres, type Eye } from '../units';
import { LINE, type LogMar } from '../optics/acuity';
import { believe, type Believed, type PairReading, type TaskReading } from './belief';
import { forecastFor, type Forecast, type PairWearer, type TaskDemand } from './outlook';
import { changedPair, isSamePair, otherOf, type LensPair, type PairChange } from './pair';

/** Satisfied from here on, of ten. Our own. */
export const SATISFIED = 7;
/** Satisfied beyond doubt from here on; between the two a pair is kept unless a change promises much. Our own. */
const CLEARLY = 8;
const WORTH_THOUGH_SATISFIED = 0.25;
/** From here on a week at home may settle it. Our own. */
const NEARLY = 6;
/** Changes after which another way is looked for. Our own. */
export const MOST_CHANGES = 3;
/**
 * Tasks (of one) that a change must win to be tried while a task is weak. A little less than nothing: a trial lens costs less than a
 * task that stays weak, and the pair that did best is kept in the end. Our own.
 */
const WORTH = -0.08;
/** A family's own rule goes before a better forecast of so little. Our own. */
const RULE_BEFORE = 0.08;

/** What a family can make of a pair. */
export interface PairChoices {
  /** Its additions, weakest first. */
  readonly adds: readonly LensAdd[];
  readonly makes: (eye: Eye, sphere: Dioptres, add: LensAdd | null) => boolean;
  /** Eyes that a toric of the same design is made for. */
  readonly toric: readonly Eye[];
}

/** What is changed first where something is weak: the eye by its dominance, and how. */
export type RuleStep = { readonly eye: 'dominant' | 'other'; readonly do: 'minusQuarter' | 'plusQuarter' | 'lessAdd' | 'moreAdd' };
export interface ChangeRule {
  readonly farWeak: readonly RuleStep[];
  readonly nearWeak: readonly RuleStep[];
}
/** Distance weak: plus taken off the dominant eye or a lower add there; near weak: plus on the other or its next add. Common practice. */
export const USUAL_RULE: ChangeRule = {
  farWeak: [
    { eye: 'dominant', do: 'minusQuarter' },
    { eye: 'dominant', do: 'lessAdd' },
    { eye: 'other', do: 'minusQuarter' },
  ],
  nearWeak: [
    { eye: 'other', do: 'plusQuarter' },
    { eye: 'other', do: 'moreAdd' },
    { eye: 'dominant', do: 'moreAdd' },
  ],
};

/** What is foretold of one task. */
export interface TaskOutlook {
  readonly demand: TaskDemand;
  readonly now: LogMar;
  readonly then: LogMar;
  /** 0 to 10. */
  readonly satisfactionThen: number;
  /** Lines short of what is wanted, 0 where nothing is. */
  readonly linesShort: number;
}
export interface ChangeOutlook {
  readonly change: PairChange;
  readonly pair: LensPair;
  readonly tasks: readonly TaskOutlook[];
  /** Tasks (as chances added up) that it wins, less those it loses. */
  readonly gain: number;
  /** Its place in the family's rule, 0 the first; null: the rule does not name it. */
  readonly ruled: number | null;
}
export type Verdict =
  | { readonly verdict: 'keep'; readonly pair: LensPair; readonly others: readonly ChangeOutlook[] }
  | { readonly verdict: 'homeTrial'; readonly pair: LensPair; readonly others: readonly ChangeOutlook[] }
  | { readonly verdict: 'change'; readonly proposed: ChangeOutlook; readonly others: readonly ChangeOutlook[] }
  /** `pair`: of those that were worn, the one that did best. */
  | { readonly verdict: 'stop'; readonly why: 'noneHelps' | 'enoughChanges'; readonly pair: LensPair; readonly others: readonly ChangeOutlook[] };

export interface NextInput {
  readonly wearer: PairWearer;
  readonly choices: PairChoices;
  readonly rule: ChangeRule;
  /** Null: not known; then the eye whose far sight is better is taken. */
  readonly dominant: Eye | null;
  /** Pairs worn, oldest first; the last is on the eyes. */
  readonly worn: readonly PairReading[];
}

const QUARTER: Dioptres = 0.25;

/** Every single change that can be had and leads to no pair that was worn. */
function changesFrom({ choices, worn }: NextInput, pair: LensPair): PairChange[] {
  const found: PairChange[] = [];
  for (const eye of EYES) {
    const { sphere, add } = pair[eye];
    for (const by of [QUARTER, -QUARTER]) if (choices.makes(eye, sphere + by, add)) found.push({ kind: 'sphere', eye, by });
    if (add !== null) {
      const at = choices.adds.indexOf(add);
      for (const to of [choices.adds[at - 1], choices.adds[at + 1]])
        if (to !== undefined && choices.makes(eye, sphere, to)) found.push({ kind: 'add', eye, to });
    }
    if (!pair[eye].toric && choices.toric.includes(eye)) found.push({ kind: 'toric', eye });
  }
  if (pair.right.add !== pair.left.add) found.push({ kind: 'swap' });
  return found.filter((change) => !worn.some((w) => isSamePair(w.pair, changedPair(pair, change))));
}

/** The place of a change in the family's rule where these are weak, 0 the first; null where the rule does not name it. */
function placeInRule(change: PairChange, steps: readonly RuleStep[], dominant: Eye, choices: PairChoices, pair: LensPair): number | null {
  const at = steps.findIndex((step) => {
    const eye = step.eye === 'dominant' ? dominant : otherOf(dominant);
    if (change.kind === 'sphere') return change.eye === eye && (step.do === 'plusQuarter' ? change.by > 0 : step.do === 'minusQuarter' && change.by < 0);
    if (change.kind !== 'add' || change.eye !== eye) return false;
    const now = choices.adds.indexOf(pair[eye].add ?? choices.adds[0] ?? 'low');
    const then = change.to === null ? -1 : choices.adds.indexOf(change.to);
    return step.do === 'moreAdd' ? then > now : step.do === 'lessAdd' && then < now;
  });
  return at < 0 ? null : at;
}

/** How satisfaction falls with acuity short of what is wanted. Our own: half-way a line short of it. */
const SLOPE: LogMar = 0.06;
const satisfactionAt = (short: LogMar): number => 10 / (1 + Math.exp(short / SLOPE));
const shortOf = (satisfaction: number): LogMar => SLOPE * Math.log(10 / Math.min(9.7, Math.max(0.3, satisfaction)) - 1);
/** How far what was said of a task before is carried over to the next pair: the rest is chance. Our own. */
const CARRIED = 0.85;
const SAID_SD = 1.2;
/** Chance of a satisfaction from 7 up. Source: a logistic in place of the normal distribution. */
const chanceOfSatisfied = (satisfaction: number): number => 1 / (1 + Math.exp((-1.7 * (satisfaction - SATISFIED + 0.5)) / SAID_SD));

interface Reckoned {
  readonly forecast: Forecast;
  readonly believed: readonly Believed[];
  readonly tasks: readonly TaskReading[];
  readonly now: readonly LogMar[];
  /** Acuity that each task is wanted at, by what was said of it. */
  readonly wanted: readonly LogMar[];
}

const meanOf = ({ forecast, believed }: Pick<Reckoned, 'forecast' | 'believed'>, pair: LensPair, task: TaskDemand): LogMar =>
  believed.reduce((sum, { otherwise, weight }) => sum + weight * forecast(pair, task, otherwise), 0);

/** What a wearer said of this very change at a task, held before the eye, as points of satisfaction. Our own. */
const SAID_POINTS = { better: 1.5, same: 0, worse: -1.5 } as const;
function heldOf(reading: PairReading, change: PairChange | null, task: TaskDemand): number | null {
  if (change?.kind !== 'sphere') return null;
  const said = reading.held.find((h) => h.eye === change.eye && Math.abs(h.by - change.by) < 1e-9 && h.demand.vergence === task.vergence);
  return said ? SAID_POINTS[said.answer] : null;
}

/** What was not foretold of a task with the pair that is worn is carried over to the next one in part. */
function outlookOf(r: Reckoned, pair: LensPair, reading: PairReading, change: PairChange | null): readonly TaskOutlook[] {
  return r.tasks.map((task, i) => {
    const foretold = r.now[i] ?? 0;
    const unexplained = task.acuity === null ? 0 : (task.acuity - foretold) * CARRIED;
    const then = meanOf(r, pair, task.demand) + unexplained;
    const byModel = satisfactionAt(then - (r.wanted[i] ?? 0));
    const held = heldOf(reading, change, task.demand);
    // What the wearer said of it weighs as much as the forecast.
    const satisfactionThen = held === null ? byModel : (byModel + Math.min(10, Math.max(0, task.satisfaction + held))) / 2;
    return { demand: task.demand, now: task.acuity ?? foretold, then, satisfactionThen, linesShort: Math.max(0, then - (r.wanted[i] ?? 0)) / LINE };
  });
}

/** How far a step on the way counts that wins no task yet: satisfaction up to here, and lines that are still short. Our own. */
const ENOUGH = 8;
const ON_THE_WAY = { satisfaction: 0.5, line: 0.2 } as const;
const won = (tasks: readonly TaskOutlook[]): number =>
  tasks.reduce(
    (sum, t) =>
      sum + chanceOfSatisfied(t.satisfactionThen) + (ON_THE_WAY.satisfaction * Math.min(ENOUGH, t.satisfactionThen)) / ENOUGH - ON_THE_WAY.line * t.linesShort,
    0,
  );

function reckon(input: NextInput, reading: PairReading): Reckoned {
  const { both: forecast } = forecastFor(input.wearer);
  const believed = believe(forecast, input.worn).filter((b) => b.weight > 0.01);
  const total = believed.reduce((sum, b) => sum + b.weight, 0);
  const r = { forecast, believed: believed.map((b) => ({ ...b, weight: b.weight / total })) };
  const now = reading.tasks.map((t) => meanOf(r, reading.pair, t.demand));
  const wanted = reading.tasks.map((t, i) => {
    const seen = t.acuity === null ? (now[i] ?? 0) : (t.acuity + (now[i] ?? 0)) / 2;
    return t.demand.needs + 0.06 + CARRIED * (seen - shortOf(t.satisfaction) - t.demand.needs - 0.06);
  });
  return { ...r, tasks: reading.tasks, now, wanted };
}

/** Of the pairs that were worn, the one whose weakest task did best; among equals the later one. */
function bestWorn(worn: readonly PairReading[]): PairReading | null {
  const weakest = (of: PairReading): number => Math.min(...of.tasks.map((t) => t.satisfaction));
  return worn.reduce<PairReading | null>((best, next) => (best === null || weakest(next) >= weakest(best) ? next : best), null);
}

/** The dominant eye; where nobody knows it, the one that is weaker near. */
const farEye = (input: NextInput, pair: LensPair): Eye =>
  input.dominant ?? (pair.right.sphere - input.wearer.eyes.right.need <= pair.left.sphere - input.wearer.eyes.left.need ? 'right' : 'left');

/**
 * The one change to make next, with what it is expected to gain and to cost at every distance; or that the pair is kept, goes
 * home for a week, or that no further change is worth it. A pair that was worn never comes back as a change, and there are
 * never more than three: it always ends. Null while no pair was judged.
 * @source the order of changes: common practice (ChangeRule); forecasts: see expectedAcuity and believe; limits: our own
 */
export function nextChange(input: NextInput): Verdict | null {
  const reading = input.worn.at(-1);
  const best = bestWorn(input.worn);
  if (!reading || !best) return null;
  const { pair, tasks } = reading;
  const r = reckon(input, reading);
  const before = won(outlookOf(r, pair, reading, null));
  const dominant = farEye(input, pair);
  const weak = tasks.filter((t) => t.satisfaction < SATISFIED);
  const steps = [
    ...(weak.some((t) => t.demand.vergence < 1) ? input.rule.farWeak : []),
    ...(weak.some((t) => t.demand.vergence >= 1) ? input.rule.nearWeak : []),
  ];
  const others = changesFrom(input, pair)
    .map((change): ChangeOutlook => {
      const next = changedPair(pair, change);
      const outlook = outlookOf(r, next, reading, change);
      return { change, pair: next, tasks: outlook, gain: won(outlook) - before, ruled: placeInRule(change, steps, dominant, input.choices, pair) };
    })
    .sort((a, b) => b.gain - a.gain);
  const clearly = tasks.every((t) => t.satisfaction >= CLEARLY);
  if (clearly || (weak.length === 0 && !(others[0] && others[0].gain >= WORTH_THOUGH_SATISFIED))) return { verdict: 'keep', pair, others };
  const [first] = others;
  // Of those that the rule names and that promise about as much as the best, the one that it names first.
  const [ruled] = others.filter((o) => o.ruled !== null && o.gain >= (first?.gain ?? 0) - RULE_BEFORE).sort((a, b) => (a.ruled ?? 0) - (b.ruled ?? 0));
  const proposed = ruled ?? first;
  const stop = (why: 'noneHelps' | 'enoughChanges'): Verdict =>
    best.tasks.every((t) => t.satisfaction >= NEARLY) ? { verdict: 'homeTrial', pair: best.pair, others } : { verdict: 'stop', why, pair: best.pair, others };
  if (input.worn.length > MOST_CHANGES) return stop('enoughChanges');
  if (!proposed || proposed.gain < WORTH) return stop('noneHelps');
  return { verdict: 'change', proposed, others: others.filter((o) => o !== proposed) };
}
