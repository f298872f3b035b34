import { connect, type Sql } from '../../src/db/client';
import { findAlike, findByBeginning, findByNumber, findByParts, listWearers, wordsOf, type WearerListRow } from '../../src/db/wearerSearch';
import { TEST_NOW } from '../../tests/support/moment';
import { addWearers } from './manyWearers';

const MANY = 100_000;
const MOST = 20;

interface Plan {
  readonly Plan: { readonly 'Shared Hit Blocks': number; readonly 'Shared Read Blocks': number };
  readonly 'Execution Time': number;
}

/** What finding one of 100,000 wearers costs: rows returned, and pages of the database looked at for them. */
export async function benchWearers(owner: Sql, url: string): Promise<void> {
  const [practice] = await owner<{ id: string }[]>`select id from practice`;
  const practiceId = practice?.id ?? '';
  await addWearers(owner, practiceId, MANY, TEST_NOW);
  const [size] = await owner<{ pages: number }[]>`select relpages as pages from pg_class where relname = 'wearer_identity'`;
  let sent: { readonly text: string; readonly parameters: unknown[] } | null = null;
  const sql = connect(url, { max: 1, onStatement: (text, parameters) => (/wearer/.test(text) ? (sent = { text, parameters }) : undefined) });
  const last = async (): Promise<Plan | undefined> => {
    if (!sent) return undefined;
    const { text, parameters } = sent as { text: string; parameters: never[] };
    const [row] = await sql.unsafe<{ 'QUERY PLAN': [Plan] }[]>(`explain (analyze, buffers, format json) ${text}`, parameters);
    return Object.values(row ?? {})[0]?.[0];
  };
  console.log(`\nFinding one of ${MANY.toLocaleString('en')} wearers (their table has ${size?.pages ?? 0} pages); the top ${MOST}:`);
  const ask = async (what: string, find: (tx: Sql) => Promise<readonly WearerListRow[]>): Promise<void> => {
    await find(sql);
    const rows = await find(sql);
    const plan = await last();
    const blocks = (plan?.Plan['Shared Hit Blocks'] ?? 0) + (plan?.Plan['Shared Read Blocks'] ?? 0);
    console.log(
      `  ${what.padEnd(46)} ${String(rows.length).padStart(3)} rows, ${String(blocks).padStart(5)} pages, ${(plan?.['Execution Time'] ?? 0).toFixed(1)} ms`,
    );
  };
  const words = (text: string) => wordsOf(owner, text);
  await ask('by number', (tx) => findByNumber(tx, practiceId, 101_234));
  for (const text of ['a', 'ca', 'celia', 'Célia Ann Q']) {
    const of = await words(text);
    await ask(`name begins “${text}”`, (tx) => findByBeginning(tx, practiceId, of, MOST));
  }
  for (const text of ['q', 'quar', 'quarö', 'mc kel', 'tess quaran', 'obaröb']) {
    const of = await words(text);
    await ask(`a part begins “${text}”`, (tx) => findByParts(tx, practiceId, of, MOST));
  }
  for (const text of ['quarandlae', 'tess qaurondale', 'salinwort', 'celia lormnot']) {
    const of = await words(text);
    await ask(`mistyped “${text}”`, (tx) => findAlike(tx, practiceId, of, MOST));
  }
  await ask('the whole list, first page', (tx) => listWearers(tx, practiceId, null, MOST));
  const [middle] = await owner<{ name: string; id: string }[]>`select name, wearer_id as id from wearer_identity order by name, wearer_id offset 50000 limit 1`;
  await ask('the whole list, a page in the middle', (tx) => listWearers(tx, practiceId, middle ?? null, MOST));
  await sql.end();
}
