import { performance } from 'node:perf_hooks';
import { connect } from '../../src/db/client';
import { DEMO_PASSWORD } from '../../demo/load';
import { fillDrawer } from '../../tests/support/drawer';
import { TEST_NOW, TEST_TODAY } from '../../tests/support/moment';
import { ensureBuild } from './build';
import { startThrowAwayCluster } from './cluster';
import { ensureDatabase, prepareDatabase } from './prepareDatabase';
import { startSite } from './site';

const PAGES = 60;
type Said = Record<string, unknown>;

/** Somebody's browser: its cookies, and what it asks. */
class Browser {
  private cookie = '';
  constructor(private readonly url: string) {}
  async post(path: string, body: object): Promise<Said> {
    const answer = await fetch(`${this.url}${path}`, {
      method: 'POST',
      headers: { origin: this.url, 'content-type': 'application/json', cookie: this.cookie, 'x-request-key': crypto.randomUUID() },
      body: JSON.stringify(body),
    });
    const set = answer.headers.getSetCookie().map((c) => c.split(';')[0] ?? '');
    if (set.length > 0) this.cookie = [...this.cookie.split('; ').filter((c) => c !== ''), ...set].join('; ');
    const said = (await answer.json()) as { readonly ok: boolean; readonly value?: unknown; readonly error?: unknown };
    if (!said.ok) throw new Error(`${path}: ${JSON.stringify(said.error)}`);
    return (said.value ?? {}) as Said;
  }
  command(name: string, input: object): Promise<Said> {
    return this.post(`/api/commands/${name}`, input);
  }
  async version(): Promise<number> {
    const answer = await fetch(`${this.url}/api/screen`, { headers: { cookie: this.cookie } });
    const { value } = (await answer.json()) as { readonly value?: { readonly show?: { readonly version: number } | null } };
    return value?.show?.version ?? 0;
  }
  async listen(heard: () => void): Promise<void> {
    const stream = await fetch(`${this.url}/api/screen/news`, { headers: { cookie: this.cookie } });
    const reader = stream.body?.getReader();
    const text = new TextDecoder();
    for (let part = await reader?.read(); part && !part.done; part = await reader?.read()) if (text.decode(part.value).includes('data: {')) heard();
  }
}

/** How soon a page that the teacher turns is known to the wearer's screen, on this machine. */
export async function benchScreen(): Promise<void> {
  await ensureBuild('.next');
  const cluster = await startThrowAwayCluster();
  await ensureDatabase((name) => cluster.url(name), 'bench');
  const { appUrl } = await prepareDatabase(cluster.url('bench'), { demoAt: TEST_NOW });
  const owner = connect(cluster.url('bench'), { max: 1 });
  await fillDrawer(owner, 5);
  const [family] = await owner<{ id: string }[]>`select id from lens_family_version where code = 'turnstone-30'`;
  await owner.end();
  const site = await startSite({ databaseUrl: appUrl, mode: 'test', distDir: '.next', demoPassword: DEMO_PASSWORD, supplierToday: TEST_TODAY });
  try {
    const [teacher, wearer] = [new Browser(site.url), new Browser(site.url)];
    await teacher.post('/api/session', { account: 'asha', password: DEMO_PASSWORD });
    const { wearerId } = await teacher.command('createWearer', { name: 'Bench Learner', birthDate: '1990-01-01' });
    const { visitId } = await teacher.command('openVisit', { wearerId, kind: 'firstFit' });
    await teacher.command('recordRefraction', { visitId, version: 1, right: '-2.00', left: null, vertexMm: 12 });
    const lens = { familyId: family?.id ?? '', sphere: -2, cylinder: 0, axis: 180, add: null, baseCurve: 8.4, diameter: 14.2 };
    await teacher.command('putOnTrials', { visitId, version: 2, right: lens, left: null });
    const { lessonId } = await teacher.command('startLesson', { visitId, version: 3, handler: '' });
    const { code } = await teacher.command('openLessonScreen', { lessonId });
    await wearer.post('/api/screen', { code });
    const waiting: (() => void)[] = [];
    void wearer.listen(() => waiting.shift()?.()).catch(() => undefined);
    await new Promise((resolve) => setTimeout(resolve, 500));
    const times: number[] = [];
    let inOrder = 0;
    for (let page = 0; page < PAGES; page++) {
      const from = performance.now();
      const told = new Promise<void>((resolve) => waiting.push(resolve));
      const show = { part: 'on', page: page % 8, eye: 'right', hand: 'right', skinTone: 3, onTechnique: 'twoHanded', offTechnique: 'slideAndPinch' };
      await teacher.command('showLessonPage', { lessonId, ...show, peroxide: false });
      await told;
      if ((await wearer.version()) === page + 1) inOrder += 1;
      times.push(performance.now() - from);
    }
    const sorted = [...times].sort((a, b) => a - b);
    const at = (part: number): string => (sorted[Math.floor(sorted.length * part)] ?? 0).toFixed(0);
    console.log(
      `\nA page turned by the teacher, told to the wearer's screen and read by it: median ${at(0.5)} ms, 95 % within ${at(0.95)} ms; ${inOrder} of ${PAGES} in order`,
    );
  } finally {
    await site.stop();
    await cluster.stop();
  }
}
