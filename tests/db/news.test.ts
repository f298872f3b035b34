import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readNews, type News } from '../../src/core';
import { openNewsDesk } from '../../src/server/news';
import { openWorld, type World } from './support';

/** Pages that lie open are told what changed: which thing, to which version, and nothing else. */
let world: World;
const raw: string[] = [];
beforeAll(async () => {
  world = await openWorld();
  await world.db.owner.listen('keenfit_news', (text) => raw.push(text));
}, 180_000);
afterAll(() => world.db.close());

const settled = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 250));
const heard = async (work: () => Promise<unknown>): Promise<(News | null)[]> => {
  raw.length = 0;
  await work();
  await settled();
  return raw.map(readNews);
};

describe('news', () => {
  it('tell of a visit opened, changed and closed, with its version', async () => {
    let visitId = '';
    expect(await heard(async () => (visitId = await world.visit(1)))).toEqual([
      { what: 'visit', id: visitId, version: 1 },
      { what: 'visit', id: visitId, version: 2 },
    ]);
    const closing = await heard(async () => world.must('closeVisit', { visitId, version: 2 }));
    expect(closing.at(-1)).toEqual({ what: 'visit', id: visitId, version: 3 });
  });
  it('tell nothing of a press that was refused, and carry nothing of what was recorded', async () => {
    const visitId = await world.visit(2);
    await settled();
    expect(await heard(() => world.do('recordRefraction', { visitId, version: 2, right: 'nonsense', left: null, vertexMm: 12 }))).toEqual([]);
    expect(await heard(() => world.do('closeVisit', { visitId, version: 1 }))).toEqual([]);
    await heard(() => world.must('recordRefraction', { visitId, version: 2, right: '-7.25', left: null, vertexMm: 12 }));
    expect(raw).toHaveLength(1);
    expect(Object.keys(JSON.parse(raw[0] ?? '{}') as object).sort()).toEqual(['id', 'practice', 'version', 'what']);
  });
  it('tell of the library when it answers differently', async () => {
    const product = {
      productId: null,
      version: 0,
      system: 'multipurpose',
      maker: 'Marram Optical',
      name: 'Spindrift',
      contents: '300 mL',
      lastsDays: 30,
      price: 9,
      includesCase: true,
      ended: false,
    };
    const told = await heard(() => world.must('saveCareProduct', product, world.callers.admin));
    expect(told.some((n) => n?.what === 'library' && n.version > 1)).toBe(true);
  });
  it('what is no news is read as none', () => {
    for (const text of ['', 'visit', '{}', '{"what":"visit"}', '{"what":"person","id":"x","version":1}', '[1]', 'null']) expect(readNews(text)).toBeNull();
  });
});

describe('the desk that hands them on', () => {
  it('to the pages of that practice alone, until they hear no more', async () => {
    const desk = openNewsDesk(world.db.app);
    await settled();
    const here: (News | null)[] = [];
    const elsewhere: (News | null)[] = [];
    const deaf = desk.hear(world.practiceId, (news) => here.push(news));
    desk.hear(crypto.randomUUID(), (news) => elsewhere.push(news));
    const visitId = await world.visit(3);
    await settled();
    expect(here).toEqual([
      { what: 'visit', id: visitId, version: 1 },
      { what: 'visit', id: visitId, version: 2 },
    ]);
    expect(elsewhere).toEqual([]);
    deaf();
    expect(desk.hearers()).toBe(1);
    await world.must('closeVisit', { visitId, version: 2 });
    await settled();
    expect(here).toHaveLength(2);
  });
  it('when its connection broke, everybody is told to look, and news come again', async () => {
    const desk = openNewsDesk(world.db.app);
    await settled();
    const here: (News | null)[] = [];
    desk.hear(world.practiceId, (news) => here.push(news));
    await world.db
      .owner`select pg_terminate_backend(pid) from pg_stat_activity where query ilike 'listen%' and usename <> current_user and datname = current_database()`;
    await expect.poll(() => here.includes(null), { timeout: 15_000 }).toBe(true);
    const visitId = await world.visit(4);
    await expect.poll(() => here.some((n) => n?.id === visitId), { timeout: 5_000 }).toBe(true);
  });
});
