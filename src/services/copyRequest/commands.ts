import 'server-only';
import { findCopyRequest, insertCopyRequest, insertCopyRequestEnd } from '../../db/copyRequest';
import { findPrescription } from '../../db/prescription';
import { findWearer } from '../../db/wearer';
import { err, invalid, notFound, ok, type Result } from '../../lib/outcome';
import { copyRequestForm, endCopyRequestForm } from '../../schema/copyRequest';
import { momentOf } from '../appointment/moments';
import { defineCommand } from '../define';
import { deadlines } from '../request/deadlines';

/** Somebody who acts for a wearer asks for a copy: its clock runs from when it came. */
export const recordCopyRequest = defineCommand({
  name: 'recordCopyRequest',
  right: 'wearers',
  input: copyRequestForm,
  about: (form) => ({ subjectKind: 'wearer', subjectId: form.wearerId }),
  run: async (context, form): Promise<Result<{ readonly copyRequestId: string }>> => {
    const { tx, caller, now, practice, settings } = context;
    const { practiceId } = caller;
    if (!(await findWearer(tx, practiceId, form.wearerId))) return notFound('wearer');
    const receivedAt = momentOf(form.receivedOn, form.receivedTime, practice.timeZone);
    if (receivedAt > now) return invalid('receivedTime', 'receivedInFuture');
    const { profile, earliestAt } = await deadlines(tx, { practiceId, timeZone: practice.timeZone, settings }, 'agentHours', receivedAt, form.receivedOn);
    const id = context.newId();
    const { wearerId, agentName, agentContact } = form;
    const of = { wearerId, agentName, agentContact, receivedAt, profile, dueAt: earliestAt };
    await insertCopyRequest(tx, { id, practiceId, ...of, recordedAt: now, recordedBy: caller.personId });
    return ok({ copyRequestId: id });
  },
});

/** A person sent it, or says why not. */
export const endCopyRequest = defineCommand({
  name: 'endCopyRequest',
  right: 'wearers',
  input: endCopyRequestForm,
  about: (form) => ({ subjectKind: 'copyRequest', subjectId: form.copyRequestId }),
  run: async ({ tx, caller, now, today }, form): Promise<Result<null>> => {
    const { practiceId } = caller;
    const request = await findCopyRequest(tx, practiceId, form.copyRequestId);
    if (!request) return notFound('copyRequest');
    if (form.prescriptionId !== null) {
      const signed = await findPrescription(tx, practiceId, form.prescriptionId);
      if (signed?.wearerId !== request.wearerId) return notFound('prescription');
      if (form.how === 'sent' && signed.expiresOn < today) return invalid('prescriptionId', 'copyExpired', { day: signed.expiresOn });
    }
    const { copyRequestId, how, prescriptionId, reason } = form;
    const made = await insertCopyRequestEnd(tx, { copyRequestId, practiceId, how, prescriptionId, reason, endedAt: now, endedBy: caller.personId });
    return made ? ok(null) : err({ kind: 'conflict', what: 'copyRequest', differs: [] });
  },
});
