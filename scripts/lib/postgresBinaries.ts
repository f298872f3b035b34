import { execFileSync } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

/** Folder of the newest installed PostgreSQL server's programs. */
export function postgresBinaries(): string {
  const base = '/usr/lib/postgresql';
  const versions = readdirSync(base)
    .filter((v) => existsSync(join(base, v, 'bin', 'initdb')))
    .sort((a, b) => Number(b) - Number(a));
  const newest = versions[0];
  if (newest === undefined) throw new Error('No PostgreSQL server under /usr/lib/postgresql');
  return join(base, newest, 'bin');
}

/** Who PostgreSQL runs as: it refuses root, so root hands it to Debian's postgres user. */
export function postgresUser(): { uid: number; gid: number } | null {
  if (process.getuid?.() !== 0) return null;
  const id = (flag: string): number => Number(execFileSync('id', [flag, 'postgres'], { encoding: 'utf8' }).trim());
  return { uid: id('-u'), gid: id('-g') };
}
