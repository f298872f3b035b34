import 'server-only';
import { expiryState, formatRefraction, isSameLens, type LensRow } from '../../core';
import { listLenses } from '../../db/lens';
import { insertPackageCodes, listPackageCodes, type NewPackageCode } from '../../db/packageCode';
import { listOtherDays, lockTrialStock, moveTrials, receiveTrials as insertReceived } from '../../db/trialStock';
import { must } from '../../lib/assert';
import { err, invalid, notFound, ok, type Result } from '../../lib/outcome';
import { countTrialsForm, discardTrialsForm, receiveTrialsForm } from '../../schema/trialStock';
import { defineCommand, type Context } from '../define';
import { makeableLenses } from '../lensOnEye/makeableLens';

/** What a scanned code teaches: nothing where it is known; refused where it means another lens. */
async function codeToLearn({ tx, caller, newId }: Context, gtin: string | null, lensId: string): Promise<Result<readonly NewPackageCode[]>> {
  if (gtin === null) return ok([]);
  const [known] = await listPackageCodes(tx, caller.practiceId, [gtin]);
  if (!known) return ok([{ id: newId(), gtin, lensId, reason: null }]);
  const [lens] = await listLenses(tx, caller.practiceId, [lensId]);
  return lens && isSameLens(known, lens) ? ok([]) : invalid('gtin', 'codeOfOtherLens', { family: known.familyName, power: powerOf(known) });
}
const powerOf = ({ sphereD, cylinderD, axisDeg, addBand }: LensRow): string =>
  [formatRefraction({ sphere: sphereD, cylinder: cylinderD, axis: axisDeg }), addBand].filter(Boolean).join(' ');

export const receiveTrials = defineCommand({
  name: 'receiveTrials',
  right: 'stock',
  input: receiveTrialsForm,
  about: (form) => ({ subjectKind: 'family', subjectId: form.lens.familyId }),
  run: async (context, form) => {
    const { tx, caller, now, today, newId } = context;
    if (expiryState(form.expiresOn, today) === 'expired') return invalid('expiresOn', 'trialExpired', { expired: form.expiresOn });
    const made = await makeableLenses(context, [{ path: ['lens'], spec: form.lens }], { evenEnded: true });
    if (!made.ok) return made;
    const received = { lensId: must(made.value[0], 'lens').lensId, lot: form.lot, expiresOn: form.expiresOn, count: form.count };
    const [other] = form.despiteReason === null ? await listOtherDays(tx, caller.practiceId, [received]) : [];
    // One lot has one day: one of the two was misread.
    if (other) return invalid('expiresOn', 'lotOtherDay', { lot: form.lot, other: other.expiresOn });
    const code = await codeToLearn(context, form.gtin, received.lensId);
    if (!code.ok) return code;
    await insertPackageCodes(tx, caller.practiceId, code.value, { at: now, by: caller.personId });
    await insertReceived(tx, caller.practiceId, [received], { at: now, by: caller.personId, note: form.despiteReason }, newId);
    return ok(null);
  },
});

export const discardTrials = defineCommand({
  name: 'discardTrials',
  right: 'stock',
  input: discardTrialsForm,
  about: (form) => ({ subjectKind: 'trialStock', subjectId: form.trialStockId }),
  run: async ({ tx, caller, now }, form) => {
    const stock = await lockTrialStock(tx, caller.practiceId, form.trialStockId);
    if (!stock) return notFound('trialStock');
    if (stock.count < form.count) return invalid('count', 'trialFewer', { left: stock.count });
    const movement = { trialStockId: form.trialStockId, kind: 'thrownAway', change: -form.count, visitId: null, note: form.why } as const;
    await moveTrials(tx, caller.practiceId, [movement], { at: now, by: caller.personId });
    return ok(null);
  },
});

export const countTrials = defineCommand({
  name: 'countTrials',
  right: 'stock',
  input: countTrialsForm,
  about: (form) => ({ subjectKind: 'trialStock', subjectId: form.trialStockId }),
  run: async ({ tx, caller, now }, form) => {
    const stock = await lockTrialStock(tx, caller.practiceId, form.trialStockId);
    if (!stock) return notFound('trialStock');
    // Somebody took or received a lens while it was being counted: which of the two saw it is not known.
    if (stock.count !== form.seen) return err({ kind: 'conflict', what: 'trialStock', differs: [] });
    const change = form.counted - stock.count;
    if (change !== 0) {
      await moveTrials(tx, caller.practiceId, [{ trialStockId: form.trialStockId, kind: 'counted', change, visitId: null, note: null }], {
        at: now,
        by: caller.personId,
      });
    }
    return ok(null);
  },
});
