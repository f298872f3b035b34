import 'server-only';
import {
  askImport,
  countImportFaults,
  findImport,
  insertImport,
  listImportFamilies,
  listImportFaults,
  type ImportFamilyRow,
  type ImportRow,
  type StoredFault,
} from '../db/catalogueImports';
import { writeFaults } from '../formats/catalogueCsv';
import { invalid, notFound, ok, ruleBroken } from '../lib/outcome';
import { importForm, importUploadForm, takeImportForm } from '../schema/libraryForms';
import { defineService } from './define';
import { houseOf, type House } from './visitRecord';

/** Faults shown on the page; all of them are in the file of faults. */
const FAULTS_SHOWN = 400;

/** Puts a file where the jobs find it. Nothing of the library changes. */
export const recordImport = defineService({
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

export interface ImportPage {
  readonly house: House;
  readonly file: ImportRow;
  readonly families: readonly ImportFamilyRow[];
  readonly faults: readonly StoredFault[];
  readonly faultCounts: { readonly stop: number; readonly watch: number };
}

export const readImport = defineService({
  name: 'readImport',
  right: 'settings',
  input: importForm,
  audited: false,
  about: () => null,
  run: async (context, form) => {
    const { tx, caller } = context;
    const file = await findImport(tx, caller.practiceId, form.importId);
    if (!file) return notFound('import');
    const page: ImportPage = {
      house: await houseOf(context),
      file,
      families: await listImportFamilies(tx, file.id),
      faults: await listImportFaults(tx, file.id, FAULTS_SHOWN),
      faultCounts: await countImportFaults(tx, file.id),
    };
    return ok(page);
  },
});

/** Every fault of a file, for the file of faults. */
export const readImportFaults = defineService({
  name: 'readImportFaults',
  right: 'settings',
  input: importForm,
  about: (form) => ({ subjectKind: 'catalogueImport', subjectId: form.importId }),
  run: async ({ tx, caller }, form) => {
    const file = await findImport(tx, caller.practiceId, form.importId);
    if (!file) return notFound('import');
    return ok({ csv: writeFaults(await listImportFaults(tx, file.id, null)) });
  },
});

/** Has what was read without fault taken in, from a day on. */
export const takeImport = defineService({
  name: 'takeImport',
  right: 'settings',
  input: takeImportForm,
  about: (form) => ({ subjectKind: 'catalogueImport', subjectId: form.importId }),
  run: async ({ tx, caller, today }, form) => {
    if (form.startsOn < today) return invalid('startsOn', 'startPast');
    const file = await findImport(tx, caller.practiceId, form.importId);
    if (!file) return notFound('import');
    const families = await listImportFamilies(tx, file.id);
    if (!families.some((f) => f.faultCount === 0 && f.change !== 'same')) return ruleBroken('nothingToTake');
    return (await askImport(tx, caller.practiceId, file.id, { take: form.startsOn })) ? ok({ importId: file.id }) : ruleBroken('importMovedOn');
  },
});

export const cancelImport = defineService({
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
