import 'server-only';
import { SETTINGS } from '../core';
import { listCareProducts, type CareProductRow } from '../db/library';
import { holdPractice, insertSetting, listSettingChanges, type SettingChange } from '../db/practices';
import { err, ok } from '../lib/outcome';
import { emptyForm } from '../schema/wearerForms';
import { settingForm } from '../schema/healthForms';
import { defineService } from './define';
import { houseOf, type House } from './visitRecord';

export interface SettingsPage {
  readonly house: House;
  /** Newest first. */
  readonly changes: readonly SettingChange[];
  readonly careProducts: readonly CareProductRow[];
}

export const readSettings = defineService({
  name: 'readSettings',
  right: 'read',
  input: emptyForm,
  about: () => null,
  run: async (context) => {
    const { tx, caller } = context;
    const page: SettingsPage = {
      house: await houseOf(context),
      changes: await listSettingChanges(tx, caller.practiceId),
      careProducts: await listCareProducts(tx, caller.practiceId),
    };
    return ok(page);
  },
});

/** Changes one setting, appended with who and when. Whoever read an older value is told instead. */
export const changeSetting = defineService({
  name: 'changeSetting',
  right: 'settings',
  input: settingForm,
  about: () => ({ subjectKind: 'setting', subjectId: crypto.randomUUID() }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    await holdPractice(tx, caller.practiceId);
    const last = (await listSettingChanges(tx, caller.practiceId)).find((c) => c.key === form.key);
    if ((last?.id ?? null) !== form.lastChangeId) {
      const differs = last ? [{ what: form.key, eye: null, text: String(last.value), by: last.setByName ?? '', at: last.setAt }] : [];
      return err({ kind: 'conflict', what: 'setting', differs });
    }
    const value = typeof form.value === 'string' && SETTINGS[form.key].kind === 'text' ? form.value.trim() : form.value;
    const id = context.newId();
    await insertSetting(tx, { id, practiceId: caller.practiceId, key: form.key, value, at: now, by: caller.personId });
    return ok({ id });
  },
});
