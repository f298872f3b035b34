import 'server-only';
import { setClockSetting } from '../../db/clockSetting';
import { upsertDevice } from '../../db/device';
import { ok, ruleBroken } from '../../lib/outcome';
import { clockForm, lightsForm } from '../../schema/device';
import { emptyForm } from '../../schema/fields';
import { defineCommand } from '../define';

/** Lights belong to the device in the room, not to the person. */
export const setLights = defineCommand({
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
export const stillHere = defineCommand({
  name: 'stillHere',
  right: 'read',
  input: emptyForm,
  audited: false,
  about: () => null,
  run: (context) => Promise.resolve(ok({ now: context.now })),
});

/** Sets the clock of a demo or a test; refused where real work is done. */
export const setClock = defineCommand({
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
