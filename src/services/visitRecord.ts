import 'server-only';
import {
  ageOn,
  chains,
  type Eye,
  type AcuityBothFact,
  type AnyFact,
  type EyeAcuityFact,
  type Fact,
  type FactChain,
  type FitFact,
  type LensFindingFact,
  type OnEyeFact,
  type OverRefractionFact,
  type PracticeSettings,
  type RefractionFact,
  type Role,
  type RotationFact,
  type VisitFacts,
} from '../core';
import { findBestAcuities } from '../db/acuities';
import { listFacts, listOnEyeExtras, type FactTable } from '../db/facts';
import { listFamilies, listLenses, listTrialStock, type FamilyWithBlocks, type LensRow, type TrialStockRow } from '../db/lenses';
import { listCareProducts, listHouseList, type CareProductRow, type HouseListRow } from '../db/library';
import { listInstruments, type InstrumentRow } from '../db/instruments';
import { listChoices } from '../db/onEye';
import { listLessons, type LessonRow } from '../db/lessons';
import { listOrders, type OrderWithLines } from '../db/orders';
import { findStaff } from '../db/people';
import { listPrescriptions, type PrescriptionWithEyes } from '../db/prescriptions';
import { listDrafts, listVisits, type DraftRow, type VisitRow } from '../db/visits';
import { findWearer, type WearerRow } from '../db/wearers';
import { must } from '../lib/assert';
import type { Context } from './define';
import { readHealthFile, type HealthFile } from './healthRecord';

export interface AttemptFact extends Fact {
  readonly lessonId: string;
  readonly move: 'on' | 'off';
  readonly worked: boolean;
  readonly unaided: boolean;
  readonly miss: string | null;
}
export interface TopicFact extends AnyFact {
  readonly lessonId: string;
  readonly topic: string;
}
export interface HandOverFact extends Fact {
  readonly lensId: string;
  readonly source: 'trial' | 'order';
  readonly lensOnEyeId: string | null;
  readonly lot: string;
  readonly expiresOn: string;
  readonly openedOn: string | null;
  readonly lensCount: number;
  readonly handedOn: string;
}

/** Who looks at the record. */
export interface Viewer {
  readonly personId: string;
  readonly name: string;
  readonly title: string;
  readonly account: string;
  readonly registerNumber: string | null;
  readonly roles: readonly Role[];
}

/** What belongs to a wearer whichever visit is open. */
export interface WearerFile {
  readonly wearer: WearerRow & { readonly age: number };
  readonly visits: readonly VisitRow[];
  readonly lenses: Readonly<Record<string, LensRow>>;
  readonly onEye: readonly FactChain<OnEyeFact>[];
  readonly prescriptions: readonly PrescriptionWithEyes[];
  readonly lessons: readonly LessonRow[];
  readonly attempts: readonly FactChain<AttemptFact>[];
  readonly topics: readonly FactChain<TopicFact>[];
  readonly handOvers: readonly FactChain<HandOverFact>[];
  readonly orders: readonly OrderWithLines[];
}

/** Everything a visit's screens need, read in one transaction. */
export interface VisitRecord extends WearerFile {
  readonly visit: VisitRow;
  readonly facts: VisitFacts;
  /** Powers measured at earlier visits, newest of each eye. */
  readonly earlierRefractions: readonly RefractionFact[];
  /** How lenses that are on an eye in this visit turned at earlier ones: the history of the same lens. */
  readonly earlierRotations: readonly FactChain<RotationFact>[];
  /** Best acuity of each eye at earlier visits, logMAR. */
  readonly bestBefore: Readonly<Record<Eye, number | null>>;
  readonly families: readonly FamilyWithBlocks[];
  readonly stock: readonly TrialStockRow[];
  readonly houseList: readonly HouseListRow[];
  readonly careProducts: readonly CareProductRow[];
  readonly instruments: readonly InstrumentRow[];
  readonly drafts: readonly DraftRow[];
  readonly health: HealthFile;
  readonly house: House;
}

/** The practice, the moment and the person: what every page shows. */
export interface House {
  readonly practice: {
    readonly name: string;
    readonly town: string;
    readonly address: string;
    readonly telephone: string;
    readonly emergencyTelephone: string | null;
    readonly timeZone: string;
    readonly currency: string;
  };
  readonly settings: PracticeSettings;
  readonly now: string;
  readonly today: string;
  readonly viewer: Viewer;
  readonly mode: 'production' | 'demo' | 'test';
}

export async function houseOf(context: Context): Promise<House> {
  const { practice, caller } = context;
  const staff = must(await findStaff(context.tx, practice.id, caller.personId), 'caller');
  return {
    practice: {
      name: practice.name,
      town: practice.town,
      address: practice.address,
      telephone: practice.telephone,
      emergencyTelephone: practice.emergencyTelephone,
      timeZone: practice.timeZone,
      currency: practice.currency,
    },
    settings: context.settings,
    now: context.now,
    today: context.today,
    viewer: {
      personId: caller.personId,
      name: caller.name,
      title: caller.title,
      account: caller.account,
      registerNumber: staff.registerNumber,
      roles: caller.roles,
    },
    mode: context.mode,
  };
}

/** One fact table of some visits, as chains. */
async function readChains<Row extends AnyFact>(context: Context, table: FactTable, visitIds: readonly string[]): Promise<FactChain<Row>[]> {
  return chains(await listFacts<Row>(context.tx, table, context.caller.practiceId, visitIds));
}

/** A wearer's file, or null when the practice has no such wearer. */
export async function readWearerFile(context: Context, wearerId: string): Promise<WearerFile | null> {
  const { tx, caller, today } = context;
  const wearer = await findWearer(tx, caller.practiceId, wearerId);
  if (!wearer) return null;
  const visits = await listVisits(tx, caller.practiceId, wearerId);
  const ids = visits.map((v) => v.id);
  const onEye = await readChains<OnEyeFact>(context, 'lens_on_eye', ids);
  const prescriptions = await listPrescriptions(tx, caller.practiceId, wearerId);
  const handOvers = await readChains<HandOverFact>(context, 'hand_over', ids);
  const orders = await listOrders(tx, caller.practiceId, wearerId);
  const lensIds = new Set<string>();
  for (const chain of onEye) for (const row of chain.rows) if (row.lensId) lensIds.add(row.lensId);
  for (const p of prescriptions) for (const e of p.eyes) if (e.lensId) lensIds.add(e.lensId);
  for (const chain of handOvers) for (const row of chain.rows) lensIds.add(row.lensId);
  for (const o of orders) for (const l of o.lines) if (l.lensId) lensIds.add(l.lensId);
  const lenses = await listLenses(tx, caller.practiceId, [...lensIds]);
  return {
    wearer: { ...wearer, age: ageOn(wearer.birthDate, today) },
    visits,
    lenses: Object.fromEntries(lenses.map((l) => [l.id, l])),
    onEye,
    prescriptions,
    lessons: await listLessons(tx, caller.practiceId, wearerId),
    attempts: await readChains<AttemptFact>(context, 'lesson_attempt', ids),
    topics: await readChains<TopicFact>(context, 'lesson_topic', ids),
    handOvers,
    orders,
  };
}

/** The measured facts of one visit. */
export async function readVisitFacts(context: Context, visitId: string): Promise<VisitFacts> {
  return {
    refractions: await readChains<RefractionFact>(context, 'refraction', [visitId]),
    onEye: await readChains<OnEyeFact>(context, 'lens_on_eye', [visitId]),
    onEyeExtras: await listOnEyeExtras(context.tx, context.caller.practiceId, [visitId]),
    fits: await readChains<FitFact>(context, 'fit_check', [visitId]),
    rotations: await readChains<RotationFact>(context, 'rotation_reading', [visitId]),
    overRefractions: await readChains<OverRefractionFact>(context, 'over_refraction', [visitId]),
    lensFindings: await readChains<LensFindingFact>(context, 'lens_finding', [visitId]),
    acuitiesBoth: await readChains<AcuityBothFact>(context, 'acuity_both', [visitId]),
    eyeAcuities: await readChains<EyeAcuityFact>(context, 'eye_acuity', [visitId]),
    choices: await listChoices(context.tx, context.caller.practiceId, visitId),
  };
}

/** The record of a visit. */
export async function readVisitRecord(context: Context, visit: VisitRow): Promise<VisitRecord> {
  const { tx, caller } = context;
  const file = must(await readWearerFile(context, visit.wearerId), 'wearer of the visit');
  const earlierIds = file.visits.filter((v) => v.openedAt < visit.openedAt).map((v) => v.id);
  const earlier = await readChains<RefractionFact>(context, 'refraction', earlierIds);
  const newest = (eye: Eye): RefractionFact[] => {
    const rows = earlier.map((c) => c.current).filter((r): r is RefractionFact => r?.eye === eye);
    return rows.slice(-1);
  };
  return {
    ...file,
    visit,
    facts: await readVisitFacts(context, visit.id),
    earlierRefractions: [...newest('right'), ...newest('left')],
    earlierRotations: await rotationsOfSameLenses(context, file.onEye, visit.id, earlierIds),
    bestBefore: await findBestAcuities(tx, caller.practiceId, earlierIds),
    families: await listFamilies(tx, caller.practiceId, context.today),
    stock: await listTrialStock(tx, caller.practiceId),
    houseList: await listHouseList(tx, caller.practiceId),
    careProducts: await listCareProducts(tx, caller.practiceId),
    instruments: await listInstruments(tx, caller.practiceId),
    drafts: await listDrafts(tx, caller.practiceId, visit.id),
    health: await readHealthFile(context, visit),
    house: await houseOf(context),
  };
}

/** Readings of earlier visits on the lenses that are, or were, on an eye in this one. */
async function rotationsOfSameLenses(
  context: Context,
  onEye: readonly FactChain<OnEyeFact>[],
  visitId: string,
  earlierIds: readonly string[],
): Promise<FactChain<RotationFact>[]> {
  const current = onEye.flatMap((c) => (c.current ? [c.current] : []));
  const here = new Set(current.flatMap((o) => (o.visitId === visitId && o.lensId !== null ? [o.lensId] : [])));
  const same = new Set(current.flatMap((o) => (o.visitId !== visitId && o.lensId !== null && here.has(o.lensId) ? [o.rootId] : [])));
  if (same.size === 0) return [];
  const read = await readChains<RotationFact>(context, 'rotation_reading', earlierIds);
  return read.filter((c) => c.current !== null && same.has(c.current.lensOnEyeId));
}

/** Were lenses ever handed over to this wearer here? */
export async function handedOverBefore(context: Context, wearerId: string): Promise<boolean> {
  const visits = await listVisits(context.tx, context.caller.practiceId, wearerId);
  const given = await readChains<HandOverFact>(
    context,
    'hand_over',
    visits.map((v) => v.id),
  );
  return given.some((c) => c.current !== null);
}
