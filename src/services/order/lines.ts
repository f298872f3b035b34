import 'server-only';
import {
  addDays,
  examinationBooked,
  inHandOf,
  isOrderable,
  lossesOf,
  may,
  onTheWayTo,
  packsThatEnd,
  reachOf,
  supplyPlan,
  type Eye,
  type Prescription,
  type PrescriptionEyeRow,
  type WearerFile,
} from '../../core';
import { listAppointmentsOf } from '../../db/appointment';
import { findFamily, findFamilyInForce, type FamilyWithBlocks } from '../../db/family';
import { listLenses } from '../../db/lens';
import { must } from '../../lib/assert';
import { invalid, ok, type Result } from '../../lib/outcome';
import { boundsOf } from '../appointment/moments';
import type { Context } from '../define';
import type { LineOfMaker } from './newOrder';

/** The family an eye's lenses come from: of the lens named, or, raw, of the lens that was on the eye. */
async function prescribedFamily(context: Context, prescribed: PrescriptionEyeRow): Promise<FamilyWithBlocks | null> {
  const { tx, caller, today } = context;
  if (prescribed.raw) return findFamilyInForce(tx, caller.practiceId, prescribed.raw.familyCode, today);
  const [lens] = prescribed.lensId ? await listLenses(tx, caller.practiceId, [prescribed.lensId]) : [];
  return lens ? findFamily(tx, caller.practiceId, lens.familyVersionId) : null;
}

/** Is an examination booked before some lenses would run out? */
async function isExamined({ tx, caller, today, practice }: Context, wearerId: string, until: string): Promise<boolean> {
  const coming = await listAppointmentsOf(tx, caller.practiceId, wearerId, boundsOf(today, practice.timeZone).from);
  return examinationBooked(coming, { today, until, timeZone: practice.timeZone }) !== null;
}

/** What is asked for an eye under its prescription, and what bears on it. */
export interface AskedBoxes {
  readonly wearerId: string;
  readonly packs: number;
  readonly file: Pick<WearerFile, 'handOvers' | 'orders' | 'losses'>;
  readonly pastExpiryNote: string | null;
}

/**
 * One eye's line of an order, if its lenses may be had and end in time. One pack over goes with the examination booked; `lasts`: a
 * prescriber lets them last further past the prescription's end.
 */
export async function orderLine(
  context: Context,
  prescription: Prescription,
  eye: Eye,
  { wearerId, packs, file, pastExpiryNote }: AskedBoxes,
): Promise<Result<LineOfMaker & { readonly lasts: boolean }>> {
  const { today, settings, caller } = context;
  const prescribed = prescription.eyes.find((e) => e.eye === eye);
  if (!prescribed) return invalid(`${eye}Packs`, 'eyeNotPrescribed');
  const family = must(await prescribedFamily(context, prescribed), 'family of the prescribed lens');
  if (!isOrderable(family, today)) return invalid(`${eye}Packs`, 'familyEnded', { family: family.name, day: family.lastOrderOn ?? '' });
  const input = {
    today,
    packs,
    packSize: family.packSize,
    leadDays: family.leadDays,
    marginDays: settings.reorderMarginDays,
    deliveries: [...inHandOf(file, eye), ...onTheWayTo(file, prescription, eye, today, addDays(today, family.leadDays))],
    losses: lossesOf(file.losses, eye),
    wear: { modality: family.modality, daysPerWeek: prescription.daysPerWeek },
  };
  const { runOut } = supplyPlan(input);
  const past = runOut !== null && runOut > prescription.expiresOn ? { runOut, expires: prescription.expiresOn } : null;
  let lasts = false;
  if (past) {
    const oneOver = reachOf(packs, packsThatEnd(input, prescription.expiresOn)) === 'oneOver';
    if (!(oneOver && (await isExamined(context, wearerId, past.runOut)))) {
      if (settings.pastExpiry === 'refuse') return invalid(`${eye}Packs`, oneOver ? 'examinationFirst' : 'pastExpiry', past);
      if (!may(caller.roles, 'sign')) return invalid(`${eye}Packs`, oneOver ? 'examinationFirst' : 'pastExpiryPrescriber', past);
      if (pastExpiryNote === null) return invalid('pastExpiryNote', 'pastExpiryNote', past);
      lasts = true;
    }
  }
  const { packSize, packPriceMinor } = family;
  const { mode, lensId, raw } = prescribed;
  return ok({ line: { id: context.newId(), eye, mode, lensId, raw, packs, packSize, packPriceMinor }, maker: family.maker, lasts });
}
