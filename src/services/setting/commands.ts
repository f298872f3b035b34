import 'server-only';
import { SETTINGS } from '../../core';
import { markAll } from '../../db/eyeRunway';
import { holdPractice } from '../../db/practice';
import { insertSetting, listSettingChanges } from '../../db/setting';
import { err, ok } from '../../lib/outcome';
import { settingForm } from '../../schema/setting';
import { defineCommand } from '../define';

/** Changes one setting, appended with who and when. Whoever read an older value is told instead. */
export const changeSetting = defineCommand({
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
    if (form.key === 'reorderMarginDays') await markAll(tx, caller.practiceId);
    return ok({ id });
  },
});
