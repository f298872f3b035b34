import 'server-only';
import {
  countImportFamilies,
  countImportFaults,
  findImport,
  listImportFamilies,
  listImportFaults,
  type ImportCounts,
  type ImportFamilyRow,
  type ImportRow,
  type StoredFault,
} from '../../db/catalogueImport';
import { writeFaults } from '../../formats/catalogueCsv';
import { notFound, ok } from '../../lib/outcome';
import { importForm } from '../../schema/catalogueImport';
import { defineQuery } from '../define';
import { sessionContextOf, type SessionContext } from '../sessionContext';

/** Faults shown on the page; all of them are in the file of faults. */
const FAULTS_SHOWN = 400;
/** Families shown on the page, those with faults first. */
const FAMILIES_SHOWN = 300;

export interface ImportPage {
  readonly session: SessionContext;
  readonly file: ImportRow;
  readonly families: readonly ImportFamilyRow[];
  readonly counts: ImportCounts;
  readonly faults: readonly StoredFault[];
  readonly faultCounts: { readonly stop: number; readonly watch: number };
}

export const readImport = defineQuery({
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
      session: sessionContextOf(context),
      file,
      families: await listImportFamilies(tx, file.id, FAMILIES_SHOWN),
      counts: await countImportFamilies(tx, file.id),
      faults: await listImportFaults(tx, file.id, FAULTS_SHOWN),
      faultCounts: await countImportFaults(tx, file.id),
    };
    return ok(page);
  },
});

/** Every fault of a file, for the file of faults. */
export const readImportFaults = defineQuery({
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
