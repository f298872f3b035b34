import type { HealthState } from '../advice/healthState';
import { DKT_LIMITS } from '../advice/oxygen';
import { nightBar } from '../advice/recommend';
import { cylinderOfEye, cylinderSeen } from '../irregular/cylinderOfEye';
import type { Dioptres, Eye } from '../units';
import { type EyeState, powerOf } from './eyeState';
import { NO_ORDER_RULES } from './eyeVerdict';
import { bestThroughLens, isUnrestored, sightDoubts, sightGate } from './overDoubts';

/** What one line of the last look is about. */
export const LOOK_AREAS = ['need', 'order', 'fit', 'sight', 'cornea', 'oxygen', 'turn', 'add', 'danger'] as const;
export type LookArea = (typeof LOOK_AREAS)[number];

/**
 * One line before signing. `ok`: as it should be; `watch`: said, and nothing more; `asks`: signed only with a prescriber's
 * sentence; `stop`: no sentence passes it.
 */
export interface LookLine {
  readonly area: LookArea;
  /** Names the words; one that asks is also what is overridden. */
  readonly code: string;
  readonly state: 'ok' | 'watch' | 'asks' | 'stop';
  /** Blur that overriding it risks, where it can be reckoned, D. */
  readonly cost: Dioptres | null;
}

/** What a prescriber overrode: kept with the prescription. */
export interface Override {
  readonly eye: Eye | null;
  readonly area: LookArea;
  readonly code: string;
  readonly cost: Dioptres | null;
  readonly reason: string;
}

const line = (area: LookArea, code: string, state: LookLine['state'], cost: Dioptres | null = null): LookLine => ({ area, code, state, cost });

/** Do refraction and over-refraction agree, and if not, what decided between them? */
function needLine(state: EyeState): LookLine {
  const { noOrder, freed, routes } = state.verdict;
  // Which of the two decides cannot be left open: without a pick there is nothing to sign.
  if (noOrder === 'routesDisagree') return line('need', NO_ORDER_RULES.routesDisagree, 'stop', routes?.gap ?? null);
  if (freed !== null) return line('need', `freed_${freed}`, 'ok');
  return routes !== null && !routes.agree ? line('need', 'picked', 'asks', routes.gap) : line('need', routes === null ? 'needOne' : 'needAgree', 'ok');
}

/** Is an order offered, and if not, what would overriding the refusal cost? */
function orderLine(state: EyeState): LookLine {
  const { verdict, turn } = state;
  if (verdict.noOrder === null || verdict.noOrder === 'routesDisagree')
    return state.onEye === null ? line('order', 'untried', 'watch') : line('order', 'fine', 'ok');
  if (verdict.noOrder === 'nothing') return line('order', NO_ORDER_RULES.nothing, 'stop');
  const scatter = (turn?.lensSd ?? 0) * (Math.PI / 180);
  const cylinder = Math.abs(verdict.need?.cylinder ?? 0);
  return line('order', NO_ORDER_RULES[verdict.noOrder], 'asks', cylinder * Math.sqrt((1 - Math.exp(-2 * scatter ** 2)) / 2));
}

/** The lens as it was judged: the recorded word, and what the signs say. Tight by either is never signed silently. */
function fitLine(state: EyeState): LookLine {
  if (state.onEye === null) return line('fit', 'fitUntried', 'watch');
  const said = state.fit?.current.verdict ?? null;
  const { verdict, unsettled } = state.fitVerdict;
  const against = [said, verdict].find((v) => v === 'tight') ?? [said, verdict].find((v) => v === 'loose');
  if (against === 'tight') return line('fit', 'fitTight', 'asks');
  if (against === 'loose') return line('fit', 'fitLoose', 'asks');
  if (verdict === 'mixed') return line('fit', 'fitMixed', 'asks');
  if (said === null && verdict === null) return line('fit', unsettled === null ? 'fitUnread' : 'fitUnsettled', 'asks');
  return line('fit', 'fitFits', 'ok');
}

function sightLine(state: EyeState): LookLine {
  const gate = sightGate(state.acuities, state.findings);
  if (gate !== null) return line('sight', gate, 'asks');
  const over = state.overRefraction?.current;
  // More minus is ordered only where a line was gained by it.
  const unearned = sightDoubts(state.acuities, over ? powerOf(over) : null).find((d) => d.code === 'minusNoLine' || d.code === 'minusUnread');
  if (unearned && state.verdict.basis === 'overRefraction') return line('sight', unearned.code, 'asks');
  if (state.onEye !== null && bestThroughLens(state.acuities) === null) {
    // A near eye that reads badly at far may be sick as well: only near, or its far power given back, can tell.
    const doubtful = state.acuities.nearEye === true && isUnrestored({ ...state.acuities, nearEye: false });
    return line('sight', state.acuities.nearEye ? 'sightNearUnread' : 'sightUnread', doubtful ? 'asks' : 'watch');
  }
  return line('sight', 'sightFine', 'ok');
}

/** An eye counts as looked at when its cornea was graded with stain in this very visit. */
const corneaLine = (health: HealthState, eye: Eye): LookLine =>
  health.today[eye].staining === undefined ? line('cornea', 'corneaUngraded', 'asks') : line('cornea', 'corneaGraded', 'ok');

function turnLine(state: EyeState): LookLine {
  const cylinder = state.verdict.need?.cylinder ?? 0;
  if (state.onEye === null || cylinder === 0 || !state.toric) return line('turn', 'turnNone', 'ok');
  if (state.turn === null) return line('turn', 'turnUnread', 'asks');
  return line('turn', state.verdict.rotation?.why === 'early' ? 'turnEarly' : 'turnRead', state.verdict.rotation?.why === 'early' ? 'watch' : 'ok');
}

/** The lens that is to be prescribed, as far as the last look asks of it. */
export interface ToSign {
  readonly wearsAdd: boolean;
  /** Oxygen of the lens at its power, Dk/t in 10⁻⁹ units; null where it is unknown, undefined where no lens is named. */
  readonly dkt?: number | null;
  readonly overnight: boolean;
  readonly overnightApproved: boolean;
  /** Where the lens is one for irregular corneas: its cylinder (D), and for how many days one without went home before; left out for any other. */
  readonly irregular?: { readonly cylinder: Dioptres; readonly daysInSphere: number };
}

/** What a cornea shows that asks for oxygen: vessels from 1 mm, limbal redness from 2, any oedema. Source: common practice. */
function asksOxygen(health: HealthState, eye: Eye): boolean {
  const seen = health.findings[eye];
  const atLeast = (key: 'vessels' | 'limbalRedness' | 'oedema', least: number): boolean => typeof seen[key] === 'number' && seen[key] >= least;
  return atLeast('vessels', 1) || atLeast('limbalRedness', 2) || atLeast('oedema', 0.5);
}

/** By day low or unknown oxygen asks where the cornea shows the want of it; by night nobody overrides it. */
function oxygenLine(health: HealthState, eye: Eye, lens: ToSign): LookLine {
  const limits = DKT_LIMITS[health.facts.settings.oxygenSchool];
  const dkt = lens.dkt ?? 0;
  if (lens.overnight) {
    if (!lens.overnightApproved) return line('oxygen', 'nightNotApproved', 'stop');
    if (dkt < limits.overnight) return line('oxygen', 'nightOxygen', 'stop');
    if (nightBar(health.facts, [eye]) !== null) return line('oxygen', 'nightsNotClear', 'stop');
    return line('oxygen', 'oxygenNight', 'ok');
  }
  if (lens.dkt === undefined || dkt >= limits.day) return line('oxygen', 'oxygenDay', 'ok');
  return line('oxygen', lens.dkt === null ? 'oxygenUnknown' : 'oxygenLow', asksOxygen(health, eye) ? 'asks' : 'watch');
}

/** Over an irregular cornea a cylinder has its rules, and an addition waits until the lens without one is worn. Common practice. */
function irregularLines(state: EyeState, health: HealthState, { irregular, wearsAdd }: ToSign): readonly LookLine[] {
  if (irregular === undefined) return [];
  const rule = cylinderOfEye(cylinderSeen(state), irregular.daysInSphere, health.facts.settings.irregularCylinder);
  const out: LookLine[] = [];
  if (irregular.cylinder !== 0) out.push(rule.may ? line('turn', 'cylinderMay', 'ok') : line('turn', AGAINST[rule.why], 'asks'));
  if (wearsAdd && irregular.daysInSphere === 0) out.push(line('add', 'addBeforeFit', 'asks'));
  return out;
}
const AGAINST = { functional: 'cylinderFunctional', wearFirst: 'cylinderWearFirst', sphereFirst: 'cylinderSphereFirst' } as const;

/** An addition is looked at where one is worn; a near eye without one would be served for far. */
function addLine(state: EyeState, wearsAdd: boolean): LookLine {
  if (state.aim.sees === 'near' && state.aim.plus === 0) return line('add', 'nearAddMissing', 'asks');
  if (!wearsAdd) return line('add', 'addNone', 'ok');
  return (state.refraction?.current.addD ?? null) === null ? line('add', 'addUnread', 'watch') : line('add', 'addRead', 'ok');
}

/**
 * The last look at one eye before signing: its lens, fit, sight, cornea, turn and add, in that order.
 * @param lens what is to be prescribed
 * @example lastLook(state, health, 'right', {wearsAdd: false, overnight: false, overnightApproved: false}).find((l) => l.area === 'cornea')?.code → 'corneaUngraded'
 * @source common practice
 */
export const lastLook = (state: EyeState, health: HealthState, eye: Eye, lens: ToSign): readonly LookLine[] => [
  needLine(state),
  orderLine(state),
  fitLine(state),
  sightLine(state),
  corneaLine(health, eye),
  oxygenLine(health, eye, lens),
  turnLine(state),
  addLine(state, lens.wearsAdd),
  ...irregularLines(state, health, lens),
];

/** What is asked of the wearer rather than of an eye: the danger signs, at this very visit. */
export const lastLookAtWearer = (health: HealthState): readonly LookLine[] => [
  health.said.danger === undefined ? line('danger', 'dangerUnasked', 'asks') : line('danger', 'dangerAsked', 'ok'),
];
