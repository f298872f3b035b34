import { TRADE, OWN, type Source } from '../advice/source';
import { TORIC_FROM } from '../lens/toricFrom';
import { EYES, type Dioptres, type Eye, type Millimetres } from '../units';
import type { NearState, NearWay } from './nearFindings';
import { NEAR_WAYS } from './nearFindings';

/** What decides how near is served. */
export interface WayFacts {
  readonly near: NearState;
  /** Near addition, D; null while none is known. */
  readonly add: Dioptres | null;
  /** Cylinder at the cornea of each eye, D, as a positive figure; null where it is not fitted or not known. */
  readonly cylinder: Readonly<Record<Eye, Dioptres | null>>;
  readonly pupilRoomMm: Millimetres | null;
  readonly pupilDimMm: Millimetres | null;
  readonly flies: boolean;
  readonly drivesForLiving: boolean;
  readonly onlyGoodEye: boolean;
  /** An eye that sees two lines less than its fellow with the best that it was given. */
  readonly weakEye: Eye | null;
  readonly surgery: boolean;
  readonly dry: boolean;
}

/** One rule for or against ways; one that bars says what would free it by its words. */
export interface WayRule {
  readonly id: string;
  readonly holds: (facts: WayFacts) => boolean;
  readonly weigh: Readonly<Partial<Record<NearWay, number>>>;
  readonly bars?: readonly NearWay[];
  readonly source: Source;
}

/** Fine stereo: at least so many seconds of arc. Common practice; the figure from memory. */
const GOOD_STEREO = 60;
const toricEyes = ({ cylinder }: WayFacts): number => EYES.filter((eye) => (cylinder[eye] ?? 0) >= TORIC_FROM - 1e-9).length;
const between = ({ near }: WayFacts): boolean => near.tasks.some(({ cm }) => cm > 45 && cm < 150);
const has = ({ near }: WayFacts, task: string): boolean => near.tasks.some((t) => t.task === task);
const MONOVISION: readonly NearWay[] = ['monovision', 'partialMonovision'];
const FAR_SIGHT_APART: readonly NearWay[] = [...MONOVISION, 'modified'];

export const WAY_RULES: readonly WayRule[] = [
  { id: 'usual', holds: () => true, weigh: { multifocal: 2, toricMultifocal: 2, readers: -1 }, source: TRADE },
  { id: 'likedMonovision', holds: (f) => f.near.monovisionBefore === 'liked', weigh: { monovision: 8, partialMonovision: 6 }, source: TRADE },
  {
    id: 'dislikedMonovision',
    holds: (f) => f.near.monovisionBefore === 'disliked',
    weigh: { monovision: -6, partialMonovision: -4, modified: -2 },
    source: TRADE,
  },
  {
    id: 'cylinder',
    holds: (f) => toricEyes(f) > 0,
    weigh: { toricMultifocal: 3, monovision: 2, partialMonovision: 2 },
    bars: ['multifocal', 'modified'],
    source: TRADE,
  },
  { id: 'oneEyesCylinder', holds: (f) => toricEyes(f) === 1, weigh: { toricOneEye: 7 }, source: TRADE },
  { id: 'notOneEyesCylinder', holds: (f) => toricEyes(f) !== 1, weigh: {}, bars: ['toricOneEye'], source: TRADE },
  { id: 'littleCylinder', holds: (f) => toricEyes(f) === 0, weigh: {}, bars: ['toricMultifocal'], source: TRADE },
  {
    id: 'middleDistance',
    holds: between,
    weigh: { multifocal: 2, toricMultifocal: 2, toricOneEye: 2, modified: 1, monovision: -2, partialMonovision: 1 },
    source: TRADE,
  },
  { id: 'smallAdd', holds: (f) => f.add !== null && f.add <= 1.5, weigh: { monovision: 1, partialMonovision: 2 }, source: TRADE },
  {
    id: 'largeAdd',
    holds: (f) => f.add !== null && f.add > 1.75,
    weigh: { multifocal: 1, toricMultifocal: 1, modified: 2, monovision: -3, partialMonovision: -1 },
    source: TRADE,
  },
  { id: 'nightRoad', holds: (f) => has(f, 'road'), weigh: { monovision: -1, partialMonovision: -1, readers: 1 }, source: TRADE },
  { id: 'wideInTheDark', holds: (f) => has(f, 'road') && (f.pupilDimMm ?? 0) > 6, weigh: { multifocal: -1, toricMultifocal: -1, readers: 1 }, source: OWN },
  { id: 'smallPupil', holds: (f) => f.pupilRoomMm !== null && f.pupilRoomMm < 3, weigh: { multifocal: -1, toricMultifocal: -1 }, source: TRADE },
  { id: 'workbench', holds: (f) => has(f, 'workbench'), weigh: { monovision: -2, partialMonovision: -1 }, source: TRADE },
  { id: 'poorStereo', holds: (f) => (f.near.stereo ?? 1) === 0 || (f.near.stereo ?? 0) > GOOD_STEREO, weigh: { monovision: -1, modified: -1 }, source: TRADE },
  {
    id: 'flies',
    holds: (f) => f.flies,
    weigh: { readers: 1 },
    bars: FAR_SIGHT_APART,
    source: { mark: 'T', text: 'aviation and some driving licences refuse it: local codes' },
  },
  {
    id: 'drivesForLiving',
    holds: (f) => f.drivesForLiving,
    weigh: {},
    bars: MONOVISION,
    source: { mark: 'T', text: 'commercial drivers need 20/40 with each eye, from memory: local codes' },
  },
  {
    id: 'squint',
    holds: (f) => f.near.coverTest === 'tropia' || f.near.oldSquint === 'squint' || f.near.oldSquint === 'prism',
    weigh: { readers: 1 },
    bars: MONOVISION,
    source: TRADE,
  },
  { id: 'onlyGoodEye', holds: (f) => f.onlyGoodEye, weigh: { readers: 5 }, bars: FAR_SIGHT_APART, source: TRADE },
  {
    id: 'weakEye',
    holds: (f) => f.weakEye !== null,
    weigh: { multifocal: -2, toricMultifocal: -2, toricOneEye: -2, readers: 3 },
    bars: FAR_SIGHT_APART,
    source: TRADE,
  },
  { id: 'surgery', holds: (f) => f.surgery, weigh: { multifocal: -2, toricMultifocal: -2, toricOneEye: -2, readers: 1 }, source: TRADE },
  { id: 'dry', holds: (f) => f.dry, weigh: { multifocal: -1, toricMultifocal: -1 }, source: TRADE },
];

/** What has to be known before both eyes are set apart: a squint may come back as double vision. Common practice. */
export const BEFORE_MONOVISION = ['coverTest', 'oldSquint', 'stereo'] as const;

export interface WayReason {
  readonly rule: string;
  readonly points: number;
}
export interface WayChoice {
  readonly way: NearWay;
  readonly score: number;
  readonly reasons: readonly WayReason[];
  /** What is still to be asked or measured before it. */
  readonly needs: readonly (typeof BEFORE_MONOVISION)[number][];
}
export interface WayAdvice {
  readonly recommended: WayChoice;
  readonly second: WayChoice | null;
  readonly others: readonly WayChoice[];
  /** Ways that are not offered, and the rules that bar them. */
  readonly barred: readonly { readonly way: NearWay; readonly rules: readonly string[] }[];
}

/**
 * How near is to be served: one way recommended with its reasons, a second choice, the others, and what bars the rest.
 * @source the rules: common practice, each with its mark; points: our own
 */
export function nearWays(facts: WayFacts, rules: readonly WayRule[] = WAY_RULES): WayAdvice {
  const holding = rules.filter((r) => r.holds(facts));
  const barred = NEAR_WAYS.flatMap((way) => {
    const by = holding.filter((r) => r.bars?.includes(way)).map((r) => r.id);
    return by.length > 0 ? [{ way, rules: by }] : [];
  });
  const choices = NEAR_WAYS.filter((way) => !barred.some((b) => b.way === way))
    .map((way): WayChoice => {
      const reasons = holding
        .flatMap((r) => (r.weigh[way] ? [{ rule: r.id, points: r.weigh[way] }] : []))
        .sort((a, b) => Math.abs(b.points) - Math.abs(a.points));
      const needs = MONOVISION.includes(way) ? BEFORE_MONOVISION.filter((sign) => facts.near[sign] === null) : [];
      return { way, score: reasons.reduce((sum, r) => sum + r.points, 0), reasons, needs };
    })
    .sort((a, b) => b.score - a.score);
  const [recommended, second = null, ...others] = choices;
  // Reading glasses over distance lenses are never barred.
  if (!recommended) throw new Error('no way left');
  return { recommended, second, others, barred };
}

/** One fact that would have to be another for another way to be recommended. */
export interface WayWouldChange {
  readonly what: 'tasksBetween' | 'smallerAdd' | 'largerAdd' | 'noNightRoad' | 'likedMonovision' | 'noCylinder' | 'smallerPupil';
  readonly to: NearWay;
}
const CHANGES: Readonly<Record<WayWouldChange['what'], (f: WayFacts) => WayFacts | null>> = {
  tasksBetween: (f) =>
    between(f)
      ? { ...f, near: { ...f.near, tasks: f.near.tasks.filter(({ cm }) => !(cm > 45 && cm < 150)) } }
      : { ...f, near: { ...f.near, tasks: [...f.near.tasks, { task: 'screen', cm: 63 }] } },
  smallerAdd: (f) => (f.add !== null && f.add > 1.5 ? { ...f, add: 1.25 } : null),
  largerAdd: (f) => (f.add !== null && f.add <= 1.75 ? { ...f, add: 2.25 } : null),
  noNightRoad: (f) => (has(f, 'road') ? { ...f, near: { ...f.near, tasks: f.near.tasks.filter((t) => t.task !== 'road') } } : null),
  likedMonovision: (f) => (f.near.monovisionBefore === 'liked' ? null : { ...f, near: { ...f.near, monovisionBefore: 'liked' } }),
  noCylinder: (f) => (toricEyes(f) > 0 ? { ...f, cylinder: { right: 0, left: 0 } } : null),
  smallerPupil: (f) => ((f.pupilDimMm ?? 0) > 6 ? { ...f, pupilDimMm: 5 } : null),
};
/** What would change the recommendation: one fact at a time turned, and the rules run again. */
export function wayWouldChange(facts: WayFacts): readonly WayWouldChange[] {
  const now = nearWays(facts).recommended.way;
  return (Object.keys(CHANGES) as WayWouldChange['what'][]).flatMap((what) => {
    const turned = CHANGES[what](facts);
    const to = turned && nearWays(turned).recommended.way;
    return to && to !== now ? [{ what, to }] : [];
  });
}
