import 'server-only';
import { careWarning, supplierOf, type CareWarning, type ReorderCall, type ReorderTrade, type Supplier, type WearerFile } from '../../core';
import { listCarePairs } from '../../db/carePair';
import { listCareProducts } from '../../db/careProduct';
import { findKeptIn } from '../../db/careSystem';
import { listTrade, type FamilyWithBlocks } from '../../db/family';
import { listSuppliers } from '../../db/supplier';
import { countTrials } from '../../db/trialStock';
import { listReorderCalls } from '../../db/reorderCall';
import { notFound, ok, type Result } from '../../lib/outcome';
import { reorderPageForm } from '../../schema/reorder';
import { defineQuery, type Context } from '../define';
import { sessionContextOf, type SessionContext } from '../sessionContext';
import { namedLenses } from '../visit/lenses';
import { readWearerFile } from '../wearer/file';

/** The last calls that a page shows. */
const CALLS = 5;

/** What somebody at the telephone needs of a wearer whose lenses run low. */
export interface ReorderPage {
  readonly session: SessionContext;
  readonly file: WearerFile;
  /** What the families prescribed are sold in today, by code. */
  readonly trade: Readonly<Record<string, ReorderTrade>>;
  readonly calls: readonly ReorderCall[];
  /** Trial lenses of the lenses prescribed that lie in the drawer and may be used, by lens. */
  readonly trials: Readonly<Record<string, number>>;
  /** Who sells the lenses prescribed, of the right eye where they differ; null where nobody is named. */
  readonly supplier: Supplier | null;
  /** What is to be said of the lenses prescribed and what they are kept in; null when nothing is. */
  readonly care: CareWarning | null;
}

/** Lenses that are kept, and what in. */
async function careOf(context: Context, wearerId: string, families: readonly Pick<FamilyWithBlocks, 'modality' | 'material'>[]): Promise<CareWarning | null> {
  const { tx, caller } = context;
  const materials = families.filter((f) => f.modality !== 'daily').map((f) => f.material);
  const kept = materials.length === 0 ? null : await findKeptIn(tx, caller.practiceId, wearerId);
  if (kept === null) return null;
  return careWarning(kept, await listCareProducts(tx, caller.practiceId), materials, await listCarePairs(tx, caller.practiceId));
}

export const readReorder = defineQuery({
  name: 'readReorder',
  right: 'orders',
  input: reorderPageForm,
  about: (form) => ({ subjectKind: 'wearer', subjectId: form.wearerId }),
  run: async (context, form): Promise<Result<ReorderPage>> => {
    const file = await readWearerFile(context, form.wearerId, null);
    if (!file) return notFound('wearer');
    const ids = file.prescriptions.flatMap((p) => p.eyes.flatMap((e) => e.lensId ?? []));
    const { ofLenses, lenses } = await namedLenses(context, ids);
    // A laboratory's lens has no row of its own before it was made: its family is named.
    const raw = file.prescriptions.flatMap((p) => p.eyes.flatMap((e) => (e.raw === null ? [] : [e.raw.familyCode])));
    const codes = [...new Set([...ofLenses.map((f) => f.code), ...raw])];
    const sold = await listTrade(context.tx, context.caller.practiceId, codes, context.today);
    const trade = Object.fromEntries(sold.map(({ code, ...of }) => [code, of]));
    const calls = await listReorderCalls(context.tx, context.caller.practiceId, form.wearerId, CALLS);
    const [first] = ids;
    const maker = first ? lenses[first]?.maker : undefined;
    const supplier = maker === undefined ? null : supplierOf(await listSuppliers(context.tx, context.caller.practiceId), maker);
    const counted = await countTrials(context.tx, context.caller.practiceId, ids, context.today);
    const trials = Object.fromEntries(counted.map((c) => [c.lensId, c.count]));
    return ok({ session: sessionContextOf(context), file, trade, calls, trials, supplier, care: await careOf(context, form.wearerId, ofLenses) });
  },
});
