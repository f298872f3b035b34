import 'server-only';
import { addSeconds, scaleFromDrawings } from '../core';
import { insertInstrument, insertInstrumentEnd } from '../db/instruments';
import { listSettling, type SettlingRow } from '../db/onEye';
import { invalid, notFound, ok } from '../lib/outcome';
import { addInstrumentForm, endInstrumentForm } from '../schema/measureForms';
import { emptyForm } from '../schema/wearerForms';
import { defineService } from './define';

/** A slit lamp's scale is set up by looking: what it reads on a drawn mark straight down, and on one turned to the left. */
export const addInstrument = defineService({
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

export const endInstrument = defineService({
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

/** A settled lens stays in sight for this long. */
const KEPT_SECONDS = 600;

/** The settle clocks that run in the practice: seen on every page, so asked for often and not written down each time. */
export const readSettling = defineService({
  name: 'readSettling',
  right: 'read',
  audited: false,
  input: emptyForm,
  about: () => null,
  run: async (context): Promise<ReturnType<typeof ok<{ clocks: readonly SettlingRow[] }>>> =>
    ok({ clocks: await listSettling(context.tx, context.caller.practiceId, addSeconds(context.now, -KEPT_SECONDS)) }),
});
