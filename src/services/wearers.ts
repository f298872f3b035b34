import 'server-only';
import { nextNumber } from '../db/practices';
import { findNamesakes, findWearer, insertWearer, listIdentityChanges, listWearers, updateIdentity, type WearerListRow } from '../db/wearers';
import { err, invalid, notFound, ok } from '../lib/outcome';
import { createWearerForm, searchForm, updateWearerForm, wearerForm } from '../schema/wearerForms';
import { defineService } from './define';
import { houseOf, readWearerFile, type House, type WearerFile } from './visitRecord';

export const createWearer = defineService({
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

export const updateWearer = defineService({
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

export const searchWearers = defineService({
  name: 'searchWearers',
  right: 'read',
  input: searchForm,
  about: () => null,
  run: async (context, form): Promise<{ ok: true; value: { house: House; wearers: WearerListRow[] } }> =>
    ok({ house: await houseOf(context), wearers: await listWearers(context.tx, context.caller.practiceId, form.search) }),
});

export const readWearer = defineService({
  name: 'readWearer',
  right: 'read',
  input: wearerForm,
  about: (form) => ({ subjectKind: 'wearer', subjectId: form.wearerId }),
  run: async (context, form) => {
    const file = await readWearerFile(context, form.wearerId);
    if (!file) return notFound('wearer');
    const identityChanges = await listIdentityChanges(context.tx, context.caller.practiceId, form.wearerId);
    const page: WearerFile & { readonly house: House; readonly identityChanges: typeof identityChanges } = {
      ...file,
      house: await houseOf(context),
      identityChanges,
    };
    return ok(page);
  },
});
