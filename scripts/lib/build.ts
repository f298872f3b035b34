import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { END_WITH_PARENT } from './children';

function hashFolder(folder: string, hash: ReturnType<typeof createHash>): void {
  for (const name of readdirSync(folder).sort()) {
    const path = join(folder, name);
    if (statSync(path).isDirectory()) hashFolder(path, hash);
    else if (!/\.test\.tsx?$/.test(name)) hash.update(path).update(readFileSync(path));
  }
}

/** Builds the web application into `distDir` unless it stands there already, made from the same sources; `again` builds whatever stands there. */
export async function ensureBuild(distDir: string, options: { readonly again?: boolean } = {}): Promise<{ built: boolean }> {
  const hash = createHash('sha256');
  for (const file of [
    'package.json',
    'package-lock.json',
    'next.config.ts',
    'postcss.config.mjs',
    'tsconfig.json',
    join('scripts', 'lib', 'messagesLoader.cjs'),
  ])
    hash.update(readFileSync(file));
  hashFolder('src', hash);
  const digest = hash.digest('hex');
  const mark = join(distDir, 'keen-fit-sources');
  if (options.again !== true && existsSync(mark) && readFileSync(mark, 'utf8') === digest && existsSync(join(distDir, 'BUILD_ID'))) return { built: false };
  await nextBuild(distDir);
  mkdirSync(dirname(mark), { recursive: true });
  writeFileSync(mark, digest);
  return { built: true };
}

function nextBuild(distDir: string): Promise<void> {
  const env = { ...process.env, NODE_ENV: 'production', NEXT_TELEMETRY_DISABLED: '1', KEENFIT_DIST: distDir } as const;
  // A build that outlived a start that was killed would bar the next one.
  const args = ['--import', END_WITH_PARENT, join('node_modules', 'next', 'dist', 'bin', 'next'), 'build'];
  const build = spawn(process.execPath, args, { stdio: ['pipe', 'ignore', 'inherit'], env });
  return new Promise((resolve, reject) => {
    build.once('error', reject);
    build.once('exit', (code, signal) => (code === 0 ? resolve() : reject(new Error(`the application could not be built (${signal ?? String(code)})`))));
  });
}
