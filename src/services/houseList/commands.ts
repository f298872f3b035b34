import 'server-only';
import { listFamilies } from '../../db/family';
import { insertHouseList, listHouseList } from '../../db/houseList';
import { holdPractice } from '../../db/practice';
import { err, invalid, ok } from '../../lib/outcome';
import { houseListForm } from '../../schema/houseList';
import { defineCommand } from '../define';

/** Sets the families a practice tries first in one cell. Whoever read an older list is told instead. */
export const changeHouseList = defineCommand({
  name: 'changeHouseList',
  right: 'settings',
  input: houseListForm,
  about: (_form, out: { id: string }) => ({ subjectKind: 'houseList', subjectId: out.id }),
  run: async (context, form) => {
    const { tx, caller, now, today } = context;
    await holdPractice(tx, caller.practiceId);
    const there = (await listHouseList(tx, caller.practiceId)).find((h) => h.modality === form.modality && h.geometry === form.geometry);
    if ((there?.id ?? null) !== form.lastId) {
      const differs = there ? [{ what: 'houseList', eye: null, text: there.codes.join(', '), by: there.recordedByName, at: there.recordedAt }] : [];
      return err({ kind: 'conflict', what: 'houseList', differs });
    }
    const families = await listFamilies(tx, caller.practiceId, today);
    for (const [index, code] of form.codes.entries()) {
      const family = families.find((f) => f.code === code);
      if (!family || family.modality !== form.modality || family.geometry !== form.geometry) return invalid(['codes', String(index)], 'familyUnknown');
    }
    const id = context.newId();
    await insertHouseList(tx, {
      id,
      practiceId: caller.practiceId,
      modality: form.modality,
      geometry: form.geometry,
      codes: form.codes,
      at: now,
      by: caller.personId,
    });
    return ok({ id });
  },
});
