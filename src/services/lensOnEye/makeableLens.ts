import 'server-only';
import { isMade, isOrderable, type LensSpec } from '../../core';
import { listInForceOf, type FamilyWithBlocks } from '../../db/family';
import { ensureLenses } from '../../db/lens';
import { must } from '../../lib/assert';
import { invalid, notFound, ok, type Result } from '../../lib/outcome';
import type { LensSpecInput } from '../../schema/lensOnEye';
import type { Context } from '../define';

/** A lens asked for, and the place in the form to which a fault belongs. */
export interface AskedLens {
  readonly path: readonly string[];
  readonly spec: LensSpecInput;
}
export interface MadeLens {
  readonly lensId: string;
  readonly family: FamilyWithBlocks;
}

/**
 * The families and rows of lenses that are really made; a lens's row appears when it is first met.
 * @param evenEnded lenses of a family that is no longer ordered may still come, and lie in the drawer
 */
export async function makeableLenses(
  context: Context,
  asked: readonly AskedLens[],
  { evenEnded = false }: { readonly evenEnded?: boolean } = {},
): Promise<Result<readonly MadeLens[]>> {
  const { tx, caller, today, newId } = context;
  const ids = asked.map((a) => a.spec.familyId);
  // The page may be older than the catalogue: what holds is the version in force today.
  const inForce = ids.length === 0 ? new Map<string, FamilyWithBlocks>() : await listInForceOf(tx, caller.practiceId, ids, today);
  const made: { readonly family: FamilyWithBlocks; readonly lens: LensSpec }[] = [];
  for (const { path, spec } of asked) {
    const family = inForce.get(spec.familyId);
    if (!family) return notFound('family');
    if (!evenEnded && !isOrderable(family, today)) return invalid(path, 'familyEnded', { family: family.name, day: family.lastOrderOn ?? '' });
    const axis = spec.cylinder === 0 ? 180 : spec.axis;
    if (!isMade({ ...spec, axis }, family)) return invalid(path, 'lensNotMade', { family: family.name });
    const lens = {
      familyVersionId: family.id,
      sphereD: spec.sphere,
      cylinderD: spec.cylinder,
      axisDeg: axis,
      addBand: spec.add,
      baseCurveMm: spec.baseCurve,
      diameterMm: spec.diameter,
    };
    made.push({ family, lens });
  }
  if (made.length === 0) return ok([]);
  const lensIds = await ensureLenses(
    tx,
    caller.practiceId,
    made.map((m) => m.lens),
    newId,
  );
  return ok(made.map(({ family }, i) => ({ family, lensId: must(lensIds[i], 'lens') })));
}
