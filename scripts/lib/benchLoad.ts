import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { copyFileSync, existsSync, readdirSync, readFileSync, readlinkSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { performance } from 'node:perf_hooks';
import { connect, type Sql } from '../../src/db/client';
import { TEST_NOW } from '../../tests/support/moment';
import { fillLibrary } from './benchTyping';
import { addWearers } from './manyWearers';

const WEARERS = 20_000;
const VISITS_EACH = 3;
const FAMILIES = 500;
const PEOPLE = 50;
const EVERY_MS = 5000;
/** Until the engine has compiled what is used most: after it both go on at their own steady pace. */
const WARM_MS = 30_000;
const ROUNDS = 3;
const ROUND_MS = 15_000;
const PACED_MS = 30_000;
/** A page that takes longer is given up on, as the application itself does. */
const PATIENCE_MS = 20_000;
/** Steps that both versions have by this address. */
const STEPS = ['history', 'eye-health', 'lens', 'on-eye', 'supply'] as const;

interface Side {
  readonly name: string;
  readonly url: string;
  readonly cookie: string;
  readonly pages: readonly string[];
  readonly memoryMb: () => number;
  readonly stop: () => Promise<void>;
}

/** Wearers, and visits with powers and findings of both eyes, as years of work leave them. */
export async function fill(owner: Sql): Promise<readonly string[]> {
  const [practice] = await owner<{ id: string }[]>`select id from practice`;
  const practiceId = practice?.id ?? '';
  await fillLibrary(owner, FAMILIES, TEST_NOW);
  await addWearers(owner, practiceId, WEARERS, TEST_NOW);
  const [person] = await owner<{ id: string }[]>`select person_id as id from membership where 'prescriber' = any (roles) limit 1`;
  const by = person?.id ?? '';
  // The newest visit of each wearer is open.
  await owner`
    insert into visit (id, practice_id, wearer_id, kind, opened_at, opened_by, closed_at)
    select gen_random_uuid(), ${practiceId}, w.id, 'longFollowUp', ${TEST_NOW}::timestamptz - make_interval(days => 180 * (n - 1)), ${by},
      case when n > 1 then ${TEST_NOW}::timestamptz - make_interval(days => 180 * (n - 1) - 1) end
    from wearer w, generate_series(1, ${VISITS_EACH}) n where w.record_number > 100000`;
  await owner`
    insert into refraction (id, root_id, practice_id, visit_id, visit_version, eye, observed_at, recorded_at, recorded_by, sphere_d, cylinder_d, axis_deg, vertex_mm, typed_text)
    select f.id, f.id, ${practiceId}, v.id, 1, f.eye, v.opened_at, v.opened_at, ${by}, -3, -0.75, 20, 12, '-3.00 -0.75 x 20'
    from visit v cross join lateral (select gen_random_uuid() as id, e as eye, v.id as of from unnest(array['right', 'left']) e) f where v.kind = 'longFollowUp'`;
  await owner`
    insert into eye_finding (id, root_id, practice_id, visit_id, visit_version, eye, observed_at, recorded_at, recorded_by, sign, number_value)
    select f.id, f.id, ${practiceId}, v.id, 1, f.eye, v.opened_at, v.opened_at, ${by}, f.sign, 0.5
    from visit v cross join lateral (
      select gen_random_uuid() as id, e as eye, s as sign, v.id as of from unnest(array['right', 'left']) e, unnest(array['lidMargin', 'bulbarRedness', 'papillae', 'staining']) s) f
    where v.kind = 'longFollowUp'`;
  await owner`
    insert into history_answer (id, practice_id, visit_id, visit_version, question, value, recorded_at, recorded_by)
    select gen_random_uuid(), ${practiceId}, v.id, 1, a.question, a.value::jsonb, v.opened_at, ${by}
    from visit v, (values ('danger', '["none"]'), ('goals', '["sport"]'), ('dryness', '"evening"'), ('work', '["indoors"]'), ('daysPerWeek', '6'), ('water', '["never"]')) a (question, value)
    where v.kind = 'longFollowUp'`;
  await owner`analyze`;
  const open = await owner<{ id: string; wearerId: string }[]>`
    select id, wearer_id from visit where kind = 'longFollowUp' and closed_at is null order by md5(id::text) limit 400`;
  return open.flatMap((v, i) => [
    `/visits/${v.id}/${STEPS[i % STEPS.length] ?? ''}`,
    ...(i % 4 === 0 ? [`/wearers/${v.wearerId}`] : []),
    ...(i % 10 === 0 ? ['/', '/wearers'] : []),
  ]);
}

/** Memory of the web server that was started in a folder, MB. Next names its process anew: it is known by where it stands. */
function memoryOf(folder: string): number {
  const read = (path: string, how: (path: string) => string): string => {
    try {
      return how(path);
    } catch {
      return '';
    }
  };
  const text = (path: string): string => readFileSync(path, 'utf8');
  const sizes = readdirSync('/proc')
    .filter((pid) => /^\d+$/.test(pid) && read(`/proc/${pid}/cmdline`, text).startsWith('next-server') && read(`/proc/${pid}/cwd`, readlinkSync) === folder)
    .map((pid) => Number(/VmRSS:\s+(\d+)/.exec(read(`/proc/${pid}/status`, text))?.[1] ?? 0) / 1024);
  return Math.round(sizes.reduce((sum, size) => sum + size, 0));
}

/** Starts one version. @param folder where its sources stand */
async function open(name: string, folder: string): Promise<Side> {
  const child: ChildProcess = spawn(process.execPath, ['scripts/start.mjs', 'scripts/benchSide.ts', TEST_NOW], {
    cwd: folder,
    stdio: ['pipe', 'pipe', 'inherit'],
    env: { ...process.env, NODE_OPTIONS: '--conditions=react-server' },
  });
  const ready = await new Promise<{ url: string; ownerUrl: string; password: string }>((done, fail) => {
    let text = '';
    child.stdout?.on('data', (chunk: Buffer) => {
      text += chunk.toString();
      const line = text.split('\n').find((l) => l.startsWith('{'));
      if (line) done(JSON.parse(line) as { url: string; ownerUrl: string; password: string });
    });
    child.on('exit', () => fail(new Error(`${name} did not start`)));
  });
  const owner = connect(ready.ownerUrl, { max: 1 });
  const pages = await fill(owner);
  await owner.end();
  const signedIn = await fetch(`${ready.url}/api/session`, {
    method: 'POST',
    headers: { origin: ready.url, 'content-type': 'application/json' },
    body: JSON.stringify({ account: 'asha', password: ready.password }),
  });
  const cookie = signedIn.headers.get('set-cookie')?.split(';')[0] ?? '';
  const stop = (): Promise<void> =>
    new Promise((done) => {
      child.on('exit', () => done());
      child.stdin?.end();
    });
  return { name, url: ready.url, cookie, pages, memoryMb: () => memoryOf(folder), stop };
}

interface Driven {
  readonly pages: number;
  readonly late: number;
  readonly failed: number;
  readonly bytes: number;
  readonly ms: readonly number[];
}
const NOTHING: Driven = { pages: 0, late: 0, failed: 0, bytes: 0, ms: [] };
const together = (a: Driven, b: Driven): Driven => ({
  pages: a.pages + b.pages,
  late: a.late + b.late,
  failed: a.failed + b.failed,
  bytes: a.bytes + b.bytes,
  ms: [...a.ms, ...b.ms],
});

let turn = 0;
async function page(side: Side): Promise<Driven> {
  const path = side.pages[(turn += 1) % side.pages.length] ?? '/';
  const start = performance.now();
  try {
    const answer = await fetch(`${side.url}${path}`, { headers: { cookie: side.cookie }, signal: AbortSignal.timeout(PATIENCE_MS), redirect: 'manual' });
    const text = await answer.text();
    const fine = answer.status === 200 && text.includes('</html>');
    return { pages: fine ? 1 : 0, late: 0, failed: fine ? 0 : 1, bytes: text.length, ms: [performance.now() - start] };
  } catch {
    return { ...NOTHING, late: 1 };
  }
}

/** People who go from page to page. @param everyMs between two pages of one person; 0: as fast as they come */
async function drive(side: Side, people: number, everyMs: number, ms: number): Promise<Driven> {
  const end = performance.now() + ms;
  const one = async (index: number): Promise<Driven> => {
    let all = NOTHING;
    if (everyMs > 0) await new Promise((done) => setTimeout(done, (index * everyMs) / people));
    while (performance.now() < end) {
      const began = performance.now();
      all = together(all, await page(side));
      const rest = everyMs - (performance.now() - began);
      if (rest > 0) await new Promise((done) => setTimeout(done, rest));
    }
    return all;
  };
  return (await Promise.all(Array.from({ length: people }, (_, i) => one(i)))).reduce(together, NOTHING);
}

const at = (sorted: readonly number[], share: number): number => Math.round(sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0);
function line({ ms, late, failed, pages, bytes }: Driven, seconds: number): string {
  const sorted = [...ms].sort((a, b) => a - b);
  return `${(pages / seconds).toFixed(1).padStart(6)} pages/s, half in ${at(sorted, 0.5)} ms, 95 of 100 in ${at(sorted, 0.95)} ms, ${Math.round(bytes / 1000 / Math.max(1, pages))} kB a page, ${late} too late, ${failed} failed`;
}

/** Another version's sources, beside this one's packages. */
function sourcesOf(revision: string): string {
  const folder = join(tmpdir(), `keenfit-${revision}`);
  if (!existsSync(folder)) execFileSync('git', ['worktree', 'add', '--detach', folder, revision], { stdio: 'ignore' });
  // Packages have to stand inside the folder that is built: as links to the same files where they can be.
  if (!existsSync(join(folder, 'node_modules'))) {
    try {
      execFileSync('cp', ['-al', resolve('node_modules'), folder], { stdio: 'ignore' });
    } catch {
      execFileSync('cp', ['-a', resolve('node_modules'), folder]);
    }
  }
  copyFileSync('scripts/benchSide.ts', join(folder, 'scripts', 'benchSide.ts'));
  return folder;
}

/**
 * Fifty people on 20,000 wearers and 60,000 visits.
 * @param against a revision to be driven alternately, both in this one run; null for this version alone
 */
export async function benchLoad(against: string | null): Promise<void> {
  const sides = [await open('this version', resolve('.'))];
  if (against !== null) sides.push(await open(against, sourcesOf(against)));
  try {
    console.log(`\n${WEARERS} wearers, ${WEARERS * VISITS_EACH} visits, ${FAMILIES} families more.`);
    for (const side of sides) await drive(side, 8, 0, WARM_MS);
    const flatOut = new Map(sides.map((s) => [s, NOTHING]));
    const memory = new Map(sides.map((s) => [s, [s.memoryMb()]]));
    for (let round = 0; round < ROUNDS; round++) {
      for (const side of sides) {
        flatOut.set(side, together(flatOut.get(side) ?? NOTHING, await drive(side, 8, 0, ROUND_MS)));
        memory.get(side)?.push(side.memoryMb());
      }
    }
    console.log(`As fast as they come, eight at a time, ${ROUNDS} rounds of ${ROUND_MS / 1000} s, in turns:`);
    for (const side of sides)
      console.log(`  ${side.name.padEnd(14)} ${line(flatOut.get(side) ?? NOTHING, (ROUNDS * ROUND_MS) / 1000)}; memory ${memory.get(side)?.join(', ')} MB`);
    const [here, there] = sides.map((s) => flatOut.get(s)?.pages ?? 0);
    if (there) console.log(`  ${((here ?? 0) / there).toFixed(1)} times the pages a second`);
    console.log(`${PEOPLE} people, each a page every ${EVERY_MS / 1000} s, for ${PACED_MS / 1000} s:`);
    for (const side of sides)
      console.log(`  ${side.name.padEnd(14)} ${line(await drive(side, PEOPLE, EVERY_MS, PACED_MS), PACED_MS / 1000)}; memory ${side.memoryMb()} MB`);
  } finally {
    for (const side of sides) await side.stop();
  }
}
