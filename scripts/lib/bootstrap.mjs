// First steps on a machine that may have nothing but Debian and Node: cannot use anything that it installs.
import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join, dirname } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..');

/** Ends with one clear line instead of a stack trace. */
export function giveUp(line) {
  console.error(`\nKeen Fit: ${line}`);
  process.exit(1);
}

export function checkNode() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 20)) giveUp(`needs Node 20.20 or newer; this is ${process.versions.node}.`);
}

export function hasPostgres() {
  try {
    return readdirSync('/usr/lib/postgresql').some((v) => existsSync(`/usr/lib/postgresql/${v}/bin/initdb`));
  } catch {
    return false;
  }
}
export const hasChromium = () => existsSync('/usr/bin/chromium');
/** A reader of DICOM that shares nothing with ours. */
export const hasDicomTools = () => existsSync('/usr/bin/dciodvfy');

function apt(args) {
  const asRoot = process.getuid?.() === 0;
  const base = ['apt-get', '-y', '-o', 'DPkg::Lock::Timeout=120', ...args];
  const command = asRoot ? base : ['sudo', '-n', ...base];
  const run = spawnSync(command[0], command.slice(1), {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  });
  return run.status === 0;
}

/** Makes sure of Debian packages; `wanted` lists [package, isThere]. */
export function ensureDebian(wanted) {
  const missing = wanted.filter(([, isThere]) => !isThere()).map(([name]) => name);
  if (missing.length === 0) return;
  const byHand = `install them once with: apt-get install -y --no-install-recommends ${missing.join(' ')}`;
  if (!existsSync('/usr/bin/apt-get')) giveUp(`needs ${missing.join(' and ')}; ${byHand}`);
  if (process.getuid?.() !== 0 && spawnSync('sudo', ['-n', 'true']).status !== 0) {
    giveUp(`needs ${missing.join(' and ')} and may not install them; ${byHand}`);
  }
  console.log(`Installing Debian packages: ${missing.join(', ')} (once)`);
  // Debian's package would start a cluster of its own on 5432. Where nothing is configured yet, say no first.
  if (missing.includes('postgresql') && !existsSync('/etc/postgresql-common') && process.getuid?.() === 0) {
    mkdirSync('/etc/postgresql-common', { recursive: true });
    writeFileSync('/etc/postgresql-common/createcluster.conf', 'create_main_cluster = false\n');
  }
  if (!apt(['update', '-qq'])) console.log('apt-get update failed; trying with the lists at hand.');
  if (!apt(['install', '-qq', '--no-install-recommends', ...missing])) giveUp(`could not install ${missing.join(', ')}; ${byHand}`);
}

const digest = (text) => createHash('sha256').update(text).digest('hex');

function demoIsRunning() {
  try {
    const { pid } = JSON.parse(readFileSync(join(root, '.data', 'demo.json'), 'utf8'));
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
}

/** Installs packages when the lock file is not the one they were installed from. */
export function ensurePackages() {
  const lock = digest(readFileSync(join(root, 'package-lock.json')));
  const mark = join(root, 'node_modules', '.keen-fit-lock');
  if (existsSync(mark) && readFileSync(mark, 'utf8') === lock) return;
  if (existsSync(join(root, 'node_modules')) && demoIsRunning()) {
    giveUp('the packages have changed and a demo of this folder is running: stop it (Ctrl-C), then run this again.');
  }
  console.log('Installing packages (once, about half a minute)');
  const npm = process.env.npm_execpath;
  const args = ['ci', '--no-audit', '--no-fund', '--loglevel=error'];
  try {
    if (npm) execFileSync(process.execPath, [npm, ...args], { cwd: root, stdio: ['ignore', 'ignore', 'inherit'] });
    else execFileSync('npm', args, { cwd: root, stdio: ['ignore', 'ignore', 'inherit'] });
  } catch {
    giveUp('npm ci failed; its message stands above.');
  }
  writeFileSync(mark, lock);
}

/** Runs a TypeScript script of this project in the foreground and passes its exit code on. */
export async function runScript(script, args, env = {}) {
  const { spawn } = await import('node:child_process');
  const child = spawn(process.execPath, ['--import', 'tsx', '--conditions=react-server', join(root, script), ...args], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', ...env },
  });
  // Ctrl-C reaches the child by itself; the parent only waits for it to tidy up.
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) {
    process.on(signal, () => {
      if (signal !== 'SIGINT' || !process.stdin.isTTY) child.kill(signal);
    });
  }
  child.on('exit', (code, signal) => process.exit(code ?? (signal ? 1 : 0)));
}
