import 'server-only';
import type { LensRow } from '../../core';
import { listPackageCodes } from '../../db/packageCode';
import { listLoans, type TrialLoan } from '../../db/trialLoan';
import { listTrialMovements, listTrialStock, type TrialMovementRow, type TrialStockRow } from '../../db/trialStock';
import { notFound, ok, type Result } from '../../lib/outcome';
import { emptyForm } from '../../schema/fields';
import { trialBoxForm, trialMovementsForm } from '../../schema/trialStock';
import { defineQuery, libraryTag } from '../define';
import { sessionContextOf, type SessionContext } from '../sessionContext';

export interface DrawerPage {
  readonly session: SessionContext;
  /** Names the state of the lens library, which the page asks for by itself. */
  readonly libraryTag: string;
  /** Lots with lenses left, by family and power. */
  readonly stock: readonly TrialStockRow[];
  /** Lenses that somebody else has. */
  readonly loans: readonly TrialLoan[];
}

export const readDrawer = defineQuery({
  name: 'readDrawer',
  right: 'stock',
  input: emptyForm,
  about: () => null,
  run: async (context) => {
    const page: DrawerPage = {
      session: sessionContextOf(context),
      libraryTag: libraryTag(context),
      stock: await listTrialStock(context.tx, context.caller.practiceId),
      loans: await listLoans(context.tx, context.caller.practiceId),
    };
    return ok(page);
  },
});

/** The lens that a scanned code names; null where it was never learned. */
export const readTrialBox = defineQuery({
  name: 'readTrialBox',
  right: 'stock',
  audited: false,
  input: trialBoxForm,
  about: () => null,
  run: async ({ tx, caller }, { gtin }): Promise<Result<{ readonly lens: LensRow | null }>> => {
    const [known] = await listPackageCodes(tx, caller.practiceId, [gtin]);
    if (!known) return ok({ lens: null });
    const { gtin: _gtin, ...lens } = known;
    return ok({ lens });
  },
});

export const readTrialMovements = defineQuery({
  name: 'readTrialMovements',
  right: 'stock',
  input: trialMovementsForm,
  about: () => null,
  run: async (context, form) => {
    const rows: readonly TrialMovementRow[] = await listTrialMovements(context.tx, context.caller.practiceId, form.trialStockId);
    // A lot has come into the drawer by a movement: one without any is none of this practice's.
    return rows.length === 0 ? notFound('trialStock') : ok(rows);
  },
});
