import { spawn, type ChildProcess } from 'node:child_process';
import { openSync } from 'node:fs';

/** A program of ours in a process group of its own, so that a Ctrl-C meant for us does not hit it first. */
export interface Child {
  readonly process: ChildProcess;
  stop(signal?: NodeJS.Signals): Promise<void>;
}

export interface ChildOptions {
  readonly env?: Readonly<Record<string, string>>;
  readonly logFile?: string;
  /** A line on standard output that says it is ready. */
  readonly readyWhen?: RegExp;
}

const root = process.cwd();
/** Loaded before a program that is to end when its input does: when we are gone, however we went. */
export const END_WITH_PARENT = new URL('./endWithParent.mjs', import.meta.url).href;

/** Starts `node args…`, which ends when this process does, and waits until it says that it is ready. */
export async function startChild(args: readonly string[], options: ChildOptions = {}): Promise<Child> {
  const log = options.logFile ? openSync(options.logFile, 'a') : 'ignore';
  const child = spawn(process.execPath, ['--import', END_WITH_PARENT, ...args], {
    cwd: root,
    detached: true,
    stdio: ['pipe', 'pipe', log],
    // A condition meant for our own scripts must not reach the web server.
    env: { ...process.env, NODE_OPTIONS: '', NEXT_TELEMETRY_DISABLED: '1', ...options.env },
  });
  const stop = (signal: NodeJS.Signals = 'SIGTERM'): Promise<void> =>
    new Promise((resolve) => {
      if (child.exitCode !== null || child.signalCode !== null || child.pid === undefined) return resolve();
      const hard = setTimeout(() => kill(child.pid, 'SIGKILL'), 4000);
      child.on('exit', () => {
        clearTimeout(hard);
        resolve();
      });
      kill(child.pid, signal);
    });
  await new Promise<void>((resolve, reject) => {
    if (!options.readyWhen) return resolve();
    const wait = setTimeout(() => reject(new Error(`${args.join(' ')} did not become ready`)), 60_000);
    child.on('exit', (code) => {
      clearTimeout(wait);
      reject(new Error(`${args.join(' ')} ended with ${code}`));
    });
    child.stdout?.on('data', (chunk: Buffer) => {
      if (!options.readyWhen?.test(chunk.toString())) return;
      clearTimeout(wait);
      resolve();
    });
  });
  return { process: child, stop };
}

function kill(pid: number | undefined, signal: NodeJS.Signals): void {
  if (pid === undefined) return;
  try {
    process.kill(-pid, signal);
  } catch {
    // Gone already.
  }
}

const TSX = ['--import', 'tsx', '--conditions=react-server'];

/** Runs one of our TypeScript programs. */
export const startTypeScript = (script: string, options: ChildOptions = {}, args: readonly string[] = []): Promise<Child> =>
  startChild([...TSX, script, ...args], options);
