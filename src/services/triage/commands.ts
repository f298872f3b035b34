import 'server-only';
import { addDays, triage, type Urgency } from '../../core';
import { insertAppointment } from '../../db/appointment';
import { insertAnswers } from '../../db/history';
import { insertVisit, setVisitClosed } from '../../db/visit';
import { findWearer } from '../../db/wearer';
import { must } from '../../lib/assert';
import { invalid, notFound, ok, ruleBroken, type Result } from '../../lib/outcome';
import { triageForm } from '../../schema/triage';
import { takePlace } from '../appointment/place';
import { clockOf } from '../appointment/moments';
import { defineCommand, type Context } from '../define';
import { openAbsoluteStops } from '../stop/openAbsoluteStops';
import { callNextDay } from '../task/redEye';
import { decideVisit } from '../visit/kindAndFee';
import { lockVisit } from '../visit/lock';
import { metaOf } from '../visit/meta';

/** Minutes that a red eye is given: it is looked at before anything is weighed. Our own choice. */
const MINUTES = { chairMinutes: 30, staffMinutes: 30 } as const;

interface Triaged {
  readonly visitId: string;
  readonly appointmentId: string | null;
  readonly urgency: Urgency;
}

/** A place today, over whatever is there: nobody with a danger sign waits for a free one. */
async function bookToday(context: Context, wearerId: string, time: number): Promise<Result<string>> {
  const { tx, caller, now, today } = context;
  const place = { day: today, time, ...MINUTES, roomId: null, staffId: null, despite: 'redEye' };
  if (time < clockOf(now, context.practice.timeZone).minute) return invalid('time', 'timePast');
  const slot = await takePlace(context, { wearerId }, place);
  if (!slot.ok) return slot;
  const id = context.newId();
  await insertAppointment(
    tx,
    { ...slot.value, id, practiceId: caller.practiceId, wearerId, kind: 'redEye', note: null },
    { reason: null, at: now, by: caller.personId },
  );
  return ok(id);
}

/**
 * Danger signs reported on the telephone or at the desk, by whoever answers: the alert is raised, the wearer is booked today or was
 * sent to emergency eye care, somebody calls tomorrow. Nothing is ordered while the alert stands.
 */
export const triageRedEye = defineCommand({
  name: 'triageRedEye',
  right: 'wearers',
  input: triageForm,
  about: (_form, out: Triaged) => ({ subjectKind: 'visit', subjectId: out.visitId }),
  run: async (context, form): Promise<Result<Triaged>> => {
    const { tx, caller, now, practice } = context;
    if (!(await findWearer(tx, caller.practiceId, form.wearerId))) return notFound('wearer');
    if (form.goes === 'emergency' && !practice.emergencyTelephone?.trim()) return ruleBroken('noEmergencyNumber');
    let appointmentId: string | null = null;
    if (form.goes === 'here') {
      const booked = await bookToday(context, form.wearerId, must(form.time, 'time'));
      if (!booked.ok) return booked;
      appointmentId = booked.value;
    }
    // What was said is kept as a visit of its own: it is over when the telephone is put down.
    const visitId = context.newId();
    const { wearerId } = form;
    await insertVisit(tx, { id: visitId, practiceId: caller.practiceId, wearerId, kind: 'redEye', appointmentId: null, at: now, by: caller.personId });
    await decideVisit(context, { visitId, wearerId, kind: 'redEye' }, 0);
    const taken = await lockVisit(context, { visitId, version: 1 }, { gate: 'record' });
    if (!taken.ok) return taken;
    const said = [
      { id: context.newId(), question: 'danger', value: form.signs, note: null },
      ...(form.onset === null ? [] : [{ id: context.newId(), question: 'onset', value: form.onset, note: null }]),
    ];
    await insertAnswers(tx, metaOf(context, taken.value), said);
    taken.value.changed('health');
    await openAbsoluteStops(context, taken.value);
    await setVisitClosed(tx, caller.practiceId, visitId, now);
    await callNextDay(context, wearerId, addDays(context.today, 1));
    return ok({ visitId, appointmentId, urgency: triage(form.signs).urgency });
  },
});
