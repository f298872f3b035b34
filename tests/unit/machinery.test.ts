import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { assert, must, unreachable } from '../../src/lib/assert';
import { err, forbidden, invalid, notFound, ok, ruleBroken } from '../../src/lib/outcome';
import { retrySeconds } from '../../src/jobs/deliver';
import { checkPassword, hashPassword } from '../../src/server/password';
import { hashToken, newToken } from '../../src/server/token';
import { stockOf } from '../../src/standins/supplier/stock';
import { freePort, portNear } from '../../scripts/lib/ports';
import { clusterFolder } from '../../scripts/lib/place';
import { DEMO_DRAWER } from '../../demo/drawer';
import { DEMO_FAMILIES } from '../../demo/families';
import { isMade, LIMITS, onStep, rangeValues, withinLimit } from '../../src/core';

describe('outcomes', () => {
  it('are plain values', () => {
    expect(ok(1)).toEqual({ ok: true, value: 1 });
    expect(err('x')).toEqual({ ok: false, error: 'x' });
    expect(invalid('a', 'code')).toEqual({ ok: false, error: { kind: 'invalid', fields: [{ path: ['a'], code: 'code' }] } });
    expect(invalid(['a', 'b'], 'code', { n: 1 })).toMatchObject({ error: { fields: [{ path: ['a', 'b'], data: { n: 1 } }] } });
    expect([ruleBroken('r'), notFound('w'), forbidden('y')].map((r) => r.error.kind)).toEqual(['ruleBroken', 'notFound', 'forbidden']);
  });
  it('bugs throw', () => {
    expect(() => assert(false, 'this')).toThrow(/this/);
    expect(() => must(null, 'that')).toThrow(/that is missing/);
    expect(must(0, 'zero')).toBe(0);
    expect(() => unreachable('x' as never)).toThrow(/Unreachable/);
  });
});

describe('secrets', () => {
  it('a password is kept as argon2id and only it fits', async () => {
    const stored = await hashPassword('plain-sight');
    expect(stored).toMatch(/^\$argon2id\$/);
    expect(await checkPassword(stored, 'plain-sight')).toBe(true);
    expect(await checkPassword(stored, 'plain-sigh')).toBe(false);
    expect(await checkPassword('nonsense', 'plain-sight')).toBe(false);
  });
  it('tokens are long, never the same, and stored as a hash', () => {
    const tokens = Array.from({ length: 50 }, newToken);
    expect(new Set(tokens).size).toBe(50);
    expect(tokens.every((t) => t.length >= 43)).toBe(true);
    expect(hashToken('a')).not.toContain('a'.repeat(3));
    expect(hashToken('a')).toBe(hashToken('a'));
  });
});

describe('the supplier’s shelf and the jobs’ patience', () => {
  const line = {
    eye: 'right' as const,
    mode: 'final' as const,
    familyCode: 'x',
    sphere: -2,
    cylinder: 0,
    axis: 180,
    add: null,
    baseCurve: 8.6,
    diameter: 14.2,
    packs: 1,
  };
  it('axes off the tens are made to order, strong spheres take longer', () => {
    expect(stockOf(line)).toEqual({ packs: 40, leadDays: 5 });
    expect(stockOf({ ...line, cylinder: -1, axis: 23 })).toEqual({ packs: 0, leadDays: 12 });
    expect(stockOf({ ...line, sphere: -9 }).leadDays).toBe(9);
  });
  it('tries double their distance up to five minutes', () => {
    expect([0, 1, 2, 3].map(retrySeconds)).toEqual([2, 4, 8, 16]);
    expect(retrySeconds(40)).toBe(300);
  });
});

describe('ports and folders', () => {
  it('a free port is free', async () => {
    const port = await freePort();
    await new Promise<void>((resolve, reject) => {
      const server = createServer()
        .on('error', reject)
        .listen(port, '127.0.0.1', () => server.close(() => resolve()));
    });
  });
  it('a taken port is passed over', async () => {
    const port = await freePort();
    const server = createServer();
    await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve));
    expect(await portNear(port)).not.toBe(port);
    await new Promise((resolve) => server.close(resolve));
  });
  it('the database lives elsewhere when its user may not enter the folder', () => {
    if (process.getuid?.() !== 0) return;
    const closed = mkdtempSync(join(tmpdir(), 'keenfit-closed-'));
    mkdirSync(join(closed, 'project'));
    writeFileSync(join(closed, 'project', 'x'), '');
    expect(clusterFolder(join(closed, 'project'))).toMatchObject({
      elsewhere: true,
      path: expect.stringMatching(/^\/var\/lib\/keenfit\/[0-9a-f]{12}\/pg$/) as string,
    });
    rmSync(closed, { recursive: true });
  });
});

describe('the demo’s lenses', () => {
  it('are at least twelve families over sphere, toric, multifocal × daily, two-weekly, monthly', () => {
    expect(DEMO_FAMILIES.length).toBeGreaterThanOrEqual(12);
    for (const geometry of ['sphere', 'toric', 'multifocal']) {
      for (const modality of ['daily', 'twoWeekly', 'monthly'])
        expect(
          DEMO_FAMILIES.some((f) => f.geometry === geometry && f.modality === modality),
          `${geometry} ${modality}`,
        ).toBe(true);
    }
  });
  it.each(DEMO_FAMILIES.map((f) => [f.name, f] as const))('%s is made of true blocks', (_name, family) => {
    for (const block of family.blocks) {
      for (const sphere of rangeValues(block.spheres)) expect(withinLimit(sphere, LIMITS.sphere) && onStep(sphere, LIMITS.sphere)).toBe(true);
      for (const cylinder of block.cylinders) expect(withinLimit(cylinder, LIMITS.cylinder) && onStep(cylinder, LIMITS.cylinder)).toBe(true);
      for (const axis of rangeValues(block.axes)) expect(withinLimit(axis, LIMITS.axis)).toBe(true);
      expect(block.curves.length).toBeGreaterThan(0);
    }
    expect((family.geometry === 'multifocal' || family.geometry === 'toricMultifocal') === family.blocks.every((b) => b.adds[0] !== null)).toBe(true);
    expect(family.geometry === 'toric' || family.geometry === 'toricMultifocal' ? family.markLayout !== undefined : true).toBe(true);
  });
  it('in the drawer are all made', () => {
    for (const [code, sphere, cylinder, axis, baseCurve, diameter, add] of DEMO_DRAWER) {
      const family = DEMO_FAMILIES.find((f) => f.code === code);
      expect(
        family && isMade({ sphere, cylinder, axis, baseCurve, diameter, add }, { name: code, geometry: family.geometry, blocks: family.blocks }),
        `${code} ${sphere} ${cylinder} ${axis}`,
      ).toBe(true);
    }
  });
});
