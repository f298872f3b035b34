import 'server-only';
import {
  dominanceOf,
  nearState,
  nextChange,
  pairFile,
  RULE_VERSION,
  wayFactsOf,
  addKnown,
  writtenChange,
  writtenOutlook,
  type PairChange,
  type VisitRow,
} from '../../core';
import { ok, ruleBroken, type Result } from '../../lib/outcome';
import { pairChangeForm, pairReadingForm } from '../../schema/pair';
import { hasToricAdd } from '../../db/family';
import { defineCommand, type Context } from '../define';
import { eyesOf, lensIdsOf, lensIn, namedLenses } from '../visit/lenses';
import { lockVisit } from '../visit/lock';
import { readingOf } from '../visit/reading';

/** The pair that something was read through is the one on the eyes, neither of it taken off. */
async function pairOn(context: Context, visit: VisitRow, form: { readonly rightLensOnEyeId: string; readonly leftLensOnEyeId: string }): Promise<Result<null>> {
  const { onEyeExtras } = await readingOf(context, visit).facts();
  const eyes = await eyesOf(context, visit);
  const ids = { right: form.rightLensOnEyeId, left: form.leftLensOnEyeId };
  for (const eye of ['right', 'left'] as const) {
    if (eyes[eye].onEye?.rootId !== ids[eye]) return ruleBroken('pairNotOn', { eye });
    if (onEyeExtras.find((e) => e.lensOnEyeId === ids[eye])?.takenOffAt) return ruleBroken('lensTakenOff', { eye });
  }
  return ok(null);
}

/** Both eyes together in normal light, task by task; and what a quarter held before an eye did. */
export const recordPairReading = defineCommand({
  name: 'recordPairReading',
  right: 'clinicalWrite',
  input: pairReadingForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const taken = await lockVisit(context, form, { gate: 'record', touches: [{ what: 'taskSight' }, { what: 'heldQuarter' }, { what: 'lensOnEye' }] });
    if (!taken.ok) return taken;
    const on = await pairOn(context, taken.value.visit, form);
    if (!on.ok) return on;
    const pair = { rightLensOnEyeId: form.rightLensOnEyeId, leftLensOnEyeId: form.leftLensOnEyeId };
    for (const { task, distanceCm, acuity, satisfaction, covered } of form.tasks)
      taken.value.add('taskSight', null, {
        ...pair,
        task,
        distanceCm,
        acuityLogMar: acuity?.logMar ?? null,
        acuityTyped: acuity?.typed ?? null,
        satisfaction,
        covered,
      });
    for (const { eye, by, task, distanceCm, answer } of form.held) taken.value.add('heldQuarter', eye, { ...pair, byD: by, task, distanceCm, answer });
    return ok(taken.value.done());
  },
});

const isSame = (a: PairChange, b: { readonly kind: string; readonly eye?: string; readonly by?: number }): boolean =>
  a.kind === b.kind && (a.kind === 'swap' || a.eye === b.eye) && (a.kind !== 'sphere' || a.by === b.by);

/** The one change that is made next is kept with what is foretold of it, before the lens is put on. */
export const keepPairChange = defineCommand({
  name: 'keepPairChange',
  right: 'clinicalWrite',
  input: pairChangeForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const taken = await lockVisit(context, form, {
      gate: 'lens',
      touches: [{ what: 'pairChange' }, { what: 'taskSight' }, { what: 'heldQuarter' }, { what: 'lensOnEye' }],
    });
    if (!taken.ok) return taken;
    const { visit } = taken.value;
    const on = await pairOn(context, visit, form);
    if (!on.ok) return on;
    const reading = readingOf(context, visit);
    const facts = await reading.facts();
    const eyes = await eyesOf(context, visit);
    const near = nearState((await reading.supply()).nearFindings);
    const add = addKnown(facts.refractions, (await reading.past()).addsBefore);
    const { pupilRoomMm, pupilDimMm } = wayFactsOf(near, eyes, await reading.state(), add?.addD ?? null);
    const named = await namedLenses(context, lensIdsOf(facts));
    const file = pairFile({
      facts,
      eyes,
      lenses: { lensOf: lensIn(named), rows: named.lenses },
      pupilRoomMm,
      pupilDimMm,
      add,
      dominant: dominanceOf(near).eye,
      toricMade: await hasToricAdd(context.tx, context.caller.practiceId, context.today),
    });
    const verdict = 'no' in file ? null : nextChange(file.input);
    if (!verdict) return ruleBroken('pairNotJudged');
    const offered = [...(verdict.verdict === 'change' ? [verdict.proposed] : []), ...verdict.others];
    const chosen = offered.find((o) => isSame(o.change, form.change));
    if (!chosen) return ruleBroken('changeNotOffered');
    taken.value.add('pairChange', null, {
      rightLensOnEyeId: form.rightLensOnEyeId,
      leftLensOnEyeId: form.leftLensOnEyeId,
      change: writtenChange(chosen.change),
      foretold: chosen.tasks.map(writtenOutlook),
      ruleVersion: RULE_VERSION,
    });
    return ok(taken.value.done());
  },
});
