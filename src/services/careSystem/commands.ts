import 'server-only';
import { caredFor, careFindings } from '../../core';
import { listCarePairs } from '../../db/carePair';
import { listCareProducts } from '../../db/careProduct';
import { invalid, notFound, ok, ruleBroken } from '../../lib/outcome';
import { prescribeCareForm } from '../../schema/careSystem';
import { defineCommand } from '../define';
import { lensIdsOf, namedLenses } from '../visit/lenses';
import { lockVisit } from '../visit/lock';
import { readingOf } from '../visit/reading';

/** Names the care system of a wearer, and why this one; what speaks against it needs a prescriber's sentence, or cannot be overridden. */
export const prescribeCare = defineCommand({
  name: 'prescribeCare',
  right: 'sign',
  input: prescribeCareForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx, caller } = context;
    const taken = await lockVisit(context, form, { gate: 'record', touches: [{ what: 'careSystem' }] });
    if (!taken.ok) return taken;
    const product = (await listCareProducts(tx, caller.practiceId)).find((p) => p.productId === form.productId);
    if (!product) return notFound('careProduct');
    const reading = readingOf(context, taken.value.visit);
    const { onEye } = await reading.facts();
    const { prescriptions } = await reading.supply();
    const named = await namedLenses(context, [...lensIdsOf(await reading.facts()), ...prescriptions.flatMap((p) => p.eyes.flatMap((e) => e.lensId ?? []))]);
    const { materials, reusable } = caredFor({ lenses: named.lenses, families: named.ofLenses, onEye, prescriptions });
    if (reusable === false) return ruleBroken('singleUseNeedsNone');
    const findings = careFindings(product, materials, await listCarePairs(tx, caller.practiceId));
    const absolute = findings.find((f) => f.gravity === 'absolute');
    if (absolute) return ruleBroken(absolute.fault, { name: product.name });
    const stops = findings.filter((f) => f.gravity === 'stop').map((f) => f.fault);
    if (stops.length > 0 && (form.overrideNote ?? '').length < 3) return invalid('overrideNote', 'careOverrideRequired');
    taken.value.add('careSystem', null, {
      productId: product.productId,
      careProductId: product.id,
      productName: product.name,
      chosenFor: form.chosenFor,
      note: form.note,
      overridden: stops,
      overrideNote: stops.length > 0 ? form.overrideNote : null,
    });
    return ok(taken.value.done());
  },
});
