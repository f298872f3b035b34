import 'server-only';
import { EYES, parseNearAcuity } from '../../core';
import { ok } from '../../lib/outcome';
import { refractionForm } from '../../schema/refraction';
import { defineCommand } from '../define';
import { openAbsoluteStops } from '../stop/openAbsoluteStops';
import { lockVisit, touching } from '../visit/lock';

export const recordRefraction = defineCommand({
  name: 'recordRefraction',
  right: 'clinicalWrite',
  input: refractionForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const eyes = EYES.filter((eye) => form[eye] !== null);
    const taken = await lockVisit(context, form, { gate: 'measure', alone: true, touches: touching(['refraction'], eyes) });
    if (!taken.ok) return taken;
    for (const eye of EYES) {
      const typed = form[eye];
      if (!typed) continue;
      const nearTyped = form[`${eye}Near`];
      const near = nearTyped === null || form.nearCm === null ? null : parseNearAcuity(nearTyped, form.nearCm);
      taken.value.add('refraction', eye, {
        sphereD: typed.power.sphere,
        cylinderD: typed.power.cylinder,
        axisDeg: typed.power.axis,
        vertexMm: form.vertexMm,
        typedText: typed.typed,
        source: 'typed',
        addD: form[`${eye}Add`],
        addSource: form[`${eye}Add`] === null ? null : form.addSource,
        nearCm: form[`${eye}Add`] === null && nearTyped === null ? null : form.nearCm,
        nearAcuityLogMar: near?.ok ? near.value : null,
        nearAcuityTyped: near?.ok ? nearTyped : null,
        prismText: typed.prism,
        acuityLogMar: form[`${eye}Acuity`]?.logMar ?? null,
        acuityTyped: form[`${eye}Acuity`]?.typed ?? null,
      });
    }
    // A myopic shift under some medicines is an absolute stop.
    await openAbsoluteStops(context, taken.value);
    taken.value.forgetDraft('refraction');
    return ok(taken.value.done());
  },
});
