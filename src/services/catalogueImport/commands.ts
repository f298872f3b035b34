import 'server-only';
import { askImport, countImportFamilies, findImport, insertImport } from '../../db/catalogueImport';
import { invalid, notFound, ok, ruleBroken } from '../../lib/outcome';
import { importForm, importUploadForm, takeImportForm } from '../../schema/catalogueImport';
import { defineCommand } from '../define';

/** Puts a file where the jobs find it. Nothing of the library changes. */
export const recordImport = defineCommand({
  name: 'recordImport',
  right: 'settings',
  input: importUploadForm,
  about: (_form, out: { importId: string }) => ({ subjectKind: 'catalogueImport', subjectId: out.importId }),
  run: async (context, form) => {
    const importId = context.newId();
    await insertImport(context.tx, {
      id: importId,
      practiceId: context.caller.practiceId,
      fileName: form.fileName,
      bytes: form.bytes,
      at: context.now,
      by: context.caller.personId,
    });
    return ok({ importId });
  },
});

/** Has what was read without fault taken in, from a day on. */
export const takeImport = defineCommand({
  name: 'takeImport',
  right: 'settings',
  input: takeImportForm,
  about: (form) => ({ subjectKind: 'catalogueImport', subjectId: form.importId }),
  run: async ({ tx, caller, today }, form) => {
    if (form.startsOn < today) return invalid('startsOn', 'startPast');
    const file = await findImport(tx, caller.practiceId, form.importId);
    if (!file) return notFound('import');
    if ((await countImportFamilies(tx, file.id)).take.families === 0) return ruleBroken('nothingToTake');
    return (await askImport(tx, caller.practiceId, file.id, { take: form.startsOn })) ? ok({ importId: file.id }) : ruleBroken('importMovedOn');
  },
});

export const cancelImport = defineCommand({
  name: 'cancelImport',
  right: 'settings',
  input: importForm,
  about: (form) => ({ subjectKind: 'catalogueImport', subjectId: form.importId }),
  run: async ({ tx, caller }, form) => {
    const file = await findImport(tx, caller.practiceId, form.importId);
    if (!file) return notFound('import');
    return (await askImport(tx, caller.practiceId, file.id, { cancel: true })) ? ok({ importId: file.id }) : ruleBroken('importMovedOn');
  },
});
