// A job's one step in a process that dies, without a word, at its n-th statement or call. Started by `crashAtEvery`.
import { connect } from '../../src/db/client';
import { dispatchOne } from '../../src/jobs/dispatchOrders';
import { sendOne } from '../../src/jobs/sendMessages';

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
const JOBS: Readonly<Record<string, () => Promise<boolean>>> = {
  dispatchOrders: () => dispatchOne({ ...deps, supplierUrl: outside, timeoutMs: 2000 }),
  sendMessages: () =>
    sendOne(deps, async (message) => {
      const answer = await fetch(outside, { method: 'POST', headers: { 'idempotency-key': message.id } });
      return answer.ok ? { kind: 'answer', answer: null } : { kind: 'silent', problem: String(answer.status) };
    }),
};
const run = JOBS[job];
if (!run) throw new Error(job);
await run();
await sql.end();
