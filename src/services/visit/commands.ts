import 'server-only';
import { changeAppointment, lockAppointment, lockAppointmentOfVisit } from '../../db/appointment';
import { deleteDraft, putDraft } from '../../db/draft';
import { findOpenVisitOf, findVisit, insertVisit, setVisitClosed } from '../../db/visit';
import { findWearer } from '../../db/wearer';
import { mayOpenVisit } from '../../core';
import { err, forbidden, notFound, ok, ruleBroken } from '../../lib/outcome';
import { closeVisitForm, draftForm, openVisitForm } from '../../schema/visit';
import { clockOf } from '../appointment/moments';
import { defineCommand } from '../define';
import { decideVisit } from './kindAndFee';
import { lockVisit } from './lock';

export const openVisit = defineCommand({
  name: 'openVisit',
  right: 'handOver',
  input: openVisitForm,
  about: (_form, out: { visitId: string }) => ({ subjectKind: 'visit', subjectId: out.visitId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    if (!mayOpenVisit(caller.roles, form.kind)) return forbidden('clinicalWrite');
    const wearer = await findWearer(tx, caller.practiceId, form.wearerId);
    if (!wearer) return notFound('wearer');
    if (form.appointmentId !== null) {
      const appointment = await lockAppointment(tx, caller.practiceId, form.appointmentId);
      if (appointment?.wearerId !== form.wearerId) return notFound('appointment');
      if (clockOf(appointment.startsAt, context.practice.timeZone).day > context.today) return ruleBroken('notToday');
      // Whose visit begins is here, whether or not somebody said so before.
      if (appointment.state !== 'arrived') {
        await changeAppointment(tx, { ...appointment, state: 'arrived' }, { kind: 'arrived', reason: null, at: now, by: caller.personId });
      }
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
    if (made) {
      await decideVisit(context, { visitId: id, wearerId: form.wearerId, kind: form.kind }, form.fee);
      return ok({ visitId: id });
    }
    // Somebody opened this appointment's visit already: that one goes on.
    const open = form.appointmentId === null ? null : await findOpenVisitOf(tx, caller.practiceId, form.appointmentId);
    return open ? ok({ visitId: open }) : err({ kind: 'conflict', what: 'visit', differs: [] });
  },
});

export const closeVisit = defineCommand({
  name: 'closeVisit',
  right: 'handOver',
  input: closeVisitForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const taken = await lockVisit(context, form, { gate: 'record' });
    if (!taken.ok) return taken;
    if (!mayOpenVisit(caller.roles, taken.value.visit.kind)) return forbidden('clinicalWrite');
    context.answer.visit = await setVisitClosed(tx, caller.practiceId, form.visitId, now);
    const appointment = await lockAppointmentOfVisit(tx, caller.practiceId, form.visitId);
    if (appointment) await changeAppointment(tx, { ...appointment, state: 'done' }, { kind: 'done', reason: null, at: now, by: caller.personId });
    // Closed, it counts what was recorded before it, and nothing that lies beside it.
    taken.value.changed('health', 'supply', 'measures');
    return ok(taken.value.done());
  },
});

/** Unfinished typing, kept apart from facts; an empty body lets it go. */
export const saveDraft = defineCommand({
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
