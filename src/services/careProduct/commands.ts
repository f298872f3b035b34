import 'server-only';
import { insertCarePair } from '../../db/carePair';
import { insertCareProduct, listCareProducts } from '../../db/careProduct';
import { holdPractice } from '../../db/practice';
import { err, notFound, ok, type Problem } from '../../lib/outcome';
import { carePairForm } from '../../schema/carePair';
import { careProductForm } from '../../schema/careProduct';
import { defineCommand } from '../define';

/** Adds a care product, or appends a new version of one. Whoever read an older version is told instead. */
export const saveCareProduct = defineCommand({
  name: 'saveCareProduct',
  right: 'settings',
  input: careProductForm,
  about: (_form, out: { productId: string }) => ({ subjectKind: 'careProduct', subjectId: out.productId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    await holdPractice(tx, caller.practiceId);
    const there = (await listCareProducts(tx, caller.practiceId)).find((p) => p.productId === form.productId);
    const conflict: Problem = {
      kind: 'conflict',
      what: 'careProduct',
      differs: there ? [{ what: 'careProduct', eye: null, text: there.name, by: there.recordedByName, at: there.recordedAt }] : [],
    };
    if ((there?.version ?? 0) !== form.version) return err(conflict);
    const { price, productId, version, ...product } = form;
    const id = context.newId();
    const saved = await insertCareProduct(tx, {
      ...product,
      id,
      practiceId: caller.practiceId,
      productId: productId ?? id,
      version: version + 1,
      priceMinor: Math.round(price * 100),
      recordedAt: now,
      recordedBy: caller.personId,
    });
    return saved ? ok({ productId: productId ?? id }) : err(conflict);
  },
});

/** Says how a solution goes with a material; what was said before stays on record. */
export const recordCarePair = defineCommand({
  name: 'recordCarePair',
  right: 'settings',
  input: carePairForm,
  about: (form) => ({ subjectKind: 'careProduct', subjectId: form.productId }),
  run: async ({ tx, caller, now, newId }, form) => {
    const there = await listCareProducts(tx, caller.practiceId);
    if (!there.some((p) => p.productId === form.productId)) return notFound('careProduct');
    await insertCarePair(tx, { ...form, id: newId(), practiceId: caller.practiceId, recordedAt: now, recordedBy: caller.personId });
    return ok(null);
  },
});
