import 'server-only';
import { addKnown, may, nearState, nearWays, wayFactsOf, type NearWay } from '../../core';
import { invalid, ok, ruleBroken } from '../../lib/outcome';
import { drivingForm, nearFindingsForm, nearWayForm } from '../../schema/nearFinding';
import { defineCommand } from '../define';
import { lockVisit } from '../visit/lock';
import { eyesOf } from '../visit/lenses';
import { readingOf } from '../visit/reading';

/** Dominance, cover test, stereo, and the tasks of a wearer with their distances. How near is served is a decision of its own. */
export const recordNearFindings = defineCommand({
  name: 'recordNearFindings',
  right: 'clinicalWrite',
  input: nearFindingsForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    // Decisions with commands of their own.
    if (form.findings.some((f) => f.sign === 'way' || f.sign === 'driving')) return invalid('findings', 'notUnderstood');
    const taken = await lockVisit(context, form, { gate: 'record', touches: form.findings.map(() => ({ what: 'nearFinding' as const })) });
    if (!taken.ok) return taken;
    for (const { sign, value } of form.findings)
      taken.value.add('nearFinding', null, {
        sign,
        numberValue: typeof value === 'number' ? value : null,
        wordValue: typeof value === 'string' ? value : null,
        note: null,
      });
    return ok(taken.value.done());
  },
});

/** How near is served: as recommended, another with a reason, or, by a prescriber with a reason, one that a rule bars. */
export const decideNearWay = defineCommand({
  name: 'decideNearWay',
  right: 'clinicalWrite',
  input: nearWayForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const taken = await lockVisit(context, form, { gate: 'measure', touches: [{ what: 'nearFinding' }] });
    if (!taken.ok) return taken;
    const { visit } = taken.value;
    const reading = readingOf(context, visit);
    const { nearFindings } = await reading.supply();
    const { addsBefore } = await reading.past();
    const add = addKnown((await reading.facts()).refractions, addsBefore)?.addD ?? null;
    const facts = wayFactsOf(nearState(nearFindings), await eyesOf(context, visit), await reading.state(), add);
    const advice = nearWays(facts);
    const way: NearWay = form.way;
    const barred = advice.barred.find((b) => b.way === way);
    const choice = [advice.recommended, advice.second, ...advice.others].find((c) => c?.way === way);
    const needs = choice?.needs ?? [];
    const prescriber = may(context.caller.roles, 'sign');
    if (barred && !prescriber) return ruleBroken('wayBarred');
    if (needs.length > 0 && !prescriber) return ruleBroken('wayNeedsTests');
    if ((barred || needs.length > 0 || way !== advice.recommended.way) && form.reason === null) return invalid('reason', 'wayReasonRequired');
    taken.value.add('nearFinding', null, { sign: 'way', numberValue: null, wordValue: way, note: form.reason });
    return ok(taken.value.done());
  },
});

/** What was said of driving, by whoever gives the lenses out. */
export const recordDriving = defineCommand({
  name: 'recordDriving',
  right: 'handOver',
  input: drivingForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const taken = await lockVisit(context, form, { gate: 'record', touches: [{ what: 'nearFinding' }] });
    if (!taken.ok) return taken;
    taken.value.add('nearFinding', null, { sign: 'driving', numberValue: null, wordValue: form.said, note: null });
    return ok(taken.value.done());
  },
});
