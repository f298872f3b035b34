import 'server-only';
import { addDays } from '../../core';
import { insertReferral, insertReferralStep, listReferrals } from '../../db/referral';
import { listStops } from '../../db/stop';
import { notFound, ok, ruleBroken } from '../../lib/outcome';
import { referralForm, referralStepForm } from '../../schema/referral';
import { defineCommand } from '../define';
import { callNextDay, calledNextDay } from '../task/redEye';
import { lockVisit } from '../visit/lock';
import { metaOf } from '../visit/meta';

export const openReferral = defineCommand({
  name: 'openReferral',
  right: 'clinicalWrite',
  input: referralForm,
  about: (form) => ({ subjectKind: 'safetyStop', subjectId: form.stopId }),
  run: async (context, form) => {
    const { tx, caller, practice, settings } = context;
    const taken = await lockVisit(context, form, { gate: 'record' });
    if (!taken.ok) return taken;
    const stop = (await listStops(tx, caller.practiceId, taken.value.visit.wearerId)).find((s) => s.id === form.stopId);
    if (!stop) return notFound('stop');
    if (stop.endedAt !== null) return ruleBroken('stopEnded');
    const telephone = settings.referralTelephone.trim() || practice.emergencyTelephone?.trim() || '';
    if (telephone === '') return ruleBroken('noEmergencyNumber');
    taken.value.changed('health');
    const opened = await insertReferral(tx, metaOf(context, taken.value), { stopId: stop.id, addressedTo: settings.referralTo.trim(), telephone });
    if (!opened) return ruleBroken('referralOpen');
    await callNextDay(context, taken.value.visit.wearerId, addDays(context.today, 1));
    return ok(taken.value.done());
  },
});

export const recordReferralStep = defineCommand({
  name: 'recordReferralStep',
  right: 'clinicalWrite',
  input: referralStepForm,
  about: (form) => ({ subjectKind: 'referral', subjectId: form.referralId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const taken = await lockVisit(context, form, { gate: 'record' });
    if (!taken.ok) return taken;
    const { visit } = taken.value;
    const referral = (await listReferrals(tx, caller.practiceId, visit.wearerId)).find((r) => r.id === form.referralId);
    if (!referral) return notFound('referral');
    taken.value.changed('health');
    await insertReferralStep(tx, { referralId: referral.id, practiceId: caller.practiceId, step: form.step, at: now, by: caller.personId });
    if (form.step === 'calledNextDay') await calledNextDay(context, visit.wearerId);
    return ok(taken.value.done());
  },
});
