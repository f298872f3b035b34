import 'server-only';
import { Temporal } from 'temporal-polyfill';
import { deleteDraft, findOpenVisitOf, findVisit, insertVisit, listToday, putDraft, setAppointmentState, setVisitClosed, type TodayRow } from '../db/visits';
import { findWearer } from '../db/wearers';
import { err, notFound, ok } from '../lib/outcome';
import { closeVisitForm, draftForm, emptyForm, openVisitForm, visitForm } from '../schema/wearerForms';
import { takeVisit } from './change';
import { defineService } from './define';
import { houseOf, readVisitRecord, type House } from './visitRecord';

export const readToday = defineService({
  name: 'readToday',
  right: 'read',
  input: emptyForm,
  about: () => null,
  run: async (context): Promise<{ ok: true; value: { house: House; rows: TodayRow[] } }> => {
    const start = Temporal.PlainDate.from(context.today).toZonedDateTime(context.practice.timeZone);
    const from = start.toInstant().toString();
    const to = start.add({ days: 1 }).toInstant().toString();
    return ok({ house: await houseOf(context), rows: await listToday(context.tx, context.caller.practiceId, from, to) });
  },
});

export const openVisit = defineService({
  name: 'openVisit',
  right: 'clinicalWrite',
  input: openVisitForm,
  about: (_form, out: { visitId: string }) => ({ subjectKind: 'visit', subjectId: out.visitId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const wearer = await findWearer(tx, caller.practiceId, form.wearerId);
    if (!wearer) return notFound('wearer');
    if (form.appointmentId !== null) {
      const arrived = await setAppointmentState(tx, caller.practiceId, form.appointmentId, form.wearerId, 'arrived');
      if (!arrived) return notFound('appointment');
    }
    const id = context.newId();
    const made = await insertVisit(tx, {
      id,
      practiceId: caller.practiceId,
      wearerId: form.wearerId,
      kind: form.kind,
      appointmentId: form.appointmentId,
      at: now,
      by: caller.personId,
    });
    if (made) return ok({ visitId: id });
    // Somebody opened this appointment's visit already: that one goes on.
    const open = form.appointmentId === null ? null : await findOpenVisitOf(tx, caller.practiceId, form.appointmentId);
    return open ? ok({ visitId: open }) : err({ kind: 'conflict', what: 'visit', differs: [] });
  },
});

export const closeVisit = defineService({
  name: 'closeVisit',
  right: 'clinicalWrite',
  input: closeVisitForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const taken = await takeVisit(context, form.visitId, form.version, 'record');
    if (!taken.ok) return taken;
    await setVisitClosed(context.tx, context.caller.practiceId, form.visitId, context.now);
    return ok(taken.value.done());
  },
});

export const readVisit = defineService({
  name: 'readVisit',
  right: 'read',
  input: visitForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const visit = await findVisit(context.tx, context.caller.practiceId, form.visitId);
    return visit ? ok(await readVisitRecord(context, visit)) : notFound('visit');
  },
});

/** Unfinished typing, kept apart from facts; an empty body lets it go. */
export const saveDraft = defineService({
  name: 'saveDraft',
  right: 'wearers',
  audited: false,
  input: draftForm,
  about: () => null,
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const visit = await findVisit(tx, caller.practiceId, form.visitId);
    if (!visit) return notFound('visit');
    if (Object.keys(form.body).length === 0) await deleteDraft(tx, caller.practiceId, form.visitId, form.step, caller.personId);
    else {
      const kept = await putDraft(tx, {
        practiceId: caller.practiceId,
        visitId: form.visitId,
        step: form.step,
        authorId: caller.personId,
        body: form.body,
        sequence: form.sequence,
        at: now,
      });
      // Typed later in another tab: this older text does not stand in for it, and is not called saved.
      if (!kept) return err({ kind: 'conflict', what: 'draft', differs: [] });
    }
    return ok({ savedAt: now });
  },
});
