import { execFile } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';

const run = promisify(execFile);

/** Where Debian puts it; KEENFIT_CHROMIUM names another one. */
const USUAL_PLACES = ['/usr/bin/chromium', '/usr/bin/chromium-browser'];
/** One page takes under two seconds; what takes longer than this hangs. */
const PATIENCE_MS = 30_000;

/** The program that prints pages; null where this server has none. */
export const printingProgram = (): string | null =>
  [process.env.KEENFIT_CHROMIUM ?? '', ...USUAL_PLACES].find((path) => path !== '' && existsSync(path)) ?? null;

const SHUT_IN = [
  '--headless=new',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--disable-extensions',
  '--disable-dev-shm-usage',
  '--font-render-hinting=none',
  // The page holds all it needs: it asks no network.
  '--host-resolver-rules=MAP * ~NOTFOUND',
  '--no-pdf-header-footer',
];

/** One at a time: a page is a browser's work, and a server has others to do. */
let last: Promise<unknown> = Promise.resolve();
/** More than these do not wait: whoever asks again and again is told to come later. */
const MOST_WAITING = 8;
let waiting = 0;

/**
 * A page of HTML as PDF with real, tagged text in every script that its own fonts cover.
 * @param html a whole document that needs nothing from outside
 * @returns why not: this server has no program that prints, or too many wait for it
 */
export function printPage(html: string): Promise<Buffer | 'noPrinter' | 'busy'> {
  const program = printingProgram();
  if (program === null) return Promise.resolve('noPrinter');
  if (waiting >= MOST_WAITING) return Promise.resolve('busy');
  waiting += 1;
  const printed = last.then(() => print(program, html)).finally(() => (waiting -= 1));
  last = printed.catch(() => null);
  return printed;
}

async function print(program: string, html: string): Promise<Buffer> {
  const folder = await mkdtemp(join(tmpdir(), 'keenfit-page-'));
  try {
    const [page, pdf] = [join(folder, 'page.html'), join(folder, 'page.pdf')];
    await writeFile(page, html, { mode: 0o600 });
    // Its own sandbox needs a user who is not root.
    const asRoot = process.getuid?.() === 0 ? ['--no-sandbox'] : [];
    await run(program, [...SHUT_IN, ...asRoot, `--user-data-dir=${join(folder, 'profile')}`, `--print-to-pdf=${pdf}`, `file://${page}`], {
      timeout: PATIENCE_MS,
      killSignal: 'SIGKILL',
      env: { PATH: process.env.PATH ?? '', HOME: folder, LANG: 'C.UTF-8', NODE_ENV: 'production' },
    });
    return await readFile(pdf);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
