import 'server-only';
import { feeOf, mayOpenVisit, proposalOf, proposeVisit, type VisitKind } from '../../core';
import { insertExaminedElsewhere, newestVisitOf } from '../../db/examined';
import { insertVisitDecision, setVisitKind } from '../../db/visitDecision';
import { findWearer } from '../../db/wearer';
import { must } from '../../lib/assert';
import { forbidden, invalid, notFound, ok } from '../../lib/outcome';
import { changeVisitForm, examinedForm } from '../../schema/visit';
import { defineCommand, type Context } from '../define';
import { readWearerFile } from '../wearer/file';
import { lockVisit } from './lock';

/** Keeps what somebody decided that a visit is and costs, beside what was proposed for this wearer. @param fee null: as the settings say */
export async function decideVisit(
  context: Context,
  visit: { readonly visitId: string; readonly wearerId: string; readonly kind: VisitKind },
  fee: number | null,
): Promise<void> {
  const { tx, caller, now, today, settings, practice } = context;
  const file = must(await readWearerFile(context, visit.wearerId, null), 'wearer');
  // This visit is what is decided on: it is no reason for itself.
  const others = await newestVisitOf(tx, caller.practiceId, visit.wearerId, visit.visitId);
  const newestOf = Object.fromEntries(others.map((v) => [v.kind, v.openedAt]));
  const proposed = proposeVisit(proposalOf({ ...file, newestOf }, today, practice.timeZone), settings.examinedMonths);
  await insertVisitDecision(tx, {
    id: context.newId(),
    practiceId: caller.practiceId,
    visitId: visit.visitId,
    kind: visit.kind,
    fee: fee ?? feeOf(visit.kind, settings),
    proposedKind: proposed.kind,
    proposedFee: feeOf(proposed.kind, settings),
    because: proposed.because,
    decidedAt: now,
    decidedBy: caller.personId,
  });
}

/** A visit becomes one of another kind, or costs something else; what was recorded in it stays. */
export const changeVisit = defineCommand({
  name: 'changeVisit',
  right: 'handOver',
  input: changeVisitForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const taken = await lockVisit(context, form, { gate: 'record' });
    if (!taken.ok) return taken;
    const { visit } = taken.value;
    const { roles } = context.caller;
    if (!mayOpenVisit(roles, visit.kind) || !mayOpenVisit(roles, form.kind)) return forbidden('clinicalWrite');
    await decideVisit(context, { visitId: visit.id, wearerId: visit.wearerId, kind: form.kind }, form.fee);
    await setVisitKind(context.tx, context.caller.practiceId, visit.id, form.kind);
    context.answer.visit = { ...visit, kind: form.kind };
    taken.value.changed('health', 'supply');
    return ok(taken.value.done());
  },
});

/** A full examination somewhere else, as the wearer or a letter says. */
export const recordExamined = defineCommand({
  name: 'recordExamined',
  right: 'handOver',
  input: examinedForm,
  about: (form) => ({ subjectKind: 'wearer', subjectId: form.wearerId }),
  run: async ({ tx, caller, now, today, newId }, form) => {
    const wearer = await findWearer(tx, caller.practiceId, form.wearerId);
    if (!wearer) return notFound('wearer');
    if (form.examinedOn > today) return invalid('examinedOn', 'dayInFuture', { day: form.examinedOn });
    if (form.examinedOn < wearer.birthDate) return invalid('examinedOn', 'beforeBirth', { day: form.examinedOn });
    await insertExaminedElsewhere(tx, { id: newId(), practiceId: caller.practiceId, ...form, recordedAt: now, recordedBy: caller.personId });
    return ok({ wearerId: form.wearerId });
  },
});
