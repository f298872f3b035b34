import 'server-only';
import { findRecall, listRecalled } from '../../db/lotRecall';
import { findMessage, insertContact, markMessage as mark, newestContact } from '../../db/outbox';
import { findWearer } from '../../db/wearer';
import { isRecallDone } from '../../core';
import { listRunways } from '../../db/eyeRunway';
import { invalid, notFound, ok, ruleBroken, type Result } from '../../lib/outcome';
import { contactForm, markMessageForm, recallMessagesForm, writeReminderForm } from '../../schema/outbox';
import { defineCommand } from '../define';
import { tellWearer } from './write';

/** How a wearer wants to be written to, as they said; appended. */
export const chooseContact = defineCommand({
  name: 'chooseContact',
  right: 'wearers',
  input: contactForm,
  about: (form) => ({ subjectKind: 'wearer', subjectId: form.wearerId }),
  run: async ({ tx, caller, now, newId }, form): Promise<Result<null>> => {
    if (!(await findWearer(tx, caller.practiceId, form.wearerId))) return notFound('wearer');
    await insertContact(tx, { id: newId(), practiceId: caller.practiceId, ...form, chosenAt: now, recordedBy: caller.personId });
    return ok(null);
  },
});

/** A message was sent by hand, or is not to be sent. */
export const markMessage = defineCommand({
  name: 'markMessage',
  right: 'orders',
  input: markMessageForm,
  about: (form) => ({ subjectKind: 'message', subjectId: form.messageId }),
  run: async ({ tx, caller, now }, form): Promise<Result<null>> => {
    const message = await findMessage(tx, caller.practiceId, form.messageId);
    if (!message) return notFound('message');
    // Written while it was still agreed to; it no longer is.
    const [contact] = await newestContact(tx, caller.practiceId, message.wearerId);
    if (form.sent && contact?.way === 'none') return ruleBroken('contactRefused');
    if (form.sent && message.dueAt > now) return ruleBroken('quietHours', { from: message.dueAt });
    const done = await mark(tx, caller.practiceId, form.messageId, { outcome: form.sent ? 'sent' : 'notSent', at: now, by: caller.personId });
    return done ? ok(null) : ruleBroken('messageDone');
  },
});

/** Writes a wearer that their lenses run low. */
export const writeReminder = defineCommand({
  name: 'writeReminder',
  right: 'orders',
  input: writeReminderForm,
  about: (form) => ({ subjectKind: 'wearer', subjectId: form.wearerId }),
  run: async (context, form): Promise<Result<null>> => {
    const { tx, caller } = context;
    if (!(await findWearer(tx, caller.practiceId, form.wearerId))) return notFound('wearer');
    const rows = await listRunways(tx, caller.practiceId, form.wearerId);
    const runOut = rows.map((r) => r.runOut).sort()[0];
    if (runOut === undefined) return invalid('wearerId', 'nothingRunsOut');
    const [contact] = await newestContact(tx, caller.practiceId, form.wearerId);
    if (!contact || contact.way === 'none') return invalid('wearerId', 'contactUnknown');
    const written = await tellWearer(context, form.wearerId, { kind: 'reorderDue', runOut, eyes: rows.map((r) => r.eye) }, `${form.wearerId} runOut ${runOut}`);
    return written ? ok(null) : ruleBroken('messageWritten');
  },
});

/** Writes to everybody who had lenses of a recalled lot and is not done with. */
export const writeRecallMessages = defineCommand({
  name: 'writeRecallMessages',
  right: 'handOver',
  input: recallMessagesForm,
  about: (form) => ({ subjectKind: 'lotRecall', subjectId: form.recallId }),
  run: async (context, { recallId }): Promise<Result<{ readonly written: number; readonly without: number }>> => {
    const { tx, caller } = context;
    const recall = await findRecall(tx, caller.practiceId, recallId);
    if (!recall) return notFound('lotRecall');
    if (recall.liftedAt !== null) return ruleBroken('recallLifted');
    let [written, without] = [0, 0];
    for (const wearer of await listRecalled(tx, caller.practiceId, recall)) {
      if (isRecallDone(wearer.outcome)) continue;
      const done = await tellWearer(context, wearer.wearerId, { kind: 'lotRecalled', lot: recall.lot }, `${wearer.wearerId} ${recall.id}`);
      if (done) written += 1;
      else without += 1;
    }
    return ok({ written, without });
  },
});
