import 'server-only';
import { addSeconds, EYES, expiryState, mayGoOn, readinessOf, secondsBetween, type Eye, type SetLens } from '../../core';
import { endDiagnosticLens, insertDiagnosticLenses, insertDisinfections, listDiagnosticLenses, lockDiagnosticLenses } from '../../db/diagnosticLens';
import { must } from '../../lib/assert';
import { invalid, notFound, ok, ruleBroken, type Result } from '../../lib/outcome';
import { addSetLensesForm, disinfectForm, endSetLensForm, putOnSetLensesForm } from '../../schema/diagnosticSet';
import { defineCommand, type Context } from '../define';
import { lensesToPutOn } from '../lensOnEye/commands';
import { makeableLenses } from '../lensOnEye/makeableLens';
import { confirm, takeOffOthers } from '../lensOnEye/onOff';
import { lockVisit, touching } from '../visit/lock';
import { readingOf } from '../visit/reading';

/** Lenses of sets, locked and as they stand. */
async function lockedLenses({ tx, caller, today }: Context, ids: readonly string[]): Promise<Result<readonly SetLens[]>> {
  await lockDiagnosticLenses(tx, caller.practiceId, ids);
  const all = await listDiagnosticLenses(tx, caller.practiceId, today);
  const found = ids.map((id) => all.find((l) => l.id === id));
  return found.every((l) => l !== undefined) ? ok(found) : notFound('diagnosticLens');
}

export const addSetLenses = defineCommand({
  name: 'addSetLenses',
  right: 'stock',
  input: addSetLensesForm,
  about: (form) => ({ subjectKind: 'family', subjectId: form.familyId }),
  run: async (context, form) => {
    const { tx, caller, now, today, newId } = context;
    const old = form.lenses.findIndex((l) => expiryState(l.expiresOn, today) === 'expired');
    if (old >= 0) return invalid(['lenses', String(old), 'expiresOn'], 'setLensExpired', { expired: form.lenses[old]?.expiresOn ?? '' });
    const asked = form.lenses.map(({ lens }, i) => ({ path: ['lenses', String(i), 'lens'], spec: { ...lens, familyId: form.familyId } }));
    const made = await makeableLenses(context, asked, { evenEnded: true });
    if (!made.ok) return made;
    const family = must(made.value[0], 'lens').family;
    // Without its instructions nobody could ever say that a lens is ready.
    if (!family.reusableTrial || family.disinfectWith === null) return ruleBroken('notASet', { family: family.name });
    const lenses = form.lenses.map(({ number, expiresOn }, i) => ({
      id: newId(),
      lensId: must(made.value[i], 'lens').lensId,
      setCode: family.code,
      number,
      expiresOn,
    }));
    const [had] = await insertDiagnosticLenses(tx, caller.practiceId, lenses, { at: now, by: caller.personId });
    const at = form.lenses.findIndex((l) => l.number === had);
    return had === undefined ? ok(null) : invalid(['lenses', String(at), 'number'], 'setNumberTaken', { number: had, set: family.name });
  },
});

export const disinfectLenses = defineCommand({
  name: 'disinfectLenses',
  right: 'stock',
  input: disinfectForm,
  about: (form) => ({ subjectKind: 'diagnosticLens', subjectId: form.diagnosticLensIds[0] ?? '' }),
  run: async (context, form) => {
    const { tx, caller, now, newId } = context;
    const locked = await lockedLenses(context, [...new Set(form.diagnosticLensIds)]);
    if (!locked.ok) return locked;
    for (const lens of locked.value) {
      const { state } = readinessOf(lens, now);
      const data = { number: lens.number, set: lens.setName };
      if (state === 'onEye') return ruleBroken('setLensOnEye', data);
      if (state === 'ended') return ruleBroken('setLensEnded', data);
      if (lens.disinfectWith === null || lens.disinfectMinutes === null) return ruleBroken('setWithoutInstructions', data);
    }
    const done = locked.value.map((l) => ({
      id: newId(),
      diagnosticLensId: l.id,
      disinfectedWith: must(l.disinfectWith, 'instructions'),
      endsAt: addSeconds(now, must(l.disinfectMinutes, 'instructions') * 60),
    }));
    await insertDisinfections(tx, caller.practiceId, done, { at: now, by: caller.personId });
    return ok(null);
  },
});

export const endSetLens = defineCommand({
  name: 'endSetLens',
  right: 'stock',
  input: endSetLensForm,
  about: (form) => ({ subjectKind: 'diagnosticLens', subjectId: form.diagnosticLensId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const locked = await lockedLenses(context, [form.diagnosticLensId]);
    if (!locked.ok) return locked;
    const [lens] = locked.value;
    const done = await endDiagnosticLens(tx, caller.practiceId, { id: form.diagnosticLensId, why: form.why }, { at: now, by: caller.personId });
    return done ? ok(null) : ruleBroken('setLensEnded', { number: lens?.number ?? '', set: lens?.setName ?? '' });
  },
});

/** Why a lens of a set must not go on an eye now; null where it may. Nobody passes this: it waits until it is disinfected. */
function notReady(lens: SetLens, eye: Eye, { now, today }: Context): Result<never> | null {
  const ready = readinessOf(lens, now);
  const minutes = ready.until === null ? (lens.disinfectMinutes ?? 0) : Math.ceil(secondsBetween(now, ready.until) / 60);
  const data = { number: lens.number, set: lens.setName, minutes };
  if (!mayGoOn(ready)) return invalid([eye], `setLens_${ready.state}`, data);
  return expiryState(lens.expiresOn, today) === 'expired' ? invalid([eye], 'setLensExpired', { ...data, expired: lens.expiresOn }) : null;
}

/** A lens of a set as the forms name one; the version of its family that is in force is found by any of its versions. */
const specOfLens = (lens: SetLens) => ({
  familyId: lens.familyVersionId,
  sphere: lens.sphereD,
  cylinder: lens.cylinderD,
  axis: lens.axisDeg,
  add: lens.addBand,
  baseCurve: must(lens.baseCurveMm, 'curve'),
  diameter: must(lens.diameterMm, 'diameter'),
});

export const putOnSetLenses = defineCommand({
  name: 'putOnSetLenses',
  right: 'clinicalWrite',
  input: putOnSetLensesForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { now } = context;
    const eyes = EYES.filter((eye) => form[eye] !== null);
    const locked = await lockVisit(context, form, { touches: touching(['lensOnEye', 'choice'], eyes) });
    if (!locked.ok) return locked;
    const taken = locked.value;
    const found = await lockedLenses(
      context,
      eyes.map((eye) => must(form[eye], 'lens')),
    );
    if (!found.ok) return found;
    const lenses = eyes.map((eye, i) => ({ eye, lens: must(found.value[i], 'lens') }));
    for (const { eye, lens } of lenses) {
      const held = notReady(lens, eye, context);
      if (held) return held;
    }
    // Judged as any lens that goes on: nights, oxygen, what failed before.
    const specOf = (eye: Eye) => {
      const lens = lenses.find((l) => l.eye === eye)?.lens;
      return lens ? { ...specOfLens(lens), inHand: null } : null;
    };
    const judged = await lensesToPutOn(context, taken, { ...form, right: specOf('right'), left: specOf('left') });
    if (!judged.ok) return judged;
    const facts = await readingOf(context, taken.visit).facts();
    for (const { eye, lens } of lenses) {
      const earlier = takeOffOthers(context, taken, facts, eye);
      const values = {
        ...{ lensId: lens.lensId, description: null, source: 'trial', trialStockId: null, diagnosticLensId: lens.id, lot: null },
        ...{ trialNumber: earlier.filter((e) => e.source === 'trial').length + 1, expiresOn: lens.expiresOn, putOnAt: now },
      };
      confirm(context, taken, taken.add('lensOnEye', eye, values), 'putOnHere');
    }
    taken.forgetDraft('lens');
    taken.changed('measures', 'drawer');
    return ok(taken.done());
  },
});
