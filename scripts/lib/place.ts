import { createHash } from 'node:crypto';
import { accessSync, constants, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';

/**
 * Folder of the demo's database cluster: `.data` of the project, or, where the postgres user cannot enter the
 * project (root's own home, say), a folder below /var/lib/keenfit named after the project.
 */
export function clusterFolder(root = process.cwd()): { readonly path: string; readonly elsewhere: boolean } {
  if (process.getuid?.() !== 0) return { path: join(root, '.data', 'pg'), elsewhere: false };
  let folder = resolve(root);
  let open = true;
  while (folder !== '/') {
    if ((statSync(folder).mode & 0o001) === 0) open = false;
    folder = dirname(folder);
  }
  try {
    accessSync(root, constants.W_OK);
  } catch {
    open = false;
  }
  if (open) return { path: join(root, '.data', 'pg'), elsewhere: false };
  const name = createHash('sha256').update(resolve(root)).digest('hex').slice(0, 12);
  return { path: join('/var/lib/keenfit', name, 'pg'), elsewhere: true };
}
