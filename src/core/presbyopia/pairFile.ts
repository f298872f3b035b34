import { MIDDLE_PUPIL_MM } from '../lens/expectedBlur';
import { isMade, type LensAdd } from '../lens/family';
import { hasAdd } from '../lens/family';
import { TORIC_FROM } from '../lens/toricFrom';
import { sphericalEquivalent } from '../optics/refraction';
import { subtractVectors, toPowerVector } from '../optics/powerVector';
import type { EyeState, LensOfEye } from '../fit/eyeState';
import type { LensRow } from '../record/lens';
import type { HeldQuarterFact, TaskSightFact, VisitFacts } from '../record/visitFacts';
import { EYES, type Dioptres, type Eye, type Millimetres } from '../units';
import { accommodates, type NearAdd } from './addKnown';
import type { HeldAnswer, PairReading } from './belief';
import { addsOf, designOf, type WithAdds } from './familyAdd';
import { demandOf, NEAR_TASKS, type NearTask } from './nearTask';
import { USUAL_RULE, type ChangeRule, type NextInput } from './nextChange';
import type { PairEye, TaskDemand } from './outlook';
import type { LensPair } from './pair';

/** Acuity that each task needs, logMAR. Common practice: about 20/30; the road 20/25, fine work a line better. */
const NEEDS: Readonly<Record<NearTask, number>> = { road: 0.1, dashboard: 0.2, screen: 0.2, score: 0.2, workbench: 0.15, book: 0.2, phone: 0.25 };
/** A wide pupil in the dark while none was measured, mm. Our own. */
const DIM_PUPIL_MM: Millimetres = 5.5;

/** What a task asks. */
export const taskDemand = (task: NearTask, cm: number): TaskDemand => ({ vergence: demandOf(cm), light: NEAR_TASKS[task].light, needs: NEEDS[task] });

/** Lenses as the visit knows them, by their id. */
export interface PairLenses {
  readonly lensOf: (lensId: string) => LensOfEye | undefined;
  readonly rows: Readonly<Record<string, LensRow>>;
}
const lensAt = ({ lensOf, rows }: PairLenses, id: string | null | undefined): (LensOfEye & { readonly row: LensRow }) | undefined => {
  const lens = id ? lensOf(id) : undefined;
  const row = id ? rows[id] : undefined;
  return lens && row && { ...lens, row };
};

/** Why no next change is proposed. */
export type NoPair = 'oneEye' | 'noAdd' | 'twoFamilies' | 'notListed' | 'noNeed' | 'notJudged';

export interface PairFile {
  readonly facts: Pick<VisitFacts, 'onEye' | 'taskSights' | 'heldQuarters'>;
  readonly eyes: Readonly<Record<Eye, EyeState>>;
  readonly lenses: PairLenses;
  readonly pupilRoomMm: Millimetres | null;
  readonly pupilDimMm: Millimetres | null;
  readonly add: NearAdd | null;
  readonly dominant: Eye | null;
  /** The practice's library holds torics with an add. */
  readonly toricMade: boolean;
}
type WholeFamily = WithAdds & { readonly changeRule?: ChangeRule | null };

const bestRead = ({ acuities }: EyeState): number => Math.min(0.1, ...[acuities.glasses, acuities.pinhole, acuities.over].filter((a) => a !== null));

/** How far the lens's centre lies from the pupil's, mm; 0 where nobody looked. @example centreOff({findings: {pupilNose: 0.3, pupilUp: -0.4}}) → 0.5 */
export function centreOff({ findings }: Pick<EyeState, 'findings'>): Millimetres {
  const mm = (value: number | string | undefined): number => (typeof value === 'number' ? value : 0);
  return Math.hypot(mm(findings.pupilNose), mm(findings.pupilUp));
}

/** One eye as a forecast takes it, with the lens that it has on; null while nobody knows what it asks for. */
function pairEye(state: EyeState, lens: LensOfEye): PairEye | null {
  const need = state.verdict.need ?? state.verdict.fromRefraction;
  if (!need) return null;
  const left = subtractVectors(toPowerVector(need), toPowerVector(lens.power));
  const residual = Math.hypot(left.j0, left.j45);
  const toric = lens.power.cylinder !== 0;
  return {
    // A lens is told by its sphere as labelled: half its cylinder is taken off what the eye asks for.
    need: sphericalEquivalent(need) - lens.power.cylinder / 2,
    halfCylinder: toric ? Math.abs(need.cylinder) / 2 : residual,
    halfCylinderToric: toric ? residual : 0,
    best: bestRead(state),
    decentredMm: centreOff(state),
  };
}

/** Does an eye with a lens that has no cylinder ask for one? */
const asksToric = ({ verdict }: EyeState, lens: LensRow): boolean =>
  lens.cylinderD === 0 && Math.abs((verdict.need ?? verdict.fromRefraction)?.cylinder ?? 0) >= TORIC_FROM - 1e-9;

/**
 * What the next change is asked of: every pair of the visit that was judged, with what was read and said; or why none is proposed.
 * Lenses are compared within one family.
 */
export function pairFile(file: PairFile): { readonly input: NextInput } | { readonly no: NoPair } {
  const { eyes } = file;
  const on = { right: eyes.right.onEye, left: eyes.left.onEye };
  const lenses = { right: lensAt(file.lenses, on.right?.current.lensId), left: lensAt(file.lenses, on.left?.current.lensId) };
  if (!on.right || !on.left || !lenses.right || !lenses.left) return { no: 'oneEye' };
  if (!hasAdd(lenses.right.row) || !hasAdd(lenses.left.row)) return { no: 'noAdd' };
  if (lenses.right.row.familyCode !== lenses.left.row.familyCode) return { no: 'twoFamilies' };
  const family: (WholeFamily & NonNullable<LensOfEye['tried']>['family']) | undefined = lenses.right.tried?.family;
  if (!family) return { no: 'notListed' };
  const right = pairEye(eyes.right, lenses.right);
  const left = pairEye(eyes.left, lenses.left);
  if (!right || !left) return { no: 'noNeed' };
  const worn = pairsWorn(file);
  if (worn.length === 0 || worn.at(-1)?.tasks.length === 0) return { no: 'notJudged' };
  const rowOf = { right: lenses.right.row, left: lenses.left.row };
  const adds = addsOf(family);
  return {
    input: {
      wearer: {
        eyes: { right, left },
        pupilRoomMm: file.pupilRoomMm ?? MIDDLE_PUPIL_MM,
        pupilDimMm: file.pupilDimMm ?? DIM_PUPIL_MM,
        comfortable: accommodates(file.add),
        nearOf: (add) => {
          const made = adds.find((a) => a.add === add);
          return { design: (made && designOf(family, made)) ?? 'centreNear', power: made?.power ?? 0 };
        },
      },
      choices: {
        adds: adds.map((a) => a.add),
        makes: (eye: Eye, sphere: Dioptres, add: LensAdd | null) => {
          const { cylinderD, axisDeg, baseCurveMm, diameterMm } = rowOf[eye];
          return (
            baseCurveMm !== null &&
            diameterMm !== null &&
            isMade({ sphere, cylinder: cylinderD, axis: axisDeg, add, baseCurve: baseCurveMm, diameter: diameterMm }, family)
          );
        },
        toric: file.toricMade ? EYES.filter((eye) => asksToric(eyes[eye], rowOf[eye])) : [],
      },
      rule: family.changeRule ?? USUAL_RULE,
      dominant: file.dominant,
      worn,
    },
  };
}

/** The pairs of a visit that were judged, oldest first, and the one that is on the eyes last. */
function pairsWorn({ facts, eyes, lenses }: PairFile): readonly PairReading[] {
  const lensOn = (id: string): LensRow | undefined => lenses.rows[facts.onEye.find((c) => c.rootId === id)?.current?.lensId ?? ''];
  const sights = facts.taskSights.flatMap((c) => (c.current && c.current.covered === null ? [c.current] : []));
  const held = facts.heldQuarters.flatMap((c) => c.current ?? []);
  const nowKey = `${eyes.right.onEye?.rootId} ${eyes.left.onEye?.rootId}`;
  const keyOf = (row: TaskSightFact | HeldQuarterFact): string => `${row.rightLensOnEyeId} ${row.leftLensOnEyeId}`;
  const keys = [...new Set(sights.map(keyOf))].filter((k) => k !== nowKey);
  return [...keys, nowKey].flatMap((key): PairReading[] => {
    const [rightId = '', leftId = ''] = key.split(' ');
    const [right, left] = [lensOn(rightId), lensOn(leftId)];
    if (!right || !left) return [];
    const lens = (row: LensRow) => ({ sphere: row.sphereD, add: row.addBand, toric: row.cylinderD !== 0 });
    const pair: LensPair = { right: lens(right), left: lens(left) };
    // The newest of each task.
    const ofPair = new Map(sights.filter((s) => keyOf(s) === key).map((s) => [s.task, s]));
    const answers = new Map(held.filter((h) => keyOf(h) === key).map((h) => [`${h.eye} ${h.byD} ${h.task}`, h]));
    return [
      {
        pair,
        tasks: [...ofPair.values()].map((s) => ({ demand: taskDemand(s.task, s.distanceCm), acuity: s.acuityLogMar, satisfaction: s.satisfaction })),
        held: [...answers.values()].map((h): HeldAnswer => ({ eye: h.eye, by: h.byD, demand: taskDemand(h.task, h.distanceCm), answer: h.answer })),
      },
    ];
  });
}
