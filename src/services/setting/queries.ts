import 'server-only';
import { listCareProducts, type CareProductRow } from '../../db/careProduct';
import { listSettingChanges, type SettingChange } from '../../db/setting';
import { ok } from '../../lib/outcome';
import { emptyForm } from '../../schema/fields';
import { defineQuery } from '../define';
import { sessionContextOf, type SessionContext } from '../sessionContext';

export interface SettingsPage {
  readonly session: SessionContext;
  /** Newest first. */
  readonly changes: readonly SettingChange[];
  readonly careProducts: readonly CareProductRow[];
}

export const readSettings = defineQuery({
  name: 'readSettings',
  right: 'read',
  input: emptyForm,
  about: () => null,
  run: async (context) => {
    const { tx, caller } = context;
    const page: SettingsPage = {
      session: sessionContextOf(context),
      changes: await listSettingChanges(tx, caller.practiceId),
      careProducts: await listCareProducts(tx, caller.practiceId),
    };
    return ok(page);
  },
});
