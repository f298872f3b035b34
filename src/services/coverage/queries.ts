import 'server-only';
import { addYears, EYES, isOrderable, toCornealPlane, type CoverageFamily, type CoverageNeeds, type DrawerCount, type Eye } from '../../core';
import { listPowers, type PowerOfEye } from '../../db/coverage';
import { listFamilies } from '../../db/family';
import { listDrawer } from '../../db/trialStock';
import { ok, type Result } from '../../lib/outcome';
import { emptyForm } from '../../schema/fields';
import { defineQuery } from '../define';
import { sessionContextOf, type SessionContext } from '../sessionContext';

/** Years back of which refractions count. Our own choice. */
const YEARS = 3;
/** Keratometric index, mm · D. @source keratometer constant 337.5 */
const KERATOMETER = 337.5;

/** What a plan of the trial drawer is made from: powers without names, families, and what lies there. */
export interface CoveragePage {
  readonly session: SessionContext;
  readonly needs: readonly CoverageNeeds[];
  readonly families: readonly (CoverageFamily & { readonly id: string; readonly maker: string })[];
  readonly drawer: readonly DrawerCount[];
}

function needsOf(rows: readonly PowerOfEye[]): readonly CoverageNeeds[] {
  const byWearer = new Map<number, PowerOfEye[]>();
  for (const row of rows) byWearer.set(row.wearer, [...(byWearer.get(row.wearer) ?? []), row]);
  return [...byWearer.values()].map((eyes) => {
    const of = <T>(read: (row: PowerOfEye) => T): Record<Eye, T | null> => {
      const one = (eye: Eye): T | null => {
        const row = eyes.find((e) => e.eye === eye);
        return row ? read(row) : null;
      };
      return Object.fromEntries(EYES.map((eye) => [eye, one(eye)])) as Record<Eye, T | null>;
    };
    return {
      needs: of((r) => toCornealPlane({ sphere: r.sphereD, cylinder: r.cylinderD, axis: r.axisDeg }, r.vertexMm)),
      meanK: of((r) => (r.flatMm === null || r.steepMm === null ? null : (KERATOMETER / r.flatMm + KERATOMETER / r.steepMm) / 2)),
    };
  });
}

export const readCoverage = defineQuery({
  name: 'readCoverage',
  right: 'stock',
  input: emptyForm,
  about: () => null,
  run: async (context): Promise<Result<CoveragePage>> => {
    const { tx, caller, today } = context;
    const rows = await listPowers(tx, caller.practiceId, `${addYears(today, -YEARS)}T00:00:00Z`);
    // Additions are judged by both eyes on tasks: multifocals are tried by their own start tables.
    const families = (await listFamilies(tx, caller.practiceId, today)).filter(
      (f) => (f.geometry === 'sphere' || f.geometry === 'toric') && isOrderable(f, today),
    );
    return ok({
      session: sessionContextOf(context),
      needs: needsOf(rows),
      families: families.map(({ id, code, name, maker, geometry, blocks }) => ({ id, code, name, maker, geometry, blocks })),
      drawer: await listDrawer(tx, caller.practiceId, today),
    });
  },
});
