import 'server-only';
import { addSeconds } from '../../core';
import { listSettling, type SettlingRow } from '../../db/lensOnEye';
import { ok } from '../../lib/outcome';
import { emptyForm } from '../../schema/fields';
import { defineQuery } from '../define';

/** A settled lens stays in sight for this long. */
const KEPT_SECONDS = 600;

/** The settle clocks that run in the practice: seen on every page, so asked for often and not written down each time. */
export const readSettling = defineQuery({
  name: 'readSettling',
  right: 'clinicalRead',
  audited: false,
  input: emptyForm,
  about: () => null,
  run: async (context): Promise<ReturnType<typeof ok<{ clocks: readonly SettlingRow[] }>>> =>
    ok({ clocks: await listSettling(context.tx, context.caller.practiceId, addSeconds(context.now, -KEPT_SECONDS)) }),
});
