import 'server-only';
import type { Millimetres, Modality, Refraction } from '../../core';
import { insertFamily } from '../../db/family';
import { ensureLenses } from '../../db/lens';
import { must } from '../../lib/assert';
import type { Context } from '../define';

/**
 * A lens of which only what stands on it is known: brought along by its wearer, or worked out by a laboratory in a power that
 * its family's list does not have. It gets a family of its own that is never offered: what it is made of is not known here.
 * @returns the identity of the lens
 */
export async function unlistedLens(
  { tx, caller, now, newId }: Context,
  lens: {
    readonly name: string;
    readonly modality: Modality;
    readonly power: Refraction;
    readonly baseCurveMm: Millimetres | null;
    readonly diameterMm: Millimetres | null;
  },
): Promise<string> {
  const { sphere, cylinder, axis } = lens.power;
  const familyVersionId = newId();
  await insertFamily(
    tx,
    caller.practiceId,
    {
      id: familyVersionId,
      code: `unlisted:${familyVersionId}`,
      version: 1,
      listed: false,
      maker: '',
      name: lens.name,
      geometry: cylinder === 0 ? 'sphere' : 'toric',
      modality: lens.modality,
      material: '',
      overnightApproved: false,
      markLayout: cylinder === 0 ? 'none' : 'six',
      stabilisation: null,
      settleMinutes: 10,
      packSize: 1,
      packPriceMinor: 0,
      leadDays: 0,
      blocks: [],
    },
    now,
    newId,
  );
  const spec = {
    familyVersionId,
    sphereD: sphere,
    cylinderD: cylinder,
    axisDeg: axis,
    addBand: null,
    baseCurveMm: lens.baseCurveMm,
    diameterMm: lens.diameterMm,
  };
  const [lensId] = await ensureLenses(tx, caller.practiceId, [spec], newId);
  return must(lensId, 'lens');
}
