import 'server-only';
import { EYES, formatRefraction, isSameLens, type Eye, type LensRow, type Order } from '../../core';
import { listLenses } from '../../db/lens';
import { insertBoxSerials, insertPackageCodes, listKnownSerials, listPackageCodes, type NewPackageCode } from '../../db/packageCode';
import type { NewReceipt } from '../../db/order';
import { must } from '../../lib/assert';
import { invalid, ok, type Result } from '../../lib/outcome';
import type { Context } from '../define';

/** The code of one box, as it was scanned. */
export interface ScannedBox {
  readonly gtin: string;
  readonly serial: string | null;
}
interface Scanned {
  readonly eye: Eye;
  readonly receipt: NewReceipt;
  readonly boxes: readonly ScannedBox[];
}

const named = ({ familyName, sphereD, cylinderD, axisDeg, addBand }: LensRow) => ({
  family: familyName,
  power: [formatRefraction({ sphere: sphereD, cylinder: cylinderD, axis: axisDeg }), addBand].filter(Boolean).join(' '),
});

/** Whose line of an order a lens is; empty for none. */
export const eyesOfLens = (order: Pick<Order, 'lines'>, lens: LensRow, lenses: Readonly<Record<string, LensRow>>): readonly Eye[] =>
  EYES.filter((eye) =>
    order.lines.some((line) => {
      const ordered = line.eye === eye && line.lensId !== null ? lenses[line.lensId] : undefined;
      return ordered !== undefined && isSameLens(ordered, lens);
    }),
  );

/** A box with a number of its own that came before, or twice now. */
async function knownBefore(context: Context, scanned: readonly Scanned[]): Promise<Result<null>> {
  const boxes = scanned.flatMap(({ eye, boxes: of }) => of.flatMap(({ gtin, serial }) => (serial === null ? [] : [{ eye, gtin, serial }])));
  const twice = boxes.find((b, i) => boxes.some((o, j) => j < i && o.gtin === b.gtin && o.serial === b.serial));
  if (twice) return invalid([twice.eye, 'codes'], 'boxScannedTwice', { serial: twice.serial });
  if (boxes.length === 0) return ok(null);
  const [before] = await listKnownSerials(context.tx, context.caller.practiceId, boxes);
  if (!before) return ok(null);
  const { eye } = must(
    boxes.find((b) => b.gtin === before.gtin && b.serial === before.serial),
    'box',
  );
  return invalid([eye, 'codes'], 'boxCameBefore', { serial: before.serial, number: before.number });
}

/**
 * Holds the codes of boxes against the lenses that they are said to be. A code known for another lens is refused, loudly where that
 * lens is the other eye's; an unknown one is learned. A code that was learned wrong is learned again, with why.
 */
export async function checkCodes(
  context: Context,
  order: Order,
  scanned: readonly Scanned[],
  relearnReason: string | null,
): Promise<Result<readonly NewPackageCode[]>> {
  const { tx, caller, newId } = context;
  const before = await knownBefore(context, scanned);
  if (!before.ok) return before;
  const gtins = [...new Set(scanned.flatMap((s) => s.boxes.map((b) => b.gtin)))];
  if (gtins.length === 0) return ok([]);
  const known = new Map((await listPackageCodes(tx, caller.practiceId, gtins)).map(({ gtin, ...lens }) => [gtin, lens]));
  const ids = [...scanned.map((s) => s.receipt.lensId), ...order.lines.flatMap((l) => l.lensId ?? [])];
  const lenses = Object.fromEntries((await listLenses(tx, caller.practiceId, ids)).map((l) => [l.id, l]));
  const learned = new Map<string, NewPackageCode & { readonly lens: LensRow }>();
  for (const { eye, receipt, boxes } of scanned) {
    const lens = must(lenses[receipt.lensId], 'lens of a box');
    for (const { gtin } of boxes) {
      const other = learned.get(gtin)?.lens ?? (relearnReason === null ? known.get(gtin) : undefined);
      if (other && !isSameLens(other, lens)) {
        const otherEye = eyesOfLens(order, other, lenses).some((e) => e !== eye);
        return invalid([eye, 'codes'], otherEye ? 'boxOfOtherEye' : 'boxOfOtherLens', named(other));
      }
      const there = known.get(gtin);
      if (there && isSameLens(there, lens)) continue;
      if (!learned.has(gtin)) learned.set(gtin, { id: newId(), gtin, lensId: lens.id, reason: there ? relearnReason : null, lens });
    }
  }
  return ok([...learned.values()].map(({ id, gtin, lensId, reason }) => ({ id, gtin, lensId, reason })));
}

/** Keeps what was learned, and the numbers of boxes that have one. */
export async function keepCodes({ tx, caller, now }: Context, scanned: readonly Scanned[], codes: readonly NewPackageCode[]): Promise<void> {
  await insertPackageCodes(tx, caller.practiceId, codes, { at: now, by: caller.personId });
  const serials = scanned.flatMap(({ receipt, boxes }) =>
    boxes.flatMap(({ gtin, serial }) => (serial === null ? [] : [{ gtin, serial, orderReceiptId: receipt.id }])),
  );
  await insertBoxSerials(tx, caller.practiceId, serials);
}
