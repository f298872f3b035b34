import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newWearer, openWorld, type World } from './support';

let world: World;
beforeAll(async () => {
  world = await openWorld();
}, 60_000);
afterAll(() => world.db.close());

const DAY = 24 * 60 * 60;
const measure = async (visitId: string, kSteepMm: number): Promise<void> => {
  await world.must('recordFindings', { visitId, version: await world.version(visitId), right: [{ sign: 'kSteepMm', value: kSteepMm }], left: [] });
};
const close = async (visitId: string) => world.must('closeVisit', { visitId, version: await world.version(visitId) });

describe('a cornea that gets steeper from visit to visit', () => {
  it('is compared with the flattest of about a year before, not with the last visit alone; older measures say nothing of a year', async () => {
    const wearer = await newWearer(world);
    const flattest = async (visitId: string) => (await world.record(visitId)).health.flattestSteep.right;
    const first = await world.visit(wearer, { right: '-3.00', left: '-3.00' });
    expect(await flattest(first)).toBeNull();
    await measure(first, 7.4);
    await close(first);
    world.move(150 * DAY);
    const second = await world.visit(wearer, { right: '-3.00', left: '-3.00' });
    expect(await flattest(second)).toBe(7.4);
    await measure(second, 7.3);
    await close(second);
    world.move(200 * DAY);
    const third = await world.visit(wearer, { right: '-3.00', left: '-3.00' });
    // 7.30 to 7.20 is 0.64 D; from 7.40, still within the year, 1.27 D.
    expect(await flattest(third)).toBe(7.4);
    await measure(third, 7.2);
    await close(third);
    world.move(400 * DAY);
    const fourth = await world.visit(wearer, { right: '-3.00', left: '-3.00' });
    expect(await flattest(fourth)).toBe(7.2);
  });
});
