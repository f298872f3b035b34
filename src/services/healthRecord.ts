import 'server-only';
import {
  ageOn,
  chains,
  healthState,
  latest,
  myopicShift,
  powerOf,
  powerSummary,
  type Eye,
  type FactChain,
  type HealthState,
  type RecordedFinding,
  type Refraction,
  type RefractionFact,
} from '../core';
import { listFacts } from '../db/facts';
import {
  listDecisions,
  listHistory,
  listPasses,
  listReferrals,
  listStops,
  type DecisionRow,
  type HistoryAnswerRow,
  type PassRow,
  type ReferralRow,
  type StopRow,
} from '../db/health';
import { listPrescriberIds } from '../db/people';
import { listPictures, type PictureRow } from '../db/pictures';
import { listVisits, type VisitRow } from '../db/visits';
import { findWearer } from '../db/wearers';
import { must } from '../lib/assert';
import type { Context } from './define';

/** History and eye health of a wearer up to a visit, as they were recorded. */
export interface HealthFile {
  readonly answers: readonly HistoryAnswerRow[];
  readonly findings: readonly FactChain<RecordedFinding>[];
  readonly stops: readonly StopRow[];
  readonly passes: readonly PassRow[];
  readonly decisions: readonly DecisionRow[];
  readonly referrals: readonly ReferralRow[];
  readonly pictures: readonly PictureRow[];
  readonly earlierVisitIds: readonly string[];
  /** People whose grades count as a prescriber's. */
  readonly prescribers: readonly string[];
  /** How far the refraction has moved towards minus since the one before, D; null while there is none to compare. */
  readonly myopicShift: number | null;
}

/** Reads the file; what was recorded at later visits does not count for one that is closed. */
export async function readHealthFile(context: Context, visit: VisitRow): Promise<HealthFile> {
  const { tx, caller } = context;
  const visits = await listVisits(tx, caller.practiceId, visit.wearerId);
  // While this visit is open, one opened beside it counts too: nothing found there is passed by working here.
  const earlierVisitIds = visits.filter((v) => v.id !== visit.id && (visit.closedAt === null || v.openedAt <= visit.openedAt)).map((v) => v.id);
  const ids = [...earlierVisitIds, visit.id];
  return {
    answers: await listHistory(tx, caller.practiceId, ids),
    findings: chains(await listFacts<RecordedFinding>(tx, 'eye_finding', caller.practiceId, ids)),
    stops: await listStops(tx, caller.practiceId, visit.wearerId),
    passes: await listPasses(tx, caller.practiceId, visit.wearerId),
    decisions: await listDecisions(tx, caller.practiceId, ids),
    referrals: await listReferrals(tx, caller.practiceId, visit.wearerId),
    pictures: await listPictures(tx, caller.practiceId, ids),
    earlierVisitIds,
    prescribers: await listPrescriberIds(tx, caller.practiceId),
    myopicShift: await shiftOf(context, visit.id, earlierVisitIds),
  };
}

/** How far the newest refraction of this visit has moved towards minus from the newest before it. */
async function shiftOf(context: Context, visitId: string, earlierVisitIds: readonly string[]): Promise<number | null> {
  const all = chains(await listFacts<RefractionFact>(context.tx, 'refraction', context.caller.practiceId, [...earlierVisitIds, visitId]));
  const newest = (eye: Eye, now: boolean): Refraction | null => {
    const found = latest(all, (r) => r.eye === eye && (r.visitId === visitId) === now);
    return found && powerOf(found.current);
  };
  const both = (now: boolean) => ({ right: newest('right', now), left: newest('left', now) });
  return myopicShift(both(true), both(false));
}

/** The file with what follows from it. @param needs powers at the cornea, where they are known */
export async function readHealth(
  context: Context,
  visit: VisitRow,
  needs: Readonly<Record<Eye, Refraction | null>> = { right: null, left: null },
): Promise<{ readonly file: HealthFile; readonly state: HealthState }> {
  const wearer = must(await findWearer(context.tx, context.caller.practiceId, visit.wearerId), 'wearer of the visit');
  const file = await readHealthFile(context, visit);
  const state = healthState({
    visitId: visit.id,
    earlierVisitIds: file.earlierVisitIds,
    answers: file.answers,
    findings: file.findings,
    stops: file.stops,
    passes: file.passes,
    age: ageOn(wearer.birthDate, context.today),
    guardianNamed: wearer.guardian !== null,
    power: powerSummary(needs, file.myopicShift),
    prescribers: file.prescribers,
    settings: context.settings,
  });
  return { file, state };
}
