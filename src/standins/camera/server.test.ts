import type { AddressInfo } from 'node:net';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { cameraServer, sceneBefore } from './server';

const server = cameraServer();
let url = '';
beforeAll(async () => {
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => server.close());

describe('the simulated camera as a device', { timeout: 30_000 }, () => {
  it('answers with a JPEG of the eye and marks it was told of', async () => {
    const answer = await fetch(`${url}/picture?eye=left&marks=threeNine&spacing=0&shot=0`);
    expect(answer.headers.get('content-type')).toBe('image/jpeg');
    expect(await sharp(Buffer.from(await answer.arrayBuffer())).metadata()).toMatchObject({ format: 'jpeg', width: 800, height: 600 });
  });
  it.each([
    '/picture',
    '/picture?eye=both&marks=six&spacing=0&shot=0',
    '/picture?eye=left&marks=eleven&spacing=0&shot=0',
    '/picture?eye=left&marks=six&spacing=0&shot=x',
    '/elsewhere',
  ])('%s is refused', async (path) => {
    expect((await fetch(`${url}${path}`)).status).toBe(400);
  });
  it('fails on demand', async () => {
    const asked = `${url}/picture?eye=left&marks=six&spacing=0&shot=1`;
    await fetch(`${url}/fault?is=down`, { method: 'PUT' });
    expect((await fetch(asked)).status).toBe(503);
    await fetch(`${url}/fault?is=nonsense`, { method: 'PUT' });
    expect(await (await fetch(asked)).text()).toBe('no picture');
    await fetch(`${url}/fault?is=none`, { method: 'PUT' });
  });
  it('from one picture to the next the eye is the same, and the lens as each blink leaves it', () => {
    const [one, two] = [0, 1].map((shot) => sceneBefore('right', 'fiveSixSeven', 20, 110, shot));
    expect(one?.iris).toEqual(two?.iris);
    expect(one?.lens.mm).toBe(two?.lens.mm);
    expect(one?.lens.rotationLeft).not.toBe(two?.lens.rotationLeft);
    expect(Math.abs((one?.lens.rotationLeft ?? 0) - (two?.lens.rotationLeft ?? 0))).toBeLessThanOrEqual(3);
    expect(one?.lens.spacing).toBe(20);
  });
});
