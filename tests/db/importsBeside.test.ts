import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startTypeScript, type Child } from '../../scripts/lib/children';
import { supplierServer } from '../../src/standins/supplier/server';
import { childrenOf } from '../support/processes';
import { openWorld, orderOne, type World } from './support';

/** The jobs as they run: what reads a catalogue file is a process of its own. */
let world: World;
let supplier: Server;
let jobs: Child;
const HEAD =
  'family_code,maker,name,geometry,modality,material,mark_layout,settle_minutes,pack_size,pack_price,lead_days,sphere_from,sphere_to,sphere_step,cylinders,axis_from,axis_to,axis_step,adds,curves';

beforeAll(async () => {
  world = await openWorld();
  supplier = supplierServer({ file: null, slowMs: 0, today: () => '2026-11-24' });
  await new Promise<void>((resolve) => supplier.listen(0, '127.0.0.1', resolve));
  const env = {
    KEENFIT_MODE: 'test',
    KEENFIT_DATABASE_URL: world.db.appUrl,
    KEENFIT_SUPPLIER_URL: `http://127.0.0.1:${(supplier.address() as AddressInfo).port}`,
  };
  jobs = await startTypeScript('src/jobs/main.ts', { env, readyWhen: /jobs ready/ });
}, 120_000);
afterAll(async () => {
  await jobs.stop();
  supplier.closeAllConnections();
  await new Promise((resolve) => supplier.close(resolve));
  await world.db.close();
});

const readers = (): number[] => childrenOf(jobs.process.pid ?? -1, 'importWaiting.ts');
const stateOf = async (importId: string): Promise<string> =>
  (await world.db.owner<{ state: string }[]>`select state from catalogue_import where id = ${importId}`)[0]?.state ?? '';

describe('a catalogue file beside the orders', () => {
  it('the process that reads it is killed: orders go on, and another reads it to the end', async () => {
    const lines = Array.from({ length: 4000 }, (_, i) => `f-${i},M,F ${i},sphere,monthly,hydrogel,none,5,6,30.00,5,-6,6,0.25,,,,,,8.6/14.2`);
    const bytes = new TextEncoder().encode([HEAD, ...lines].join('\n'));
    const { importId = '' } = await world.must('recordImport', { fileName: 'catalogue.csv', bytes }, world.callers.admin);
    await expect.poll(() => readers().length, { timeout: 20_000, interval: 20 }).toBe(1);
    const [reader] = readers();
    await expect.poll(() => stateOf(importId), { timeout: 20_000, interval: 5 }).toBe('checking');
    process.kill(reader ?? 0, 'SIGKILL');
    const orderId = await orderOne(world);
    const states = async () => (await world.db.owner<{ state: string }[]>`select state from order_event where order_id = ${orderId}`).map((e) => e.state);
    await expect.poll(states, { timeout: 20_000 }).toContain('acknowledged');
    expect(jobs.process.exitCode).toBeNull();
    // It was in the middle: what it had claimed is free again once its time is over.
    expect(await stateOf(importId)).toBe('checking');
    await world.db.owner`update catalogue_import set claimed_at = clock_timestamp() - interval '2 minutes' where id = ${importId}`;
    await expect.poll(() => stateOf(importId), { timeout: 30_000 }).toBe('checked');
    expect(readers()).not.toContain(reader);
  });
});
