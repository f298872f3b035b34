import 'server-only';
import {
  eyesOfVisit,
  handOverLines,
  provenance,
  STEP_SLICES,
  stepAnswers,
  type Eye,
  type SliceName,
  type VisitHead,
  type VisitPage,
  type VisitRow,
  type VisitSlices,
} from '../../core';
import type { FamilyWithBlocks } from '../../db/family';
import { bundle } from '../../db/bundle';
import { listDiagnosticLenses } from '../../db/diagnosticLens';
import { listDrawer } from '../../db/trialStock';
import { libraryTag, type Context } from '../define';
import { lensIn, namedLenses, type Named } from './lenses';
import { provenanceOf } from './provenance';
import { readingOf, type VisitReading } from './reading';

/** The parts of a visit as they are sent. */
export type Slices = VisitSlices<FamilyWithBlocks>;
/** The head of a visit and some of its slices, as they stood at one moment. */
export interface VisitPart {
  readonly head: VisitHead;
  readonly slices: { readonly [Name in SliceName]?: Slices[Name] };
  /** The server's moment and the practice's day. */
  readonly now: string;
  readonly today: string;
}

type Supply = Awaited<ReturnType<VisitReading['supply']>>;

/** Everything of the visit that names a lens. */
async function lensesIn(context: Context, reading: VisitReading, supply: Supply): Promise<Named> {
  const facts = await reading.facts();
  const ids = [
    ...facts.onEye.flatMap((c) => c.rows.map((r) => r.lensId)),
    ...supply.trials.map((o) => o.lensId),
    ...supply.broughtAlong.map((b) => b.lensId),
    ...supply.sellerVerified.map((v) => v.lensId),
    ...supply.wornAnswers.flatMap((c) => c.rows.map((r) => r.lensId)),
    ...supply.prescriptions.flatMap((p) => p.eyes.map((e) => e.lensId)),
    ...supply.handOvers.flatMap((c) => c.rows.map((r) => r.lensId)),
    ...supply.orders.flatMap((o) => [...o.lines, ...o.receipts].map((l) => l.lensId)),
  ];
  return namedLenses(
    context,
    ids.flatMap((id) => id ?? []),
  );
}

async function headOf(context: Context, reading: VisitReading, supply: Supply, named: Named): Promise<VisitHead> {
  const { visit } = reading;
  const wearer = await reading.wearer();
  const health = await reading.state();
  const facts = await reading.facts();
  const { bestBefore, knownTurns, addsBefore } = await reading.past();
  const of = { age: wearer.age, bestBefore, knownTurns, health, addsBefore, nearFindings: supply.nearFindings };
  const eyes = eyesOfVisit(facts, lensIn(named), context.settings, of);
  const choosing = { right: eyes.right.verdict.choosing, left: eyes.left.verdict.choosing };
  const state = await reading.state(choosing);
  const file = await provenanceOf(reading);
  const wornBy = (eye: Eye): VisitHead['worn'][Eye] => {
    const { worn } = provenance(file, eye);
    return worn && { ...worn, familyName: named.lenses[worn.lensId]?.familyName ?? '' };
  };
  const { stops, aftercare, aftercareEnds } = await reading.health();
  return {
    visit,
    decided: await reading.decided(),
    wearer,
    answers: stepAnswers({ ...supply, aftercare, aftercareEnds, visitId: visit.id, kind: visit.kind, eyes, health: state }),
    lines: handOverLines(state.answers, state.fired),
    alert: state.alert,
    stops: stops.filter((s) => s.endedAt === null).map((s) => s.rule),
    worn: { right: wornBy('right'), left: wornBy('left') },
    drafts: supply.drafts,
    libraryTag: libraryTag(context),
  };
}

/** The head of a visit and the slices asked for, each from what was read once in this transaction. */
export async function readVisitPart(context: Context, visit: VisitRow, names: readonly SliceName[]): Promise<VisitPart> {
  const reading = readingOf(context, visit);
  const supply = await reading.supply();
  const named = await lensesIn(context, reading, supply);
  const head = await headOf(context, reading, supply, named);
  const read: { readonly [Name in SliceName]: () => Promise<Slices[Name]> } = {
    health: async () => ({ health: await reading.health() }),
    trend: async () => ({ trend: await reading.trend() }),
    measures: async () => ({ facts: await reading.facts(), ...(await reading.past()) }),
    supply: () => {
      const { drafts: _drafts, ...shown } = supply;
      return Promise.resolve(shown);
    },
    lenses: () => Promise.resolve(named),
    drawer: async () => {
      const { tx, caller, today } = context;
      return bundle(tx, { drawer: listDrawer(tx, caller.practiceId, today), sets: listDiagnosticLenses(tx, caller.practiceId, today) });
    },
  };
  const slices: Partial<Record<SliceName, unknown>> = {};
  for (const name of names) slices[name] = await read[name]();
  return { head, slices: slices as VisitPart['slices'], now: context.now, today: context.today };
}

/** Lenses and drawer are read with what brings other lenses. */
const WITH_LENSES: readonly SliceName[] = ['measures', 'supply'];

/** What a command changed of a page, from what it has read itself; null when it changed no visit. */
export async function readChanged(context: Context, page: VisitPage): Promise<VisitPart | null> {
  const { visit, behind, changed } = context.answer;
  if (!visit) return null;
  const names: readonly SliceName[] = STEP_SLICES[page];
  // What somebody else recorded meanwhile has to be shown too.
  if (behind) return readVisitPart(context, visit, names);
  return readVisitPart(
    context,
    visit,
    names.filter((name) => changed.has(name) || (name === 'lenses' && WITH_LENSES.some((w) => changed.has(w)))),
  );
}
