import 'server-only';
import { dayIn, EYES, keepsLensesOff, openEvent, provenance, returnMissing, RULE_VERSION } from '../../core';
import { listCareProducts } from '../../db/careProduct';
import { err, invalid, notFound, ok, ruleBroken } from '../../lib/outcome';
import { adverseEventForm, aftercareAnswersForm, endAftercareForm, returnToWearForm } from '../../schema/aftercare';
import { bookNext, coming } from '../appointment/bookNext';
import { defineCommand } from '../define';
import { lockVisit } from '../visit/lock';
import { provenanceOf } from '../visit/provenance';
import { readingOf } from '../visit/reading';
import { aftercareNow, pointedNow } from './state';

const about = (form: { readonly visitId: string }) => ({ subjectKind: 'visit', subjectId: form.visitId });

export const answerAftercare = defineCommand({
  name: 'answerAftercare',
  right: 'clinicalWrite',
  input: aftercareAnswersForm,
  about,
  run: async (context, form) => {
    const taken = await lockVisit(context, form, { gate: 'record', touches: [{ what: 'aftercareAnswer' }] });
    if (!taken.ok) return taken;
    for (const [place, a] of form.answers.entries()) {
      const product = a.question === 'solutionUsed' && a.said[0]?.includes('-') ? a.said[0] : null;
      if (product !== null && !(await listCareProducts(context.tx, context.caller.practiceId)).some((p) => p.productId === product))
        return invalid(['answers', String(place), 'said'], 'solutionUnknown');
      if (a.question === 'firstNight' && (a.said[0] ?? '') > context.today) return invalid(['answers', String(place), 'said'], 'dayAhead');
      taken.value.add('aftercareAnswer', a.eye, { question: a.question, said: a.said });
    }
    return ok(taken.value.done());
  },
});

/** How aftercare ends: these lenses go on, something changes, or lens wear stops; and when the wearer is seen next. */
export const endAftercare = defineCommand({
  name: 'endAftercare',
  right: 'clinicalWrite',
  input: endAftercareForm,
  about,
  run: async (context, form) => {
    const taken = await lockVisit(context, form, { gate: 'record' });
    if (!taken.ok) return taken;
    const reading = readingOf(context, taken.value.visit);
    const now = await aftercareNow(context, reading);
    if (form.outcome === 'keep') {
      const state = await reading.state();
      if (state.absolute.length > 0) return ruleBroken('absoluteStop');
      const { adverseEvents, returns } = await reading.health();
      if (EYES.some((eye) => openEvent(adverseEvents, returns, eye))) return ruleBroken('lensesOffNow');
      // Lenses go on as they are only where they were looked at; a prescriber may say why not.
      if (now.open.length > 0 && !context.caller.roles.includes('prescriber')) return ruleBroken('aftercareOpen');
      if (now.open.length > 0 && (form.note ?? '').length < 3) return invalid('note', 'aftercareOpen', { count: now.open.length });
    } else if ((form.note ?? '').length < 3) return invalid('note', 'sayWhatChanges');
    const booked = await bookNext(context, taken.value.visit.wearerId, form.next, form.unbookedReason, form.outcome !== 'stop');
    if (!booked.ok) return booked;
    taken.value.add('aftercareEnd', null, {
      outcome: form.outcome,
      note: form.note,
      pointedTo: pointedNow(now),
      ruleVersion: RULE_VERSION,
      appointmentId: booked.value,
      unbookedReason: booked.value === null ? form.unbookedReason : null,
    });
    taken.value.forgetDraft('aftercare');
    return ok(taken.value.done());
  },
});

export const recordAdverseEvent = defineCommand({
  name: 'recordAdverseEvent',
  right: 'clinicalWrite',
  input: adverseEventForm,
  about,
  run: async (context, form) => {
    const taken = await lockVisit(context, form, { gate: 'record', touches: [{ what: 'adverseEvent', eye: form.eye }] });
    if (!taken.ok) return taken;
    if (form.beganOn > context.today) return invalid('beganOn', 'dayAhead');
    const reading = readingOf(context, taken.value.visit);
    // The lens on the eye, or the one that counts as worn: whoever asks later finds its lot.
    const on = (await reading.facts()).onEye.findLast((c) => c.current?.eye === form.eye)?.current ?? null;
    const { worn } = provenance(await provenanceOf(reading), form.eye);
    const lens = on && on.source !== 'trial' ? { lensId: on.lensId, lot: on.lot } : { lensId: worn?.lensId ?? on?.lensId ?? null, lot: worn?.lot ?? null };
    taken.value.add('adverseEvent', form.eye, {
      event: form.event,
      lensId: lens.lensId,
      lot: form.lot ?? lens.lot,
      beganOn: form.beganOn,
      lensesOff: keepsLensesOff(form.event),
      note: form.note,
    });
    taken.value.forgetDraft('aftercare');
    return ok(taken.value.done());
  },
});

/** A prescriber lets an eye wear lenses again: only with all of what it takes. */
export const returnToWear = defineCommand({
  name: 'returnToWear',
  right: 'sign',
  input: returnToWearForm,
  about,
  run: async (context, form) => {
    const taken = await lockVisit(context, form, { gate: 'record' });
    if (!taken.ok) return taken;
    const reading = readingOf(context, taken.value.visit);
    const { adverseEvents, returns } = await reading.health();
    const open = openEvent(adverseEvents, returns, form.eye);
    if (!open) return notFound('adverseEvent');
    if (open.rootId !== form.adverseEventId) return err({ kind: 'conflict', what: 'adverseEvent', differs: [] });
    const state = await reading.state();
    const [next] = await coming(context, taken.value.visit.wearerId);
    const seenOn = next === undefined ? null : dayIn(next.startsAt, context.practice.timeZone);
    const { newLens, newCase, dropsOff } = form;
    const missing = returnMissing({
      ...{ newLens, newCase, dropsOff, seenOn, today: context.today },
      stopped: state.absolute.length > 0,
      staining: state.today[form.eye].staining,
    });
    const [first] = missing;
    if (first !== undefined || seenOn === null) return invalid(first ?? 'aftercareBooked', 'returnMissing', { what: first ?? 'aftercareBooked' });
    taken.value.add('returnToWear', form.eye, { adverseEventId: open.rootId, newLens, newCase, dropsOff, aftercareOn: seenOn });
    return ok(taken.value.done());
  },
});
