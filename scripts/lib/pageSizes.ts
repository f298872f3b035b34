import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { runInNewContext } from 'node:vm';
import { gzipSync } from 'node:zlib';

/** What the scripts of one page weigh, as its first view asks for them. */
export interface PageSize {
  /** Address, with its parameters. */
  readonly page: string;
  readonly bytes: number;
  readonly gzipped: number;
  /** Parts of what is loaded, heaviest first. */
  readonly files: readonly { readonly name: string; readonly gzipped: number }[];
}

/** Budgets in bytes, gzipped: React and Next alone are about 125 kB. */
export const BUDGET = { plain: 170_000, visit: 220_000 } as const;
export const budgetOf = (page: string): number => (page.startsWith('/visits/') ? BUDGET.visit : BUDGET.plain);

interface Manifest {
  readonly entryJSFiles: Readonly<Record<string, readonly string[]>>;
}

function manifestsUnder(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return manifestsUnder(path);
    return entry.name === 'page_client-reference-manifest.js' ? [path] : [];
  });
}

/** The scripts of every page of a build. @param distDir folder of the build */
export function pageSizes(distDir: string): PageSize[] {
  const main = (JSON.parse(readFileSync(join(distDir, 'build-manifest.json'), 'utf8')) as { readonly rootMainFiles: readonly string[] }).rootMainFiles;
  const weights = new Map<string, { readonly bytes: number; readonly gzipped: number }>();
  const weigh = (file: string): { readonly bytes: number; readonly gzipped: number } => {
    const known = weights.get(file);
    if (known) return known;
    const script = readFileSync(join(distDir, file));
    const weight = { bytes: script.length, gzipped: gzipSync(script).length };
    weights.set(file, weight);
    return weight;
  };
  const app = join(distDir, 'server', 'app');
  return manifestsUnder(app)
    .map((path): PageSize => {
      const sandbox: { __RSC_MANIFEST?: Record<string, Manifest>; globalThis?: unknown } = {};
      sandbox.globalThis = sandbox;
      runInNewContext(readFileSync(path, 'utf8'), sandbox);
      const [manifest] = Object.values(sandbox.__RSC_MANIFEST ?? {});
      if (!manifest) throw new Error(`no manifest in ${path}`);
      const files = [...new Set([...main, ...Object.values(manifest.entryJSFiles).flat()])].filter((f) => f.endsWith('.js') && existsSync(join(distDir, f)));
      const sum = (of: 'bytes' | 'gzipped'): number => files.reduce((total, file) => total + weigh(file)[of], 0);
      const page = path.slice(app.length, -'/page_client-reference-manifest.js'.length) || '/';
      const parts = files.map((name) => ({ name, gzipped: weigh(name).gzipped })).sort((a, b) => b.gzipped - a.gzipped);
      return { page, bytes: sum('bytes'), gzipped: sum('gzipped'), files: parts };
    })
    .filter(({ page }) => !page.startsWith('/_'))
    .sort((a, b) => a.page.localeCompare(b.page));
}
