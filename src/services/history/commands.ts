import 'server-only';
import { answerProblems, type Answer, type QuestionId } from '../../core';
import { insertAcknowledgements, insertAnswers } from '../../db/history';
import { err, notFound, ok, ruleBroken, type FieldProblem } from '../../lib/outcome';
import { alertForm, historyForm } from '../../schema/history';
import { defineCommand } from '../define';
import { openAbsoluteStops } from '../stop/openAbsoluteStops';
import { lockVisit } from '../visit/lock';
import { readingOf } from '../visit/reading';
import { metaOf } from '../visit/meta';

export const recordHistory = defineCommand({
  name: 'recordHistory',
  right: 'clinicalWrite',
  input: historyForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx } = context;
    const taken = await lockVisit(context, form, { gate: 'record', touches: [{ what: 'history' }] });
    if (!taken.ok) return taken;
    const state = await readingOf(context, taken.value.visit).state();
    const merged: Partial<Record<QuestionId, Answer>> = { ...state.said };
    for (const a of form.answers) {
      if (a.value === null) delete merged[a.question];
      else merged[a.question] = { value: a.value, note: a.note };
    }
    const { handOvers } = await readingOf(context, taken.value.visit).supply();
    const handedOver = handOvers.some((c) => c.current !== null);
    const problems = answerProblems(merged, handedOver);
    if (problems.length > 0) {
      const fields = problems.map((p): FieldProblem => ({ path: ['answers', p.question], code: p.code, data: p.data }));
      return err({ kind: 'invalid', fields });
    }
    await insertAnswers(
      tx,
      metaOf(context, taken.value),
      // Danger signs are asked, never read back.
      form.answers.map((a) => ({ ...a, readBack: a.readBack && a.question !== 'danger', id: context.newId() })),
    );
    taken.value.changed('health');
    await openAbsoluteStops(context, taken.value);
    taken.value.forgetDraft('history');
    return ok(taken.value.done());
  },
});

export const acknowledgeAlert = defineCommand({
  name: 'acknowledgeAlert',
  right: 'sign',
  input: alertForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const taken = await lockVisit(context, form, { gate: 'record', touches: [{ what: 'history' }] });
    if (!taken.ok) return taken;
    const file = await readingOf(context, taken.value.visit).health();
    const heard = file.answers.filter((a) => a.question === 'danger');
    const upTo = heard.findIndex((a) => a.id === form.answerId);
    if (upTo < 0) return notFound('alert');
    if (heard[upTo]?.acknowledgedAt !== null) return ruleBroken('alertNotOpen');
    // What was heard before it and nobody took note of is taken note of with it.
    const answerIds = heard.slice(0, upTo + 1).map((a) => a.id);
    await insertAcknowledgements(context.tx, { answerIds, practiceId: context.caller.practiceId, at: context.now, by: context.caller.personId });
    taken.value.changed('health');
    return ok(taken.value.done());
  },
});
