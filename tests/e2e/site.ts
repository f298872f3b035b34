import { expect, test as base, type Page } from '@playwright/test';
import { startSite, type Site } from '../../scripts/lib/site';
import { DEMO_PASSWORD } from '../../demo/load';
import { createDatabase, type TestDatabase } from '../support/database';
import { TEST_NOW, TEST_TODAY } from '../support/moment';

/** A site of its own for one file of tests: database, web server, jobs, supplier. */
export interface TestSite extends Site {
  readonly db: TestDatabase;
  fault(fault: string): Promise<void>;
  /** Moves the server's clock. */
  move(seconds: number): Promise<void>;
  /** The server's moment, ms. */
  now(): Promise<number>;
}

async function openSite(camera: boolean): Promise<TestSite> {
  const db = await createDatabase();
  await db.owner`update app_clock set offset_seconds = extract(epoch from (${TEST_NOW}::timestamptz - now()))::bigint`;
  const site = await startSite({
    databaseUrl: db.appUrl,
    mode: 'test',
    distDir: '.next-test',
    demoPassword: DEMO_PASSWORD,
    supplierToday: TEST_TODAY,
    supplierSlowMs: 8000,
    camera,
  });
  siteUrl = site.url;
  return {
    ...site,
    db,
    fault: async (fault) => {
      await fetch(`${site.supplierUrl}/fault`, { method: 'PUT', body: JSON.stringify({ fault }) });
    },
    move: async (seconds) => {
      await db.owner`update app_clock set offset_seconds = offset_seconds + ${seconds}`;
    },
    now: async () => {
      const [row] = await db.owner<{ ms: number }[]>`select (extract(epoch from now()) * 1000)::float8 + offset_seconds * 1000 as ms from app_clock`;
      return Math.round(row?.ms ?? 0);
    },
    stop: async () => {
      // At once: nobody waits here for connections that are kept open.
      await site.stop('SIGKILL');
      await db.close();
    },
  };
}

const COMPLAINTS: string[] = [];

/** Tests of one file share a site; every page's console is watched for refused scripts and crashes. */
export const test = base.extend<object, { file: string; camera: boolean; site: TestSite }>({
  // Each file names itself, which gives it a worker, and so a site, of its own.
  file: ['', { option: true, scope: 'worker' }],
  /** A slit-lamp camera stands in the room. */
  camera: [false, { option: true, scope: 'worker' }],
  site: [
    async ({ file, camera }, hand) => {
      if (file === '') throw new Error('test.use({ file: … }) is missing');
      const site = await openSite(camera);
      await hand(site);
      await site.stop();
    },
    { scope: 'worker', timeout: 120_000 },
  ],
  baseURL: async ({ site }, hand) => hand(site.url),
  page: async ({ page, site }, hand) => {
    await page.clock.install({ time: await site.now() });
    watch(page);
    waitForLife(page);
    await hand(page);
    expect(COMPLAINTS.splice(0), 'console complaints').toEqual([]);
  },
});

/** Waits until the page takes presses. */
export async function alive(page: Page): Promise<void> {
  if (/\/sign-in|^about:/.test(new URL(page.url()).pathname)) return;
  await page.waitForFunction(() => document.documentElement.dataset.ready === 'yes' || document.querySelector('.rail, .paper-page') === null);
}

/** A page that was drawn on the server takes presses only once it has come to life. */
export function waitForLife(page: Page): void {
  const { goto, reload } = { goto: page.goto.bind(page), reload: page.reload.bind(page) };
  page.goto = async (...args) => {
    const response = await goto(...args);
    await alive(page);
    return response;
  };
  page.reload = async (...args) => {
    const response = await reload(...args);
    await alive(page);
    return response;
  };
}

export function watch(page: Page): void {
  page.on('console', (message) => {
    if (/Content Security Policy|Refused to|Hydration|hydrat/i.test(message.text())) COMPLAINTS.push(message.text());
  });
  page.on('pageerror', (error) => COMPLAINTS.push(String(error)));
}

/** The site that the tests of this process use: a worker runs one file, a file has one site. */
let siteUrl = '';
/** Asks the server as a page of this browser would, without waiting for one. */
async function ask(page: Page, path: string, input: object): Promise<Response> {
  const cookie = (await page.context().cookies()).map((c) => `${c.name}=${c.value}`).join('; ');
  const headers = { 'content-type': 'application/json', origin: siteUrl, cookie };
  return fetch(`${siteUrl}${path}`, { method: 'POST', headers, body: JSON.stringify(input) });
}

/** Signs in as people do, on the page. */
export async function signInOnPage(page: Page, name: RegExp = /Asha Penhallow/): Promise<void> {
  await page.goto('/sign-in');
  await page.getByRole('button', { name }).click();
  await page.getByLabel('Password').fill(DEMO_PASSWORD);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL('**/');
  await alive(page);
}

/** Signs one of the demo's staff in without the page, which most tests are not about. */
export async function signIn(page: Page, account: 'asha' | 'teo' | 'joss' | 'renny' | 'merle' = 'asha'): Promise<void> {
  const answer = await ask(page, '/api/session', { account, password: DEMO_PASSWORD });
  if (!answer.ok) throw new Error(`${account}: ${await answer.text()}`);
  // A page that was open before has perhaps locked this browser meanwhile; whoever signs in opens it.
  if (page.url().startsWith(siteUrl)) {
    await page.goto('/sign-in');
    await page.evaluate(() => localStorage.removeItem('keenfit-locked'));
  }
  // Secure cookies go to this machine's own address without TLS as well; only the browser's store asks for a secure address.
  const url = siteUrl.replace('http:', 'https:');
  const pairs = answer.headers.getSetCookie().map((line) => line.slice(0, line.indexOf(';')).split('='));
  await page.context().addCookies(pairs.map(([name = '', value = '']) => ({ name, value, url, httpOnly: true, secure: true, sameSite: 'Strict' })));
}

/** Asks the server for a use case as the signed-in page would. */
async function call(page: Page, path: string, input: object): Promise<unknown> {
  const result = (await (await ask(page, path, input)).json()) as { ok: boolean; value: unknown; part: unknown };
  if (!result.ok) throw new Error(`${path}: ${JSON.stringify(result)}`);
  return result.value;
}
export const command = async (page: Page, name: string, input: object): Promise<Record<string, string>> =>
  (await call(page, `/api/commands/${name}`, input)) as Record<string, string>;

/** What a visit's pages have read of it, and the practice's library. */
export async function readRecord<Wanted>(
  page: Page,
  visitId: string,
): Promise<Wanted & { readonly visit: { version: number }; readonly wearer: { id: string } }> {
  const { part } = (await call(page, '/api/queries/readVisit', { visitId, page: 'lens' })) as { part: { head: object; slices: Record<string, object> } };
  const { library } = (await call(page, '/api/queries/readFamilies', {})) as { library: object };
  return Object.assign({}, part.head, ...Object.values(part.slices), library) as Wanted & { visit: { version: number }; wearer: { id: string } };
}

let nextWearer = 0;
/** A new wearer with a visit open; returns the visit's address. */
export async function newVisit(page: Page, kind = 'firstFit', identity: object = {}): Promise<string> {
  nextWearer += 1;
  const { wearerId } = await command(page, 'createWearer', { name: `Wearer ${String.fromCharCode(64 + nextWearer)}`, birthDate: '1990-01-02', ...identity });
  const { visitId } = await command(page, 'openVisit', { wearerId, kind });
  return `/visits/${visitId ?? ''}`;
}

/** The same, with its step of the refraction on the screen. */
export async function openVisit(page: Page, kind = 'firstFit', identity: object = {}): Promise<string> {
  const visit = await newVisit(page, kind, identity);
  await page.goto(`${visit}/refraction`);
  return visit;
}

/** Says answers of the history, as the technician's sheet would. */
export async function say(page: Page, visit: string, answers: Readonly<Record<string, unknown>>): Promise<void> {
  const visitId = visit.split('/').pop() ?? '';
  const record = await readRecord(page, visitId);
  const list = Object.entries(answers).map(([question, value]) => ({ question, value, note: null }));
  await command(page, 'recordHistory', { visitId, version: record.visit.version, answers: list });
}
/** Records findings, as the slit-lamp page would. */
export async function see(page: Page, visit: string, right: Readonly<Record<string, unknown>>, left: Readonly<Record<string, unknown>> = right): Promise<void> {
  const visitId = visit.split('/').pop() ?? '';
  const record = await readRecord(page, visitId);
  const list = (all: Readonly<Record<string, unknown>>) => Object.entries(all).map(([sign, value]) => ({ sign, value }));
  await command(page, 'recordFindings', { visitId, version: record.visit.version, right: list(right), left: list(left) });
}

export async function typePowers(page: Page, right: string | null, left: string | null): Promise<void> {
  if (right) await page.getByLabel('Right eye, spectacle power').fill(right);
  if (left) await page.getByLabel('Left eye, spectacle power').fill(left);
  await page.getByRole('button', { name: 'Record and choose a lens' }).click();
  await page.waitForURL('**/lens');
}

/** Opens one of the three desks of the On eye step. */
export async function desk(page: Page, name: 'Rotation' | 'Fit' | 'Sight'): Promise<void> {
  await page.getByRole('group', { name: 'What is looked at' }).getByRole('button', { name }).click();
}

/** Types blinks one after another on the Turn desk, each kept by Enter. */
export async function typeBlinks(page: Page, eye: 'Right' | 'Left', ...turns: readonly string[]): Promise<void> {
  await desk(page, 'Rotation');
  const field = page.getByLabel(`${eye} eye, mark rotation`);
  for (const turn of turns) {
    await field.fill(turn);
    await field.press('Enter');
  }
}

/** A prescriber's sentence for everything that the last look asks. */
export async function saySentences(page: Page, why = 'looked at elsewhere this morning'): Promise<void> {
  for (const box of await page.getByRole('textbox', { name: /why sign all the same/i }).all()) await box.fill(why);
}

/** Turns the drawn mark by dragging it along the lens edge; `held` happens before the hand lets go. */
export async function dragMark(page: Page, eye: 'right' | 'left', toYourLeft: number, held?: () => Promise<void>): Promise<void> {
  const dial = page.getByTestId(`rotation-eye-${eye}`);
  await dial.scrollIntoViewIfNeeded();
  const box = await dial.boundingBox();
  if (!box) throw new Error('no dial');
  const scale = box.width / 360;
  const [cx, cy, radius] = [box.x + 180 * scale, box.y + (150 - 38) * scale, 100 * scale];
  const at = (degrees: number): [number, number] => [cx - radius * Math.sin((degrees * Math.PI) / 180), cy + radius * Math.cos((degrees * Math.PI) / 180)];
  await page.mouse.move(...at(0));
  await page.mouse.down();
  for (let i = 1; i <= 10; i++) await page.mouse.move(...at((toYourLeft * i) / 10));
  await held?.();
  await page.mouse.up();
}

export { expect };
