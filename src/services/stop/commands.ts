import 'server-only';
import {
  endingsOf,
  EYES,
  evidenceKey,
  firedRules,
  missingLook,
  type Eye,
  type FactChain,
  type Findings,
  type QuestionId,
  type RecordedFinding,
  type StopEnding,
  type VisitRow,
} from '../../core';
import { insertOverride, insertStopEnd, listStops } from '../../db/stop';
import { notFound, ok, ruleBroken } from '../../lib/outcome';
import { endStopForm, overrideStopForm } from '../../schema/stop';
import { defineCommand, type Context } from '../define';
import { lockVisit } from '../visit/lock';
import { readingOf } from '../visit/reading';
import { metaOf } from '../visit/meta';

/** A prescriber passes a stop with a written reason; it holds while what the stop rests on stays the same. */
export const overrideStop = defineCommand({
  name: 'overrideStop',
  right: 'sign',
  input: overrideStopForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const taken = await lockVisit(context, form, { gate: 'record' });
    if (!taken.ok) return taken;
    const state = await readingOf(context, taken.value.visit).state();
    if (state.fired.some((f) => f.rule.id === form.rule && f.rule.strength === 'absolute')) return ruleBroken('absoluteCannotPass');
    const fired = state.waiting.find((f) => f.rule.id === form.rule);
    if (!fired) return ruleBroken('stopNotOpen');
    taken.value.changed('health');
    await insertOverride(context.tx, metaOf(context, taken.value), { rule: form.rule, evidenceKey: evidenceKey(fired), reason: form.reason });
    return ok(taken.value.done());
  },
});

/**
 * A prescriber ends an absolute stop. `wrongEntry`, in the visit that opened it: a wrong eye or grade was corrected.
 * `healed`, at a later visit: what opened it was looked at again. `looked`: it rested only on what was said. `secondLook`: the
 * same day, not for a suspected infection. Never without fresh grades, nor while what was seen still holds.
 */
export const endStop = defineCommand({
  name: 'endStop',
  right: 'sign',
  input: endStopForm,
  about: (form) => ({ subjectKind: 'safetyStop', subjectId: form.stopId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    const taken = await lockVisit(context, form, { gate: 'record' });
    if (!taken.ok) return taken;
    const { visit } = taken.value;
    const stop = (await listStops(tx, caller.practiceId, visit.wearerId)).find((s) => s.id === form.stopId);
    if (!stop) return notFound('stop');
    if (stop.endedAt !== null) return ruleBroken('stopEnded');
    const here = { ...stop, thisVisit: stop.visitId === visit.id };
    if (!endingsOf(here).includes(form.how)) return ruleBroken(ENDING_REFUSED[form.how]);
    const reading = readingOf(context, visit);
    const state = await reading.state();
    const file = await reading.health();
    const holdsStill = firedRules(state.facts).some((f) => f.rule.id === stop.rule && (f.eyes.length === 0 || f.eyes.some((eye) => stop.eyes.includes(eye))));
    // What was said stays said: a prescriber who has looked ends it all the same.
    if (holdsStill && form.how !== 'looked') return ruleBroken('stopHoldsStill', { rule: stop.rule });
    if (form.how !== 'wrongEntry') {
      const off = await eyesWithoutLens(context, visit);
      const [missing] = missingLook(stop, freshSince(file.findings, visit.id, stop.openedAt, off));
      if (missing) return ruleBroken('gradeAfreshFirst', { eye: missing.eye, sign: missing.sign });
    }
    // A power is not asked again: the stop stands or falls with it above.
    const asked = stop.evidence.filter((e) => e.from === 'eye' || e.from === 'history');
    const unseen = asked.some((e) => (e.eye ? state.today[e.eye][e.key as 'pain'] === undefined : state.said[e.key as QuestionId] === undefined));
    if (unseen && form.how !== 'looked') return ruleBroken('lookAgainFirst', { rule: stop.rule });
    taken.value.changed('health');
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
async function eyesWithoutLens(context: Context, visit: VisitRow): Promise<readonly Eye[]> {
  const { onEye, onEyeExtras } = await readingOf(context, visit).facts();
  const on = (eye: Eye): boolean => onEye.some((c) => c.current?.eye === eye && !onEyeExtras.find((e) => e.lensOnEyeId === c.rootId)?.takenOffAt);
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
