import 'server-only';
import { listImports, type ImportRow } from '../../db/catalogueImport';
import { asCatalogue, findFamilyInForce, listFamilies, listFamilyVersions, type FamilyWithBlocks, type VersionMark } from '../../db/family';
import { listFamilyUse, type FamilyUse } from '../../db/familyEnding';
import { listCarePairs, type CarePairRow } from '../../db/carePair';
import { listCareProducts, type CareProductRow } from '../../db/careProduct';
import { listHouseList, type HouseListRow } from '../../db/houseList';
import { listTrialStock, type TrialStockRow } from '../../db/trialStock';
import { cellsOf, writeCatalogue } from '../../formats/catalogueCsv';
import { must } from '../../lib/assert';
import { notFound, ok } from '../../lib/outcome';
import type { Cells } from '../../schema/catalogue';
import { emptyForm } from '../../schema/fields';
import { familiesForm, familyForm } from '../../schema/family';
import { defineQuery, libraryTag } from '../define';
import { sessionContextOf, type SessionContext } from '../sessionContext';

export interface LibraryPage {
  readonly session: SessionContext;
  readonly families: readonly FamilyWithBlocks[];
  readonly houseList: readonly HouseListRow[];
  /** The last files that were brought in. */
  readonly imports: readonly ImportRow[];
}

export const readLibrary = defineQuery({
  name: 'readLibrary',
  right: 'read',
  input: emptyForm,
  about: () => null,
  run: async (context) => {
    const { tx, caller, today } = context;
    const page: LibraryPage = {
      session: sessionContextOf(context),
      families: await listFamilies(tx, caller.practiceId, today),
      houseList: await listHouseList(tx, caller.practiceId),
      imports: await listImports(tx, caller.practiceId),
    };
    return ok(page);
  },
});

export interface FamilyPage {
  readonly session: SessionContext;
  /** Newest first; one announced stands before the one in force. */
  readonly versions: readonly (FamilyWithBlocks & VersionMark)[];
  /** The version in force today; null while the family is only announced. */
  readonly inForce: FamilyWithBlocks | null;
  /** The newest version as lines of a catalogue, for changing it. */
  readonly lines: readonly Cells[];
  readonly stock: readonly TrialStockRow[];
  readonly use: readonly FamilyUse[];
  /** What might replace it. */
  readonly others: readonly { readonly code: string; readonly name: string }[];
}

export const readFamily = defineQuery({
  name: 'readFamily',
  right: 'read',
  input: familyForm,
  about: () => null,
  run: async (context, form) => {
    const { tx, caller, today } = context;
    const versions = await listFamilyVersions(tx, caller.practiceId, form.code);
    if (versions.length === 0) return notFound('family');
    const page: FamilyPage = {
      session: sessionContextOf(context),
      versions,
      lines: versions[0]?.blocks.map((block) => cellsOf(asCatalogue(must(versions[0], 'version')), block)) ?? [],
      inForce: await findFamilyInForce(tx, caller.practiceId, form.code, today),
      stock: (await listTrialStock(tx, caller.practiceId)).filter((s) => s.familyCode === form.code),
      use: await listFamilyUse(tx, caller.practiceId, form.code, today),
      others: (await listFamilies(tx, caller.practiceId, today)).filter((f) => f.code !== form.code).map(({ code, name }) => ({ code, name })),
    };
    return ok(page);
  },
});

/** Every family in force as a catalogue file. */
export const exportCatalogue = defineQuery({
  name: 'exportCatalogue',
  right: 'read',
  input: emptyForm,
  about: () => null,
  run: async ({ tx, caller, today }) => ok({ csv: writeCatalogue((await listFamilies(tx, caller.practiceId, today)).map(asCatalogue)) }),
});

/** What the lens library says today, to every visit alike. */
export interface Library {
  readonly families: readonly FamilyWithBlocks[];
  readonly careProducts: readonly CareProductRow[];
  /** Solutions that do not go with a material. */
  readonly carePairs: readonly CarePairRow[];
  readonly houseList: readonly HouseListRow[];
}

/** The practice's library for the pages of a visit: sent only to who does not hold it as it stands. */
export const readFamilies = defineQuery({
  name: 'readFamilies',
  right: 'read',
  audited: false,
  input: familiesForm,
  about: () => null,
  run: async (context, form): Promise<{ ok: true; value: { readonly tag: string; readonly library: Library | null } }> => {
    const tag = libraryTag(context);
    if (form.known === tag) return ok({ tag, library: null });
    const { practiceId } = context.caller;
    const [families, careProducts, carePairs, houseList] = [
      await listFamilies(context.tx, practiceId, context.today),
      await listCareProducts(context.tx, practiceId),
      await listCarePairs(context.tx, practiceId),
      await listHouseList(context.tx, practiceId),
    ];
    return ok({ tag, library: { families, careProducts, carePairs, houseList } });
  },
});
