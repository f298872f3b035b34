// A job's one step in a process that dies, without a word, at its n-th statement or call. Started by `crashAtEvery`.
import { readFileSync } from 'node:fs';
import { connect } from '../../src/db/client';
import type { ServiceName } from '../../src/services';
import type { AnyService, StaffCaller } from '../../src/services/define';

const [job = '', dieAt = '', url = '', outside = '', now = ''] = process.argv.slice(2);
let steps = 0;
/** One more step: before a statement leaves, before a call, and after its answer came. */
const step = (): void => {
  steps += 1;
  if (steps === Number(dieAt)) process.kill(process.pid, 'SIGKILL');
};
const sql = connect(url, { max: 1, applicationName: 'keenfit-dying', onStatement: step });
const call = globalThis.fetch;
globalThis.fetch = async (...of) => {
  step();
  const answer = await call(...of);
  step();
  return answer;
};
const deps = { sql, clock: { now: () => Promise.resolve(now) } };
/** What can be pressed, where it is: all of them together take as long to load as everything that is done here. */
const PRESSES: Readonly<Partial<Record<ServiceName, () => Promise<AnyService>>>> = {
  sign: async () => (await import('../../src/services/prescription/commands')).sign,
  reorderLenses: async () => (await import('../../src/services/reorder/commands')).reorderLenses,
  recordReceipt: async () => (await import('../../src/services/order/receipts')).recordReceipt,
  handOverBoxes: async () => (await import('../../src/services/order/receipts')).handOverBoxes,
  answerRequest: async () => (await import('../../src/services/request/commands')).answerRequest,
};
/** Somebody presses: what, with which words, under which key. */
async function press(file: string): Promise<boolean> {
  const { name, caller, input, key } = JSON.parse(readFileSync(file, 'utf8')) as { name: ServiceName; caller: StaffCaller; input: unknown; key: string };
  const service = await PRESSES[name]?.();
  if (!service) throw new Error(name);
  const { perform } = await import('../../src/services/perform');
  const done = await perform(service as never, { ...deps, side: sql, mode: 'test' }, caller, input, key);
  if (!done.ok) throw new Error(JSON.stringify(done.error));
  return true;
}
const JOBS: Readonly<Record<string, () => Promise<boolean>>> = {
  press: () => press(outside),
  askSuppliers: async () => (await (await import('../../src/jobs/askSuppliers')).askSuppliers({ ...deps, supplierUrl: outside, timeoutMs: 2000 })) > 0,
  cancelOrders: async () => (await import('../../src/jobs/cancelOrders')).cancelOne({ ...deps, supplierUrl: outside, timeoutMs: 2000 }),
  answerSellers: async () => (await import('../../src/jobs/answerSellers')).answerOne({ ...deps, sellerUrl: outside, timeoutMs: 2000 }),
  dispatchOrders: async () => (await import('../../src/jobs/dispatchOrders')).dispatchOne({ ...deps, supplierUrl: outside, timeoutMs: 2000 }),
  sendMessages: async () =>
    (await import('../../src/jobs/sendMessages')).sendOne(deps, async (message) => {
      const answer = await fetch(outside, { method: 'POST', headers: { 'idempotency-key': message.id } });
      return answer.ok ? { kind: 'answer', answer: null } : { kind: 'silent', problem: String(answer.status) };
    }),
};
const run = JOBS[job];
if (!run) throw new Error(job);
await run();
await sql.end();
