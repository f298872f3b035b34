import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { startCluster } from './cluster';
import { clusterFolder } from './place';

/** The database that backup and restore work on: DATABASE_URL, or the demo's own (which must not be running). */
export async function openOwnDatabase(): Promise<{ url: string; close: () => Promise<void> }> {
  const given = process.env.DATABASE_URL;
  if (given) return { url: given, close: () => Promise.resolve() };
  const running = join(process.cwd(), '.data', 'demo.json');
  if (existsSync(running)) {
    const { pid } = JSON.parse(readFileSync(running, 'utf8')) as { pid: number };
    let alive = true;
    try {
      process.kill(pid, 0);
    } catch {
      alive = false;
    }
    if (alive) throw new Error('the demo of this folder is running: stop it first (Ctrl-C), or name a database in DATABASE_URL');
  }
  const { path } = clusterFolder();
  if (!existsSync(join(path, 'PG_VERSION'))) throw new Error('there is no demo database yet, and DATABASE_URL is not set');
  const cluster = await startCluster(path);
  return { url: cluster.url('keenfit'), close: () => cluster.stop() };
}
