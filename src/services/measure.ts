import 'server-only';
import { EYES, secondsBetween, type Eye, type OnEyeFact } from '../core';
import { findFact, listOnEyeExtras } from '../db/facts';
import { listLenses } from '../db/lenses';
import { deleteDraft } from '../db/visits';
import { invalid, notFound, ok, ruleBroken, type Result } from '../lib/outcome';
import { onEyeForm, refractionForm } from '../schema/forms';
import { takeVisit } from './change';
import { defineService, type Context } from './define';

export const recordRefraction = defineService({
  name: 'recordRefraction',
  right: 'clinicalWrite',
  input: refractionForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const taken = await takeVisit(context, form.visitId, form.version, 'measure');
    if (!taken.ok) return taken;
    for (const eye of EYES) {
      const typed = form[eye];
      if (!typed) continue;
      await taken.value.add('refraction', eye, {
        sphereD: typed.power.sphere,
        cylinderD: typed.power.cylinder,
        axisDeg: typed.power.axis,
        vertexMm: form.vertexMm,
        typedText: typed.typed,
        source: 'typed',
        addD: form[`${eye}Add`],
        addSource: form[`${eye}Add`] === null ? null : form.addSource,
        prismText: typed.prism,
      });
    }
    await deleteDraft(context.tx, context.caller.practiceId, form.visitId, 'power', context.caller.personId);
    return ok(taken.value.done());
  },
});

/** The lens a reading hangs on: of this visit and eye, still on it. */
async function lensUnder(
  context: Context,
  visitId: string,
  eye: Eye,
  id: string,
): Promise<Result<{ row: OnEyeFact; confirmed: boolean; settleMinutes: number }>> {
  const { tx, caller } = context;
  const row = await findFact<OnEyeFact>(tx, 'lens_on_eye', caller.practiceId, id);
  if (!row || row.visitId !== visitId || row.eye !== eye || row.rootId !== row.id) return notFound('lensOnEye');
  const extra = (await listOnEyeExtras(tx, caller.practiceId, [visitId])).find((e) => e.lensOnEyeId === id);
  if (extra?.takenOffAt) return ruleBroken('lensTakenOff', { eye });
  const [lens] = row.lensId ? await listLenses(tx, caller.practiceId, [row.lensId]) : [];
  return ok({ row, confirmed: extra?.how !== null && extra !== undefined, settleMinutes: lens?.settleMinutes ?? 15 });
}

export const recordOnEye = defineService({
  name: 'recordOnEye',
  right: 'clinicalWrite',
  input: onEyeForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const taken = await takeVisit(context, form.visitId, form.version, 'measure');
    if (!taken.ok) return taken;
    for (const eye of EYES) {
      const reading = form[eye];
      if (!reading) continue;
      const under = await lensUnder(context, form.visitId, eye, reading.lensOnEyeId);
      if (!under.ok) return under;
      const { row, confirmed, settleMinutes } = under.value;
      const hangs = { lensOnEyeId: row.id };
      const provisional = secondsBetween(row.putOnAt, context.now) < settleMinutes * 60;
      if (reading.fit !== null) await taken.value.add('fit', eye, { ...hangs, verdict: reading.fit });
      if (reading.rotationLeft !== null) {
        await taken.value.add('rotation', eye, { ...hangs, rotationLeftDeg: reading.rotationLeft, how: reading.rotationHow, provisional });
      }
      if (reading.overRefraction !== null) {
        // The database refuses it too: an over-refraction belongs to a lens somebody vouches for.
        if (!confirmed) return invalid([eye, 'overRefraction'], 'lensUnconfirmed');
        const { typed, power } = reading.overRefraction;
        await taken.value.add('overRefraction', eye, {
          ...hangs,
          sphereD: power.sphere,
          cylinderD: power.cylinder,
          axisDeg: power.axis,
          vertexMm: reading.vertexMm,
          typedText: typed,
          acuityLogMar: null,
          acuityTyped: null,
          provisional,
        });
      }
    }
    await deleteDraft(context.tx, context.caller.practiceId, form.visitId, 'onEye', context.caller.personId);
    return ok(taken.value.done());
  },
});
