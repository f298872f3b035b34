import 'server-only';
import { spawn, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { isImportWaiting } from '../db/catalogueImport';
import type { Sql } from '../db/client';
import { log } from '../server/log';

/** Most memory that reading a catalogue file may take, MB: measured, 415 for the largest file that is taken. */
const MEMORY_MB = 1024;

/**
 * Catalogue files are read by a process of their own, started when one waits: however large or odd a file is, orders go on, and
 * what ends that process does not end the jobs.
 */
export class ImportsBeside {
  private child: ChildProcess | null = null;

  constructor(private readonly sql: Sql) {}

  /** Sees to it that somebody reads what waits. */
  async look(): Promise<void> {
    if (this.child !== null || !(await isImportWaiting(this.sql))) return;
    const child = spawn(
      process.execPath,
      [`--max-old-space-size=${MEMORY_MB}`, ...process.execArgv, fileURLToPath(new URL('./importWaiting.ts', import.meta.url))],
      {
        // Its input stays open as long as we live: it ends when we do.
        stdio: ['pipe', 'ignore', 'inherit'],
      },
    );
    this.child = child;
    child.once('error', (cause) => {
      log.error({ err: cause }, 'the import could not be started');
      // One that never lived never ends either.
      if (child.pid === undefined) this.child = null;
    });
    child.once('exit', (code, signal) => {
      if (code !== 0) log.error({ code, signal }, 'the import ended before it was done');
      this.child = null;
    });
  }

  /** Ends what is under way; what it was doing is done by the next one. */
  async stop(): Promise<void> {
    const { child } = this;
    if (child === null) return;
    child.kill('SIGTERM');
    await new Promise((resolve) => child.once('exit', resolve));
  }
}
