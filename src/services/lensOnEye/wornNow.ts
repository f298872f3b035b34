import 'server-only';
import type { z } from 'zod';
import { EYES, provenance, type Eye, type ProvenanceNode, type WornAnswer } from '../../core';
import { must } from '../../lib/assert';
import { err, invalid, notFound, ok, type Result } from '../../lib/outcome';
import { wornNowForm } from '../../schema/wornNow';
import { defineCommand, type Context } from '../define';
import { lockVisit, touching, type LockedVisit } from '../visit/lock';
import { provenanceOf } from '../visit/provenance';
import { readingOf } from '../visit/reading';
import { confirm, takeOffOthers } from './onOff';
import { putOnMoment } from './putOnMoment';
import { unlistedLens } from './unlistedLens';

type Said = NonNullable<z.output<typeof wornNowForm>['right']>;

/** The lens that an answer is about, as it goes on the eye: which it is, what its box says, and where it comes from. */
interface OnEye {
  readonly lensId: string | null;
  readonly description: string | null;
  readonly source: 'dispensed' | 'order' | 'broughtIn';
  readonly lot: string | null;
  readonly expiresOn: string | null;
}
const SOURCE = {
  handedOver: 'dispensed',
  ordered: 'order',
  sellerVerified: 'broughtIn',
  boughtElsewhere: 'broughtIn',
  broughtAlong: 'broughtIn',
} as const satisfies Partial<Record<ProvenanceNode['kind'], OnEye['source']>>;

/** What counts as worn, put on the very eye that was asked of. */
function asKnown(worn: ProvenanceNode | null, lensId: string): Result<OnEye> {
  const kind = worn?.kind;
  // Handed over, or named, meanwhile: whoever said yes saw another lens.
  if (!worn || worn.lensId !== lensId || kind === undefined || kind === 'prescribed' || kind === 'tried')
    return err({ kind: 'conflict', what: 'lensOnEye', differs: [] });
  return ok({ lensId, description: null, source: SOURCE[kind], lot: worn.lot, expiresOn: worn.expiresOn });
}

/** What is on the eye by an answer; null where no lens is. */
async function onEyeBy(context: Context, taken: LockedVisit, eye: Eye, said: Said): Promise<Result<OnEye | null>> {
  const reading = readingOf(context, taken.visit);
  switch (said.answer) {
    case 'yes':
      return asKnown(provenance(await provenanceOf(reading), eye).worn, said.lensId);
    case 'mixed':
      return asKnown(provenance(await provenanceOf(reading), eye === 'right' ? 'left' : 'right').worn, said.lensId);
    case 'oldPair': {
      const given = (await reading.supply()).handOvers.find((c) => c.rootId === said.handOverId)?.current;
      if (!given) return notFound('handOver');
      if (given.eye !== eye) return invalid([eye, 'handOverId'], 'otherEye');
      return ok({ lensId: given.lensId, description: null, source: 'dispensed', lot: given.lot, expiresOn: given.expiresOn });
    }
    case 'boughtElsewhere': {
      const { description, power, modality } = said;
      const lensId = power && (await unlistedLens(context, { name: description, modality, power: power.power, baseCurveMm: null, diameterMm: null }));
      return ok({ lensId, description, source: 'broughtIn', lot: null, expiresOn: null });
    }
    case 'someoneElses':
      return ok({ lensId: null, description: said.description, source: 'broughtIn', lot: null, expiresOn: null });
    case 'lost':
    case 'glasses':
      return ok(null);
  }
}

/** Asked of each eye: is this what you have in now? The lens that is goes on the eye with its real time of insertion; what was answered is kept. */
export const answerWorn = defineCommand({
  name: 'answerWorn',
  right: 'clinicalWrite',
  input: wornNowForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async (context, form) => {
    const eyes = EYES.filter((eye) => form[eye] !== null);
    const locked = await lockVisit(context, form, { gate: 'record', touches: touching(['lensOnEye', 'wornAnswer', 'handOver'], eyes) });
    if (!locked.ok) return locked;
    const taken = locked.value;
    const facts = await readingOf(context, taken.visit).facts();
    for (const eye of eyes) {
      const said = must(form[eye], 'answer');
      const lens = await onEyeBy(context, taken, eye, said);
      if (!lens.ok) return lens;
      takeOffOthers(context, taken, facts, eye);
      const answer: WornAnswer = said.answer;
      if (lens.value === null) {
        taken.add('wornAnswer', eye, { answer, lensId: null, lensOnEyeId: null });
        continue;
      }
      const putOnAt = putOnMoment(must(form.since, 'time of insertion'), context.now, context.practice.timeZone);
      const lensOnEyeId = taken.add('lensOnEye', eye, { ...lens.value, trialNumber: null, trialStockId: null, diagnosticLensId: null, putOnAt });
      if (lens.value.lensId !== null) confirm(context, taken, lensOnEyeId, form.how);
      taken.add('wornAnswer', eye, { answer, lensId: lens.value.lensId, lensOnEyeId });
    }
    taken.changed('measures');
    return ok(taken.done());
  },
});
