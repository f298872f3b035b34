import 'server-only';
import { lensesLost, mergeBlocks, type CatalogueFamily, type LensBlock, writeAddTable, writeChangeRule, writeSetTable, writeStartTable } from '../core';
import { claimImport, listTakeable, noteProgress, readImportBytes, settleImport, storeCheck, type ClaimedImport } from '../db/catalogueImport';
import type { Sql } from '../db/client';
import { markAll } from '../db/eyeRunway';
import { asCatalogue, findFamily, insertFamily, listFamilies, newestVersion } from '../db/family';
import { holdPractice } from '../db/practice';
import { openCatalogue } from '../formats/catalogueCsv';
import type { Clock } from '../lib/clock';
import { CatalogueReader } from '../schema/catalogue';

export interface ImportDeps {
  readonly sql: Sql;
  readonly clock: Clock;
}

/** Names of what parts the cells, for the screen. */
const DELIMITERS: Readonly<Record<string, string>> = { ',': 'comma', ';': 'semicolon', '\t': 'tab' };

/** Lines read, or families taken, between two looks at whether to stop. */
const LINES_A_BREATH = 1000;

/** Most families of one file. All that is made in the world is less: our own choice. */
export const MOST_FAMILIES = 5000;
/** Families taken between two words on how far it is. */
const FAMILIES_A_BREATH = 20;
/** How often a file is tried that ended the process which worked on it. */
const MOST_ATTEMPTS = 2;

/** Thrown inside the one transaction to undo it. */
class Stopped extends Error {}

/** A block as text, whatever the order in which its parts were stored. */
const blockText = (b: LensBlock): string =>
  [
    ...[b.spheres, b.axes].map((r) => `${r.from} ${r.to} ${r.from === r.to ? '' : r.step}`),
    b.cylinders.join(' '),
    b.adds.join(' '),
    b.curves.map((c) => `${c.baseCurve}/${c.diameter}`).join(' '),
  ].join('|');

/** A family as text that is the same for the same lenses, whatever the order of its lines. */
function fingerprint(family: CatalogueFamily): string {
  const { blocks, startsOn: _starts, addTable, startTable, setTable, changeRule, ...facts } = family;
  const tables = {
    addTable: writeAddTable(addTable),
    startTable: writeStartTable(startTable),
    setTable: writeSetTable(setTable),
    changeRule: changeRule && writeChangeRule(changeRule),
  };
  const ordered = Object.entries({ ...facts, ...tables }).sort(([a], [b]) => (a < b ? -1 : 1));
  return JSON.stringify([ordered, mergeBlocks(blocks).map(blockText).sort()]);
}

/** Reads a file line by line, a breath at a time; nothing of the library changes. */
async function check(deps: ImportDeps, claimed: ClaimedImport): Promise<void> {
  const { sql } = deps;
  const settle = async (state: 'broken' | 'cancelled', notes: Readonly<Record<string, string | number>>): Promise<void> =>
    settleImport(sql, claimed.id, state, await deps.clock.now(), notes);
  const open = openCatalogue(await readImportBytes(sql, claimed.id));
  if (!open.ok) return settle('broken', { ...open.error.data, code: open.error.code });
  const { rows, width, encoding, delimiter, unknown } = open.value;
  const codes = new Set(rows.map((row) => row.cells.family_code ?? '')).size;
  if (codes > MOST_FAMILIES) return settle('broken', { code: 'fileFamilies', families: codes, max: MOST_FAMILIES });
  const reader = new CatalogueReader();
  for (let from = 0; from < rows.length; from += LINES_A_BREATH) {
    if (await noteProgress(sql, claimed.id, from, rows.length)) return settle('cancelled', {});
    for (const row of rows.slice(from, from + LINES_A_BREATH)) {
      if (row.count !== width) reader.odd(row.line, row.count, width);
      else reader.add(row.line, row.cells);
    }
  }
  const today = (await deps.clock.now()).slice(0, 10);
  const there = new Map((await listFamilies(sql, claimed.practiceId, today)).map((f) => [f.code, f]));
  const families = reader.codes().map((code) => {
    const read = reader.family(code);
    const old = there.get(code);
    const change = !old ? 'new' : read && fingerprint(read.family) === fingerprint(asCatalogue(old)) ? 'same' : 'changed';
    return { code, ...reader.countOf(code), change, family: read?.family ?? null };
  });
  if (await noteProgress(sql, claimed.id, rows.length, rows.length)) return settle('cancelled', {});
  const at = await deps.clock.now();
  await sql.begin(async (tx) => {
    await storeCheck(tx, claimed.id, { faults: reader.faults, families });
    await settleImport(tx, claimed.id, 'checked', at, {
      encoding,
      delimiter: DELIMITERS[delimiter] ?? delimiter,
      unknown: unknown.join(', '),
      lines: rows.length,
    });
  });
}

/** Takes in what was read without fault: all of it in one transaction, or nothing. */
async function take(deps: ImportDeps, claimed: ClaimedImport): Promise<void> {
  const { sql } = deps;
  const at = await deps.clock.now();
  const families = await listTakeable(sql, claimed.id);
  try {
    await sql.begin(async (tx) => {
      await holdPractice(tx, claimed.practiceId);
      for (const [index, { code, family }] of families.entries()) {
        // Beside the transaction, so that it is seen, and the wish to stop is heard.
        if (index % FAMILIES_A_BREATH === 0 && (await noteProgress(sql, claimed.id, index, families.length))) throw new Stopped();
        const version = (await newestVersion(tx, claimed.practiceId, code)) + 1;
        const row = { ...family, id: crypto.randomUUID(), version, listed: true, startsOn: claimed.startsOn, createdBy: claimed.createdBy };
        await insertFamily(tx, claimed.practiceId, row, at, () => crypto.randomUUID());
        const kept = await findFamily(tx, claimed.practiceId, row.id);
        const lost = kept ? lensesLost(family.blocks, kept) : { file: family.blocks.length, library: 0 };
        if (lost) throw new Error(`${code}: ${lost.file} lenses in the file, ${lost.library} in the library`);
      }
      await markAll(tx, claimed.practiceId);
      await settleImport(tx, claimed.id, 'taken', at, { taken: families.length });
    });
  } catch (cause) {
    if (!(cause instanceof Stopped)) throw cause;
    await settleImport(sql, claimed.id, 'cancelled', at);
  }
}

/** Works on one catalogue file, if one waits. True when it did something. */
export async function importOne(deps: ImportDeps): Promise<boolean> {
  const claimed = await claimImport(deps.sql);
  if (!claimed) return false;
  if (claimed.attempts > MOST_ATTEMPTS)
    await settleImport(deps.sql, claimed.id, 'broken', await deps.clock.now(), { code: 'importGivenUp', attempts: MOST_ATTEMPTS });
  else await (claimed.state === 'checking' ? check(deps, claimed) : take(deps, claimed));
  return true;
}
