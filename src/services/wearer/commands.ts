import 'server-only';
import { nextNumber } from '../../db/practice';
import { findNamesakes, findWearer, insertWearer, updateIdentity } from '../../db/wearer';
import { err, invalid, notFound, ok } from '../../lib/outcome';
import { createWearerForm, updateWearerForm } from '../../schema/wearer';
import { defineCommand } from '../define';

export const createWearer = defineCommand({
  name: 'createWearer',
  right: 'wearers',
  input: createWearerForm,
  about: (_form, out: { wearerId: string }) => ({ subjectKind: 'wearer', subjectId: out.wearerId }),
  run: async (context, form) => {
    const { tx, caller, today, now } = context;
    if (form.birthDate > today) return invalid('birthDate', 'birthDateInFuture', { value: form.birthDate });
    if (form.sameNameIsAnother !== true) {
      const [same] = await findNamesakes(tx, caller.practiceId, form.name, form.birthDate);
      if (same) return invalid('name', 'wearerExists', { record: same.recordNumber, name: same.name });
    }
    const recordNumber = await nextNumber(tx, caller.practiceId, 'wearer');
    const id = context.newId();
    await insertWearer(tx, caller.practiceId, {
      id,
      recordNumber,
      name: form.name,
      birthDate: form.birthDate,
      telephone: form.telephone,
      occupation: form.occupation,
      guardian: form.guardian,
      at: now,
    });
    return ok({ wearerId: id });
  },
});

export const updateWearer = defineCommand({
  name: 'updateWearer',
  right: 'wearers',
  input: updateWearerForm,
  about: (form) => ({ subjectKind: 'wearer', subjectId: form.wearerId }),
  run: async (context, form) => {
    const { tx, caller, today, now } = context;
    if (form.birthDate > today) return invalid('birthDate', 'birthDateInFuture', { value: form.birthDate });
    const before = await findWearer(tx, caller.practiceId, form.wearerId);
    if (!before) return notFound('wearer');
    const { wearerId, version, name, birthDate, telephone, occupation, guardian } = form;
    const done = await updateIdentity(
      tx,
      caller.practiceId,
      { id: wearerId, version, name, birthDate, telephone, occupation, guardian },
      { id: context.newId(), at: now, by: caller.personId },
    );
    if (!done) {
      const differs = [
        ['name', before.name, form.name],
        ['birthDate', before.birthDate, form.birthDate],
        ['telephone', before.telephone ?? '', form.telephone ?? ''],
        ['occupation', before.occupation ?? '', form.occupation ?? ''],
        ['guardian', before.guardian ?? '', form.guardian ?? ''],
      ] as const;
      return err({
        kind: 'conflict',
        what: 'wearer',
        differs: differs.filter(([, there, mine]) => there !== mine).map(([what, there]) => ({ what, eye: null, text: there, by: '', at: now })),
      });
    }
    return ok({ wearerId: form.wearerId });
  },
});
