import 'server-only';
import {
  compareRequest,
  EYES,
  inForce,
  type Compared,
  type Eye,
  type InForce,
  type LensRow,
  type Prescription,
  type PrescribedLens,
  type SellerRequest,
} from '../../core';
import { listPrescriptions } from '../../db/prescription';
import type { Context } from '../define';
import { namedLenses } from '../visit/lenses';

const lensOf = (signed: Prescription, lenses: Readonly<Record<string, LensRow>>, eye: Eye): PrescribedLens | null => {
  const row = signed.eyes.find((e) => e.eye === eye);
  const lens = row?.lensId ? lenses[row.lensId] : undefined;
  // A raw order's lens is made by a laboratory: nobody else can fill it from these figures.
  if (!row || !lens) return null;
  const power = { sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg };
  return { power, add: lens.addBand, maker: lens.maker, familyName: lens.familyName, baseCurveMm: row.baseCurveOrderedMm, diameterMm: lens.diameterMm };
};

/** A request beside what is in force for its wearer now. */
export async function compareNow(context: Context, request: SellerRequest & { readonly wearerId: string | null }): Promise<Compared> {
  const { tx, caller, today } = context;
  if (request.wearerId === null) return compareRequest(request, null, today);
  const signed = inForce(await listPrescriptions(tx, caller.practiceId, request.wearerId));
  const { lenses } = await namedLenses(
    context,
    signed.flatMap((p) => p.eyes.flatMap((e) => e.lensId ?? [])),
  );
  const held = signed.map((p): InForce => {
    const of = Object.fromEntries(EYES.map((eye) => [eye, lensOf(p, lenses, eye)])) as InForce['eyes'];
    return { id: p.id, number: p.number, purpose: p.purpose, expiresOn: p.expiresOn, eyes: of };
  });
  return compareRequest(request, held, today);
}
