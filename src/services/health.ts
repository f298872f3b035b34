import 'server-only';
import {
  answerProblems,
  chains,
  endingsOf,
  EYES,
  evidenceKey,
  evidenceKeyOf,
  findingsConflict,
  firedRules,
  missingLook,
  type Answer,
  type Eye,
  type FactChain,
  type Findings,
  type OnEyeFact,
  type QuestionId,
  type RecordedFinding,
  type StopEnding,
} from '../core';
import { listFacts, listOnEyeExtras } from '../db/facts';
import {
  holdWearer,
  insertAcknowledgement,
  insertAnswer,
  insertPass,
  insertReferral,
  insertReferralStep,
  insertStop,
  insertStopEnd,
  listReferrals,
  listStops,
  type StopRow,
} from '../db/health';
import { findVisit, deleteDraft, type VisitRow } from '../db/visits';
import { err, notFound, ok, ruleBroken, type FieldProblem } from '../lib/outcome';
import { alertForm, endStopForm, findingsForm, historyForm, passForm, referralForm, referralStepForm } from '../schema/healthForms';
import { takeVisit, type Taken } from './change';
import { defineService, type Context } from './define';
import { handedOverBefore } from './visitRecord';
import { readHealth } from './healthRecord';

/**
 * Opens every absolute stop that holds now and is not open yet. Called in the same transaction as whatever brought
 * it about: a stop and a new lens cannot pass each other unseen.
 */
export async function settleStops(context: Context, visit: VisitRow, taken: Taken): Promise<void> {
  const { tx, caller, now } = context;
  await holdWearer(tx, caller.practiceId, visit.wearerId, true);
  const { file, state } = await readHealth(context, visit);
  const open = file.stops.filter((s) => s.endedAt === null);
  for (const fired of state.fired) {
    if (fired.rule.strength !== 'absolute') continue;
    const covers = (s: StopRow): boolean => s.rule === fired.rule.id && fired.eyes.every((eye) => s.eyes.includes(eye));
    // A prescriber has looked at this very evidence in this visit, and ended it.
    const lookedAt = file.stops.some(
      (s) =>
        s.visitId === visit.id &&
        (s.endedHow === 'looked' || s.endedHow === 'secondLook') &&
        evidenceKeyOf({ id: s.rule, version: fired.rule.version }, s.evidence) === evidenceKey(fired),
    );
    const known = open.some(covers) || lookedAt;
    if (known) continue;
    await insertStop(
      tx,
      {
        id: context.newId(),
        practiceId: caller.practiceId,
        wearerId: visit.wearerId,
        visitId: visit.id,
        visitVersion: taken.version,
        at: now,
        by: caller.personId,
      },
      { rule: fired.rule.id, ruleVersion: fired.rule.version, eyes: fired.eyes, evidence: fired.evidence },
    );
  }
}

const metaOf = (context: Context, taken: Taken) => ({
  id: context.newId(),
  practiceId: context.caller.practiceId,
  wearerId: taken.visit.wearerId,
  visitId: taken.visit.id,
  visitVersion: taken.version,
  at: context.now,
  by: context.caller.personId,
});

export const recordHistory = defineService({
  name: 'recordHistory',
  right: 'clinicalWrite',
  input: historyForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx, caller } = context;
    const taken = await takeVisit(context, form.visitId, form.version, 'record');
    if (!taken.ok) return taken;
    const { state } = await readHealth(context, taken.value.visit);
    const merged: Partial<Record<QuestionId, Answer>> = { ...state.said };
    for (const a of form.answers) {
      if (a.value === null) delete merged[a.question];
      else merged[a.question] = { value: a.value, note: a.note };
    }
    const handedOver = await handedOverBefore(context, taken.value.visit.wearerId);
    const problems = answerProblems(merged, handedOver);
    if (problems.length > 0) {
      const fields = problems.map((p): FieldProblem => ({ path: ['answers', p.question], code: p.code, data: p.data }));
      return err({ kind: 'invalid', fields });
    }
    for (const a of form.answers) await insertAnswer(tx, metaOf(context, taken.value), a);
    await settleStops(context, taken.value.visit, taken.value);
    await deleteDraft(tx, caller.practiceId, form.visitId, 'history', caller.personId);
    return ok(taken.value.done());
  },
});

export const recordFindings = defineService({
  name: 'recordFindings',
  right: 'clinicalWrite',
  input: findingsForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx, caller } = context;
    const taken = await takeVisit(context, form.visitId, form.version, 'record');
    if (!taken.ok) return taken;
    const { state } = await readHealth(context, taken.value.visit);
    for (const eye of EYES) {
      const typed = Object.fromEntries(form[eye].map((f) => [f.sign, f.value]));
      const [conflict] = findingsConflict({ ...state.today[eye], ...typed });
      if (conflict && form[eye].length > 0) return err({ kind: 'invalid', fields: [{ path: [eye, conflict.sign], code: conflict.code, data: conflict.data }] });
      for (const f of form[eye]) {
        const value = typeof f.value === 'number' ? { numberValue: f.value, wordValue: null } : { numberValue: null, wordValue: f.value };
        await taken.value.add('finding', eye, { sign: f.sign, ...value });
      }
      for (const read of form[`${eye}Sight`]) {
        await taken.value.add('eyeAcuity', eye, { way: read.way, acuityLogMar: read.acuity.logMar, acuityTyped: read.acuity.typed });
      }
    }
    await settleStops(context, taken.value.visit, taken.value);
    await deleteDraft(tx, caller.practiceId, form.visitId, 'eyeHealth', caller.personId);
    return ok(taken.value.done());
  },
});

export const acknowledgeAlert = defineService({
  name: 'acknowledgeAlert',
  right: 'sign',
  input: alertForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const taken = await takeVisit(context, form.visitId, form.version, 'record');
    if (!taken.ok) return taken;
    const { file } = await readHealth(context, taken.value.visit);
    const heard = file.answers.filter((a) => a.question === 'danger');
    const upTo = heard.findIndex((a) => a.id === form.answerId);
    if (upTo < 0) return notFound('alert');
    if (heard[upTo]?.acknowledgedAt !== null) return ruleBroken('alertNotOpen');
    // What was heard before it and nobody took note of is taken note of with it.
    for (const a of heard.slice(0, upTo + 1)) {
      await insertAcknowledgement(context.tx, { answerId: a.id, practiceId: context.caller.practiceId, at: context.now, by: context.caller.personId });
    }
    return ok(taken.value.done());
  },
});

/** A prescriber passes a stop with a written reason; it holds while what the stop rests on stays the same. */
export const passStop = defineService({
  name: 'passStop',
  right: 'sign',
  input: passForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const taken = await takeVisit(context, form.visitId, form.version, 'record');
    if (!taken.ok) return taken;
    const { state } = await readHealth(context, taken.value.visit);
    if (state.fired.some((f) => f.rule.id === form.rule && f.rule.strength === 'absolute')) return ruleBroken('absoluteCannotPass');
    const fired = state.waiting.find((f) => f.rule.id === form.rule);
    if (!fired) return ruleBroken('stopNotOpen');
    await insertPass(context.tx, metaOf(context, taken.value), { rule: form.rule, evidenceKey: evidenceKey(fired), reason: form.reason });
    return ok(taken.value.done());
  },
});

/**
 * A prescriber ends an absolute stop. `wrongEntry`, in the visit that opened it: a wrong eye or grade was corrected.
 * `healed`, at a later visit: what opened it was looked at again. `looked`: it rested only on what was said. `secondLook`: the
 * same day, not for a suspected infection. Never without fresh grades, nor while what was seen still holds.
 */
export const endStop = defineService({
  name: 'endStop',
  right: 'sign',
  input: endStopForm,
  about: (form) => ({ subjectKind: 'safetyStop', subjectId: form.stopId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const taken = await takeVisit(context, form.visitId, form.version, 'record');
    if (!taken.ok) return taken;
    const { visit } = taken.value;
    const stop = (await listStops(tx, caller.practiceId, visit.wearerId)).find((s) => s.id === form.stopId);
    if (!stop) return notFound('stop');
    if (stop.endedAt !== null) return ruleBroken('stopEnded');
    const here = { ...stop, thisVisit: stop.visitId === visit.id };
    if (!endingsOf(here).includes(form.how)) return ruleBroken(ENDING_REFUSED[form.how]);
    const { file, state } = await readHealth(context, visit);
    const holdsStill = firedRules(state.facts).some((f) => f.rule.id === stop.rule && (f.eyes.length === 0 || f.eyes.some((eye) => stop.eyes.includes(eye))));
    // What was said stays said: a prescriber who has looked ends it all the same.
    if (holdsStill && form.how !== 'looked') return ruleBroken('stopHoldsStill', { rule: stop.rule });
    if (form.how !== 'wrongEntry') {
      const off = await eyesWithoutLens(context, visit.id);
      const [missing] = missingLook(stop, freshSince(file.findings, visit.id, stop.openedAt, off));
      if (missing) return ruleBroken('gradeAfreshFirst', { eye: missing.eye, sign: missing.sign });
    }
    // A power is not asked again: the stop stands or falls with it above.
    const asked = stop.evidence.filter((e) => e.from === 'eye' || e.from === 'history');
    const unseen = asked.some((e) => (e.eye ? state.today[e.eye][e.key as 'pain'] === undefined : state.said[e.key as QuestionId] === undefined));
    if (unseen && form.how !== 'looked') return ruleBroken('lookAgainFirst', { rule: stop.rule });
    await insertStopEnd(tx, {
      stopId: stop.id,
      practiceId: caller.practiceId,
      visitId: visit.id,
      how: form.how,
      reason: form.reason,
      at: now,
      by: caller.personId,
    });
    return ok(taken.value.done());
  },
});

const ENDING_REFUSED = {
  healed: 'healedSameVisit',
  wrongEntry: 'wrongEntryLater',
  looked: 'notOnlySaid',
  secondLook: 'noSecondLook',
} as const satisfies Readonly<Record<StopEnding, string>>;

/** Eyes on which no lens is now. */
async function eyesWithoutLens(context: Context, visitId: string): Promise<readonly Eye[]> {
  const { tx, caller } = context;
  const worn = chains(await listFacts<OnEyeFact>(tx, 'lens_on_eye', caller.practiceId, [visitId]));
  const extras = await listOnEyeExtras(tx, caller.practiceId, [visitId]);
  const on = (eye: Eye): boolean => worn.some((c) => c.current?.eye === eye && !extras.find((e) => e.lensOnEyeId === c.rootId)?.takenOffAt);
  return EYES.filter((eye) => !on(eye));
}

/** What was graded in this visit since a moment, on eyes without a lens. */
function freshSince(all: readonly FactChain<RecordedFinding>[], visitId: string, since: string, off: readonly Eye[]): Readonly<Record<Eye, Findings>> {
  const of = (eye: Eye): Findings =>
    Object.fromEntries(
      all.flatMap((c) => {
        const row = c.current;
        const fresh = row?.eye === eye && row.visitId === visitId && row.observedAt > since && off.includes(eye);
        return fresh ? [[row.sign, row.numberValue ?? row.wordValue ?? '']] : [];
      }),
    );
  return { right: of('right'), left: of('left') };
}

export const openReferral = defineService({
  name: 'openReferral',
  right: 'clinicalWrite',
  input: referralForm,
  about: (form) => ({ subjectKind: 'safetyStop', subjectId: form.stopId }),
  run: async (context, form) => {
    const { tx, caller, practice, settings } = context;
    const taken = await takeVisit(context, form.visitId, form.version, 'record');
    if (!taken.ok) return taken;
    const stop = (await listStops(tx, caller.practiceId, taken.value.visit.wearerId)).find((s) => s.id === form.stopId);
    if (!stop) return notFound('stop');
    if (stop.endedAt !== null) return ruleBroken('stopEnded');
    const telephone = settings.referralTelephone.trim() || practice.emergencyTelephone?.trim() || '';
    if (telephone === '') return ruleBroken('noEmergencyNumber');
    const opened = await insertReferral(tx, metaOf(context, taken.value), { stopId: stop.id, addressedTo: settings.referralTo.trim(), telephone });
    return opened ? ok(taken.value.done()) : ruleBroken('referralOpen');
  },
});

export const recordReferralStep = defineService({
  name: 'recordReferralStep',
  right: 'clinicalWrite',
  input: referralStepForm,
  about: (form) => ({ subjectKind: 'referral', subjectId: form.referralId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const taken = await takeVisit(context, form.visitId, form.version, 'record');
    if (!taken.ok) return taken;
    const visit = await findVisit(tx, caller.practiceId, form.visitId);
    const referral = visit && (await listReferrals(tx, caller.practiceId, visit.wearerId)).find((r) => r.id === form.referralId);
    if (!referral) return notFound('referral');
    await insertReferralStep(tx, { referralId: referral.id, practiceId: caller.practiceId, step: form.step, at: now, by: caller.personId });
    return ok(taken.value.done());
  },
});
