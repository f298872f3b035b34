import 'server-only';
import { nearState, onOffer, powerSummary, recommend, RULE_VERSION, type Eye, type Kind, type Refraction } from '../../core';
import { insertDecision } from '../../db/decision';
import { listFamilies } from '../../db/family';
import { invalid, ok, ruleBroken } from '../../lib/outcome';
import { decideForm } from '../../schema/decision';
import { lockVisit } from '../visit/lock';
import { readingOf } from '../visit/reading';
import { defineCommand } from '../define';
import { eyesOf } from '../visit/lenses';

/** The fitter decides the kind of lens: as recommended, or another with a reason that is kept. */
export const decideKind = defineCommand({
  name: 'decideKind',
  right: 'clinicalWrite',
  input: decideForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const { tx, caller, now, settings } = context;
    const taken = await lockVisit(context, form, { gate: 'measure' });
    if (!taken.ok) return taken;
    const { visit } = taken.value;
    const eyes = await eyesOf(context, visit);
    const needs: Record<Eye, Refraction | null> = { right: eyes.right.verdict.choosing, left: eyes.left.verdict.choosing };
    const state = await readingOf(context, visit).state(needs);
    const { nearFindings } = await readingOf(context, visit).supply();
    const families = onOffer(await listFamilies(tx, caller.practiceId, context.today), context.today);
    const recommendation = recommend(state.facts, needs, families, nearState(nearFindings).way);
    const same = (kind: Kind): boolean => kind.modality === form.modality && kind.wear === form.wear;
    const offered = [recommendation.recommended, recommendation.second, ...recommendation.others].find((c) => c && same(c.kind));
    if (!offered) return ruleBroken('kindNotOffered');
    const asRecommended = offered === recommendation.recommended;
    if (!asRecommended && (form.reason ?? '').length < 3) return invalid('reason', 'kindReasonRequired');
    taken.value.changed('health');
    await insertDecision(
      tx,
      { id: context.newId(), practiceId: caller.practiceId, visitId: visit.id, visitVersion: taken.value.version, at: now, by: caller.personId },
      {
        recommendation,
        chosen: offered.kind,
        asRecommended,
        reason: asRecommended ? null : form.reason,
        inputs: { ...state.facts, settings: undefined, power: powerSummary(needs) },
        settings,
        ruleVersion: RULE_VERSION,
      },
    );
    return ok(taken.value.done());
  },
});
