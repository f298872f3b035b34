import 'server-only';
import { setClockSetting } from '../db/clockSetting';
import { upsertDevice } from '../db/practices';
import { ok, ruleBroken } from '../lib/outcome';
import { clockForm, lightsForm } from '../schema/deviceForms';
import { emptyForm } from '../schema/wearerForms';
import { defineService } from './define';

/** Lights belong to the device in the room, not to the person. */
export const setLights = defineService({
  name: 'setLights',
  right: 'read',
  audited: false,
  input: lightsForm,
  about: () => null,
  run: async (context, form) => {
    await upsertDevice(context.tx, { id: form.deviceId, practiceId: context.caller.practiceId, lights: form.lights, at: context.now });
    return ok({ lights: form.lights });
  },
});

/** A sign of life while somebody reads without pressing anything: the session goes on. */
export const stillHere = defineService({
  name: 'stillHere',
  right: 'read',
  input: emptyForm,
  audited: false,
  about: () => null,
  run: (context) => Promise.resolve(ok({ now: context.now })),
});

/** Sets the clock of a demo or a test; refused where real work is done. */
export const setClock = defineService({
  name: 'setClock',
  right: 'read',
  input: clockForm,
  about: () => null,
  run: async (context, form) => {
    if (context.mode === 'production') return ruleBroken('clockIsReal');
    await setClockSetting(context.tx, form);
    return ok({ frozenAt: form.frozenAt });
  },
});
