import 'server-only';
import { scaleFromDrawings } from '../../core';
import { insertInstrument, insertInstrumentEnd } from '../../db/instrument';
import { invalid, notFound, ok } from '../../lib/outcome';
import { addInstrumentForm, endInstrumentForm } from '../../schema/instrument';
import { defineCommand } from '../define';

/** A slit lamp's scale is set up by looking: what it reads on a drawn mark straight down, and on one turned to the left. */
export const addInstrument = defineCommand({
  name: 'addInstrument',
  right: 'clinicalWrite',
  input: addInstrumentForm,
  about: (_form, out: { instrumentId: string }) => ({ subjectKind: 'instrument', subjectId: out.instrumentId }),
  run: async (context, form) => {
    const scale = scaleFromDrawings(form.readStraight, form.readTurned);
    if (!scale.ok) return invalid('readTurned', scale.error.code, scale.error.data);
    const instrumentId = context.newId();
    await insertInstrument(context.tx, {
      id: instrumentId,
      practiceId: context.caller.practiceId,
      name: form.name,
      zeroDeg: scale.value.zero,
      grows: scale.value.grows,
      readStraight: form.readStraight,
      readTurned: form.readTurned,
      addedAt: context.now,
      addedBy: context.caller.personId,
    });
    return ok({ instrumentId });
  },
});

export const endInstrument = defineCommand({
  name: 'endInstrument',
  right: 'clinicalWrite',
  input: endInstrumentForm,
  about: (form) => ({ subjectKind: 'instrument', subjectId: form.instrumentId }),
  run: async (context, form) => {
    const { practiceId, personId } = context.caller;
    const done = await insertInstrumentEnd(context.tx, { practiceId, instrumentId: form.instrumentId, at: context.now, by: personId });
    return done ? ok({ instrumentId: form.instrumentId }) : notFound('instrument');
  },
});
