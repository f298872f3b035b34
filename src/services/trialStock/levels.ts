import 'server-only';
import { addDays, RESTOCK_DAYS, restockOf, SOON_EXPIRED_DAYS, stillComing, supplierOf, USED_DAYS, type RestockWhy } from '../../core';
import { listLenses } from '../../db/lens';
import { listSuppliers } from '../../db/supplier';
import { insertRestock, insertTrialLevels, listTrialLevels, type TrialLevelRow } from '../../db/trialLevel';
import { restockCsv } from '../../formats/restockCsv';
import { notFound, ok, type Result } from '../../lib/outcome';
import { emptyForm } from '../../schema/fields';
import { restockForm, trialLevelsForm } from '../../schema/trialStock';
import { boundsOf } from '../appointment/moments';
import { defineCommand, defineQuery, type Context } from '../define';
import { makeableLenses } from '../lensOnEye/makeableLens';
import { sessionContextOf, type SessionContext } from '../sessionContext';

/** A trial lens that is to be ordered. */
export interface RestockLine extends Omit<TrialLevelRow, 'asked' | 'came'> {
  readonly coming: number;
  readonly count: number;
  readonly why: RestockWhy;
  /** Who sells it; null where nobody is named. */
  readonly supplierName: string | null;
}
export interface RestockPage {
  readonly session: SessionContext;
  readonly lines: readonly RestockLine[];
  /** Lenses of which a level is kept. */
  readonly levels: number;
}

/** What the drawer lacks, by supplier and family. */
async function restockLines({ tx, caller, now, today, practice }: Context): Promise<{ readonly lines: readonly RestockLine[]; readonly levels: number }> {
  const { timeZone } = practice;
  const rows = await listTrialLevels(tx, caller.practiceId, {
    today,
    soon: addDays(today, SOON_EXPIRED_DAYS),
    usedSince: boundsOf(addDays(today, -USED_DAYS), timeZone).from,
    askedSince: boundsOf(addDays(today, -RESTOCK_DAYS), timeZone).from,
  });
  const suppliers = await listSuppliers(tx, caller.practiceId);
  const lines = rows.flatMap(({ asked, came, ...row }): RestockLine[] => {
    const coming = stillComing(asked, came, now);
    const order = restockOf({ ...row, coming });
    return order ? [{ ...row, ...order, coming, supplierName: supplierOf(suppliers, row.maker)?.name ?? null }] : [];
  });
  const byName = (a: RestockLine, b: RestockLine): number => (a.supplierName ?? '').localeCompare(b.supplierName ?? '');
  return { lines: [...lines].sort(byName), levels: rows.filter((r) => r.least !== null && r.least > 0).length };
}

export const readRestock = defineQuery({
  name: 'readRestock',
  right: 'stock',
  input: emptyForm,
  about: () => null,
  run: async (context): Promise<Result<RestockPage>> => ok({ session: sessionContextOf(context), ...(await restockLines(context)) }),
});

/** The list as a file for whoever takes the order. */
export const exportRestock = defineQuery({
  name: 'exportRestock',
  right: 'stock',
  input: emptyForm,
  about: () => null,
  run: async (context): Promise<Result<{ readonly csv: string }>> => ok({ csv: restockCsv((await restockLines(context)).lines) }),
});

/** How many of some trial lenses the drawer keeps at least: by hand, or as a plan says. */
export const setTrialLevels = defineCommand({
  name: 'setTrialLevels',
  right: 'stock',
  input: trialLevelsForm,
  about: () => null,
  run: async (context, { levels }): Promise<Result<null>> => {
    const asked = levels.map(({ lens }, i) => ({ path: ['levels', String(i), 'lens'], spec: lens }));
    const made = await makeableLenses(context, asked, { evenEnded: true });
    if (!made.ok) return made;
    // One lens named twice: what was said last.
    const least = new Map(made.value.map(({ lensId }, i) => [lensId, levels[i]?.least ?? 0]));
    const rows = [...least].map(([lensId, n]) => ({ id: context.newId(), lensId, least: n }));
    await insertTrialLevels(context.tx, context.caller.practiceId, rows, { at: context.now, by: context.caller.personId });
    return ok(null);
  },
});

/** Trial lenses that were asked of a supplier: they count as on their way, until as many came or a month has passed. */
export const recordRestock = defineCommand({
  name: 'recordRestock',
  right: 'stock',
  input: restockForm,
  about: () => null,
  run: async ({ tx, caller, now, newId }, { lines }): Promise<Result<null>> => {
    const ids = [...new Set(lines.map((l) => l.lensId))];
    if ((await listLenses(tx, caller.practiceId, ids)).length !== ids.length) return notFound('lens');
    const rows = lines.map((l) => ({ id: newId(), ...l }));
    await insertRestock(tx, caller.practiceId, rows, { at: now, by: caller.personId });
    return ok(null);
  },
});
