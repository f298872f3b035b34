import 'server-only';
import {
  ageOn,
  chains,
  EYES,
  FACT_KIND_NAMES,
  healthOf,
  myopicShift,
  powerOf,
  type KnownTurn,
  type Eye,
  type FactChain,
  type FactKind,
  type Findings,
  type HealthFile,
  type HealthState,
  type GuidedCylinder,
  type LensChoice,
  type RecordedFinding,
  type Refraction,
  type RefractionFact,
  type SliceName,
  type TrendPoint,
  type VisitDecision,
  type VisitFacts,
  type VisitRow,
  type VisitSlices,
  type WearerRow,
} from '../../core';
import { bestAcuities, listBestAcuities } from '../../db/acuity';
import { listBroughtAlong } from '../../db/broughtAlong';
import { bundle } from '../../db/bundle';
import { aftercareBefore, listAftercareBefore } from '../../db/aftercare';
import { listDecisions, wearBefore } from '../../db/decision';
import { listDrafts } from '../../db/draft';
import { factRows, factsByKind, ofVisit, type FactsByKind } from '../../db/fact';
import { listFindingsBefore, listGradedBefore, type GradedBefore } from '../../db/finding';
import { listGuided } from '../../db/guidedCylinder';
import { listHistory } from '../../db/history';
import { listInstruments } from '../../db/instrument';
import { listLosses } from '../../db/lensLoss';
import { listLessons } from '../../db/lesson';
import { listExercises } from '../../db/lessonScreen';
import { listChoices } from '../../db/lensChoice';
import { listOnEyeExtras } from '../../db/lensOnEye';
import { asOrders, orderParts } from '../../db/order';
import { listPictures } from '../../db/picture';
import { asPrescriptions, prescriptionParts } from '../../db/prescription';
import { listNewestAdds, listNewestRefractions } from '../../db/refraction';
import { listReferrals } from '../../db/referral';
import { listSellerVerified } from '../../db/request';
import { listPrescriberIds } from '../../db/staff';
import { newestVisitDecision } from '../../db/visitDecision';
import { listOverrides, listStops } from '../../db/stop';
import { earlierVisits, visitsBefore } from '../../db/visit';
import { listGivenFamilies, listNewestTrials, listKnownTurns, listSameLensesBefore, listSupplyBefore, supplyBefore } from '../../db/visitPast';
import { wearerRow } from '../../db/wearer';
import { must } from '../../lib/assert';
import type { Context } from '../define';

/** How much of what is older is read: never every row of every visit; hand-overs of each eye. */
const MOST = { prescriptions: 6, orders: 6, handOvers: 6, pictures: 12, trendPoints: 12 } as const;

/** What one statement reads. */
type Part = 'facts' | 'history' | 'supply';

/** What rests on which statement. */
const PARTS_OF: Readonly<Record<SliceName, readonly Part[]>> = {
  health: ['facts', 'history'],
  trend: [],
  measures: ['facts'],
  supply: ['facts', 'supply'],
  lenses: [],
  drawer: [],
};

/** One visit, read part by part within a transaction: each at most once, until what it rests on is changed. */
export class VisitReading {
  private readonly parts = new Map<Part, Promise<unknown>>();
  private readonly draftsDone: { readonly step: string; readonly authorId: string }[] = [];

  constructor(
    private readonly context: Context,
    readonly visit: VisitRow,
  ) {}

  /** To be said by whoever changes something: it is read again when it is next asked for. */
  forget(...slices: readonly SliceName[]): void {
    for (const slice of slices) for (const part of PARTS_OF[slice]) this.parts.delete(part);
  }

  /** What others may have recorded of the wearer meanwhile is read again; what is in this visit is locked. */
  forgetOthers(): void {
    this.parts.delete('history');
  }

  /** A draft is let go with what is recorded. */
  forgetDraft(step: string, authorId: string): void {
    this.draftsDone.push({ step, authorId });
  }

  private once<T>(part: Part, read: () => Promise<T>): Promise<T> {
    const known = this.parts.get(part) as Promise<T> | undefined;
    if (known) return known;
    const reading = read();
    this.parts.set(part, reading);
    return reading;
  }

  async wearer(): Promise<WearerRow & { readonly age: number }> {
    const wearer = must((await this.history()).wearers[0], 'wearer of the visit');
    return { ...wearer, age: ageOn(wearer.birthDate, this.context.today) };
  }

  /** What the visit was decided to be and to cost. */
  async decided(): Promise<VisitDecision | null> {
    return (await this.history()).visitDecisions[0] ?? null;
  }

  /** Every correctable fact of the visit, and what hangs on its lenses. */
  private ofVisit(): Promise<{
    readonly facts: FactsByKind<FactKind>;
    readonly extras: VisitFacts['onEyeExtras'];
    readonly choices: readonly LensChoice[];
    readonly guided: readonly GuidedCylinder[];
    readonly same: FactsByKind<'lensOnEye' | 'rotation'>;
    readonly knownTurns: readonly KnownTurn[];
  }> {
    const { tx } = this.context;
    const { id, practiceId } = this.visit;
    return this.once('facts', async () => {
      await this.context.flush();
      const rows = await bundle(tx, {
        facts: factRows(tx, FACT_KIND_NAMES, practiceId, ofVisit(id)),
        extras: listOnEyeExtras(tx, practiceId, [id]),
        choices: listChoices(tx, practiceId, id),
        guided: listGuided(tx, practiceId, id),
        // Asked of the lenses that are on an eye now.
        same: listSameLensesBefore(tx, this.visit),
        knownTurns: listKnownTurns(tx, this.visit),
      });
      return { ...rows, facts: factsByKind(FACT_KIND_NAMES, rows.facts), same: factsByKind(['lensOnEye', 'rotation'], rows.same) };
    });
  }

  /** The measured facts of the visit. */
  async facts(): Promise<VisitFacts> {
    const { facts, extras, choices, guided } = await this.ofVisit();
    return {
      refractions: chains(facts.refraction),
      onEye: chains(facts.lensOnEye),
      onEyeExtras: extras,
      fits: chains(facts.fit),
      rotations: chains(facts.rotation),
      overRefractions: chains(facts.overRefraction),
      lensFindings: chains(facts.lensFinding),
      acuitiesBoth: chains(facts.acuityBoth),
      eyeAcuities: chains(facts.eyeAcuity),
      taskSights: chains(facts.taskSight),
      heldQuarters: chains(facts.heldQuarter),
      pairChanges: chains(facts.pairChange),
      choices,
      guided,
    };
  }

  private history() {
    const { tx } = this.context;
    const { visit } = this;
    return this.once('history', async () => {
      await this.context.flush();
      return bundle(tx, {
        wearers: wearerRow(tx, visit.practiceId, visit.wearerId),
        answers: listHistory(tx, visit),
        findings: listFindingsBefore(tx, visit),
        graded: listGradedBefore(tx, visit, MOST.trendPoints),
        stops: listStops(tx, visit.practiceId, visit.wearerId),
        overrides: listOverrides(tx, visit),
        decisions: listDecisions(tx, visit.practiceId, visit.id),
        wearBefore: wearBefore(tx, visit),
        aftercareBefore: listAftercareBefore(tx, visit),
        visitDecisions: newestVisitDecision(tx, visit.practiceId, visit.id),
        referrals: listReferrals(tx, visit.practiceId, visit.wearerId),
        pictures: listPictures(tx, visit, MOST.pictures),
        prescribers: listPrescriberIds(tx, visit.practiceId),
        powersBefore: listNewestRefractions(tx, visit.practiceId, earlierVisits(tx, visit)),
        powers: listNewestRefractions(tx, visit.practiceId, visitsBefore(tx, visit)),
        adds: listNewestAdds(tx, visit.practiceId, visitsBefore(tx, visit)),
        acuities: listBestAcuities(tx, visit),
        instruments: listInstruments(tx, visit.practiceId),
      });
    });
  }

  /** History and eye health as they count here. */
  async health(): Promise<HealthFile> {
    const { facts } = await this.ofVisit();
    const read = await this.history();
    const before = aftercareBefore(read.aftercareBefore);
    return {
      answers: read.answers,
      findings: [...read.findings.map((row): FactChain<RecordedFinding> => ({ rootId: row.rootId, rows: [row], current: row })), ...chains(facts.finding)],
      lesions: chains(facts.cornealLesion),
      adverseEvents: chains([...before.adverseEvent, ...facts.adverseEvent]),
      returns: chains([...before.returnToWear, ...facts.returnToWear]),
      aftercare: chains([...before.aftercareAnswer, ...facts.aftercareAnswer]),
      aftercareEnds: chains(facts.aftercareEnd),
      lowest: lowestOf(read.graded),
      flattestSteep: byEye((eye) => read.graded.find((g) => g.eye === eye && g.sign === 'kSteepMm')?.highestOfYear ?? null),
      stops: read.stops,
      overrides: read.overrides,
      decisions: read.decisions,
      wearBefore: read.wearBefore[0]?.wear ?? null,
      referrals: read.referrals,
      pictures: read.pictures,
      prescribers: read.prescribers.map((p) => p.personId),
      myopicShift: shiftOf(facts.refraction, read.powersBefore),
    };
  }

  /** What follows from them. @param needs powers at the cornea, where they are known */
  async state(needs?: Readonly<Record<Eye, Refraction | null>>): Promise<HealthState> {
    return healthOf(await this.health(), { visitId: this.visit.id, wearer: await this.wearer(), settings: this.context.settings }, needs);
  }

  async trend(): Promise<VisitSlices<never>['trend']['trend']> {
    const { graded } = await this.history();
    const of = (eye: Eye) => Object.fromEntries(graded.filter((g) => g.eye === eye).map((g) => [g.sign, pointsOf(g)]));
    return { right: of('right'), left: of('left') };
  }

  /** What of earlier visits stands beside what is measured here. */
  async past() {
    const rows = await this.history();
    const { same, knownTurns } = await this.ofVisit();
    return {
      earlierRefractions: EYES.flatMap((eye) => rows.powers.filter((p) => p.eye === eye)),
      addsBefore: rows.adds,
      bestBefore: bestAcuities(rows.acuities),
      earlierOnEye: chains(same.lensOnEye),
      earlierRotations: chains(same.rotation),
      knownTurns,
      instruments: rows.instruments,
    };
  }

  /** Prescriptions, lessons, hand-overs, orders and drafts; `trials` is what was tried at other visits, newest of each eye. */
  async supply() {
    const { tx } = this.context;
    const { id, practiceId, wearerId } = this.visit;
    const rows = await this.once('supply', () =>
      bundle(tx, {
        ...prescriptionParts(tx, practiceId, wearerId, { most: MOST.prescriptions, visitId: id }),
        ...orderParts(tx, practiceId, wearerId, { most: MOST.orders, visitId: id }),
        lessons: listLessons(tx, practiceId, wearerId),
        exercises: listExercises(tx, practiceId, { visitId: id }),
        before: listSupplyBefore(tx, this.visit, MOST.handOvers),
        given: listGivenFamilies(tx, this.visit),
        trials: listNewestTrials(tx, this.visit),
        drafts: listDrafts(tx, practiceId, id),
        broughtAlong: listBroughtAlong(tx, practiceId, wearerId),
        sellerVerified: listSellerVerified(tx, practiceId, wearerId),
        losses: listLosses(tx, practiceId, [wearerId]),
      }),
    );
    const { facts } = await this.ofVisit();
    const before = supplyBefore(rows.before);
    return {
      prescriptions: asPrescriptions(rows),
      orders: asOrders(rows),
      lessons: rows.lessons,
      exercises: rows.exercises,
      attempts: [...chains(before.lessonAttempt), ...chains(facts.lessonAttempt)],
      topics: [...chains(before.lessonTopic), ...chains(facts.lessonTopic)],
      lessonWays: [...chains(before.lessonWay), ...chains(facts.lessonWay)],
      lessonTurns: [...chains(before.lessonTurn), ...chains(facts.lessonTurn)],
      lessonSights: [...chains(before.lessonSight), ...chains(facts.lessonSight)],
      careSystems: [...chains(before.careSystem), ...chains(facts.careSystem)],
      lessonInstructions: [...chains(before.lessonInstruction), ...chains(facts.lessonInstruction)],
      nearFindings: [...chains(before.nearFinding), ...chains(facts.nearFinding)],
      handOvers: [...chains(before.handOver), ...chains(facts.handOver)],
      wornAnswers: [...chains(before.wornAnswer), ...chains(facts.wornAnswer)],
      givenFamilies: rows.given.map((g) => g.code),
      trials: rows.trials,
      broughtAlong: rows.broughtAlong,
      sellerVerified: rows.sellerVerified,
      losses: rows.losses,
      drafts: rows.drafts.filter((d) => !this.draftsDone.some((done) => done.step === d.step && done.authorId === d.authorId)),
    };
  }
}

/** The one reading of a visit in a transaction: what a command has read is not read again for its answer. */
export function readingOf(context: Context, visit: VisitRow): VisitReading {
  const known = context.readings.get(visit.id);
  if (known && known.visit.version === visit.version && known.visit.closedAt === visit.closedAt && known.visit.kind === visit.kind) return known;
  const reading = new VisitReading(context, visit);
  context.readings.set(visit.id, reading);
  return reading;
}

const byEye = <T>(of: (eye: Eye) => T): Record<Eye, T> => ({ right: of('right'), left: of('left') });

const lowestOf = (graded: readonly GradedBefore[]): Record<Eye, Findings> =>
  byEye((eye) => Object.fromEntries(graded.flatMap((g) => (g.eye === eye ? [[g.sign, g.lowest]] : []))) as Findings);

/** Points of a trend, oldest first. */
const pointsOf = (graded: GradedBefore): readonly TrendPoint[] =>
  graded.values.map((value, i) => ({ value, at: new Date(must(graded.seenAt[i], 'moment of a grade')).toISOString() })).reverse();

/** How far the newest refraction of the visit has moved towards minus from the newest before it. */
function shiftOf(here: readonly RefractionFact[], before: readonly RefractionFact[]): number | null {
  const newest = (rows: readonly RefractionFact[]) =>
    byEye((eye) => {
      const row = rows.findLast((r) => r.eye === eye);
      return row ? powerOf(row) : null;
    });
  return myopicShift(newest(chains(here).flatMap((c) => (c.current ? [c.current] : []))), newest(before));
}
