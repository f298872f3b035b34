import 'server-only';
import { isMade, isOrderable } from '../../core';
import { findInForceOf, type FamilyWithBlocks } from '../../db/family';
import { ensureLens } from '../../db/lens';
import { invalid, notFound, ok, type Result } from '../../lib/outcome';
import type { LensSpecInput } from '../../schema/lensOnEye';
import type { Context } from '../define';

/** The family and row of a lens that is really made; its row in `lens` appears when it is first met. */
export async function makeableLens(
  context: Context,
  path: readonly string[],
  spec: LensSpecInput,
): Promise<Result<{ lensId: string; family: FamilyWithBlocks }>> {
  const { tx, caller, today } = context;
  // The page may be older than the catalogue: what holds is the version in force today.
  const family = await findInForceOf(tx, caller.practiceId, spec.familyId, today);
  if (!family) return notFound('family');
  if (!isOrderable(family, today)) return invalid(path, 'familyEnded', { family: family.name, day: family.lastOrderOn ?? '' });
  const axis = spec.cylinder === 0 ? 180 : spec.axis;
  if (!isMade({ ...spec, axis }, family)) return invalid(path, 'lensNotMade', { family: family.name });
  const lensId = await ensureLens(tx, caller.practiceId, context.newId(), {
    familyVersionId: family.id,
    sphereD: spec.sphere,
    cylinderD: spec.cylinder,
    axisDeg: axis,
    addBand: spec.add,
    baseCurveMm: spec.baseCurve,
    diameterMm: spec.diameter,
  });
  return ok({ lensId, family });
}
