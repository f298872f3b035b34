import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream, openSync, closeSync, readSync, statSync } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import { z } from 'zod';

/**
 * A backup: one line of JSON that says what follows, then a dump in PostgreSQL's own custom format. Without us it is read by
 * `tail -n +2 FILE | pg_restore`.
 */
const MARK = 'keenfit-backup-1';
const HEADER_BYTES = 4096;
const headerShape = z.object({
  mark: z.literal(MARK),
  madeAt: z.string(),
  /** Name of the last migration in it: what knows of none so late cannot read it. */
  schema: z.string(),
  bytes: z.number().int().nonnegative(),
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
});
export type BackupHeader = z.infer<typeof headerShape>;

async function sha256Of(file: string, start: number): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(file, { start }), hash);
  return hash.digest('hex');
}

/** Puts the line of what it is before a dump. */
export async function wrapDump(dump: string, file: string, { madeAt, schema }: Pick<BackupHeader, 'madeAt' | 'schema'>): Promise<void> {
  const header: BackupHeader = { mark: MARK, madeAt, schema, bytes: statSync(dump).size, sha256: await sha256Of(dump, 0) };
  const out = createWriteStream(file, { mode: 0o600 });
  out.write(`${JSON.stringify(header)}\n`);
  await pipeline(createReadStream(dump), out);
}

/** Where the dump in a backup begins, and what its first line says. */
export interface OpenedBackup {
  readonly start: number;
  readonly header: BackupHeader;
}

/**
 * Opens a backup and looks whether it is whole.
 * @throws in words, when it is no backup, was cut off or changed
 */
export async function openBackup(file: string): Promise<OpenedBackup> {
  const first = Buffer.alloc(HEADER_BYTES);
  const handle = openSync(file, 'r');
  const length = readSync(handle, first, 0, HEADER_BYTES, 0);
  closeSync(handle);
  const end = first.subarray(0, length).indexOf('\n');
  let header: BackupHeader;
  try {
    header = headerShape.parse(JSON.parse(first.subarray(0, Math.max(0, end)).toString('utf8')));
  } catch {
    throw new Error(`${file} is no backup of Keen Fit`);
  }
  const start = end + 1;
  const bytes = statSync(file).size - start;
  if (bytes !== header.bytes) throw new Error(`${file} is damaged: it has ${bytes} bytes of ${header.bytes}`);
  if ((await sha256Of(file, start)) !== header.sha256) throw new Error(`${file} is damaged: its SHA-256 is not the one it was written with`);
  return { start, header };
}
