import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { runInNewContext } from 'node:vm';
import { describe, expect, it } from 'vitest';
import * as core from './index';

interface Example {
  readonly file: string;
  readonly call: string;
  readonly comes: string;
}

function filesOf(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((e) =>
    e.isDirectory() ? filesOf(join(folder, e.name)) : /(?<!\.test)\.ts$/.test(e.name) ? [join(folder, e.name)] : [],
  );
}
const examples: Example[] = filesOf(join(process.cwd(), 'src/core')).flatMap((file) =>
  [...readFileSync(file, 'utf8').matchAll(/@example (.+?) → (.+?)(?: \*\/)?$/gm)].map((m) => ({ file, call: m[1] ?? '', comes: m[2] ?? '' })),
);

const sphere = (power: number) => ({ sphere: power, cylinder: 0, axis: 180 });
const tens = {
  name: 'tens',
  geometry: 'toric',
  blocks: [
    {
      spheres: { from: -6, to: 2, step: 0.25 },
      cylinders: [-0.75, -1.25, -1.75],
      axes: { from: 10, to: 180, step: 10 },
      adds: [null],
      curves: [{ baseCurve: 8.6, diameter: 14.2 }],
    },
  ],
};

const noFacts: core.VisitFacts = {
  refractions: [],
  onEye: [],
  onEyeExtras: [],
  fits: [],
  rotations: [],
  overRefractions: [],
  lensFindings: [],
  acuitiesBoth: [],
  eyeAcuities: [],
  taskSights: [],
  heldQuarters: [],
  pairChanges: [],
  choices: [],
      guided: [],
};
const nothing = core.eyeState(noFacts, 'right', () => undefined, core.DEFAULT_SETTINGS);

/** Things that an example may name instead of spelling out. */
const scope = {
  ...core,
  family: tens,
  need: { sphere: -3.13, cylinder: -1.59, axis: 20 },
  tried: { family: tens, baseCurve: 8.6, diameter: 14.2 },
  wear: { modality: 'monthly', daysPerWeek: 7 },
  noFacts,
  rules: core.DEFAULT_SETTINGS,
  state: nothing,
  verdict: nothing.verdict,
  health: { today: { right: {}, left: {} }, findings: { right: {}, left: {} }, said: {}, facts: { settings: core.DEFAULT_SETTINGS } },
  routes: core.routesAgree({ fromRefraction: sphere(-3), fromOverRefraction: sphere(-2), lensCylinder: 0, rotationSd: 2 }),
  now: { over: sphere(1), power: sphere(-2) },
  right: { lens: sphere(-2), rotationLeft: 0, need: sphere(-2), over: sphere(2), orderAxis: null },
  left: { lens: sphere(-4), rotationLeft: 0, need: sphere(-4), over: sphere(-2), orderAxis: null },
};
const evaluate = (expression: string): unknown => runInNewContext(`(${expression})`, scope);

/** Equal to the digits that the comment shows: half a degree for a whole axis, half a unit of the last place else. */
function same(got: unknown, written: unknown, key = ''): void {
  if (typeof written === 'number')
    expect(Math.abs((got as number) - written), `${key} ${String(got)} ≈ ${written}`).toBeLessThan(
      Number.isInteger(written) ? (key === 'axis' ? 0.5 : 1e-6) : 0.0051,
    );
  else if (typeof written === 'object' && written !== null) for (const [k, v] of Object.entries(written)) same((got as Record<string, unknown>)[k], v, k);
  else expect(got).toEqual(written);
}

describe('every documented example runs', () => {
  it('finds them', () => {
    expect(examples.length).toBeGreaterThan(50);
  });
  it.each(examples.map((e) => [e.call, e.comes] as const))('%s → %s', (call, comes) => {
    same(evaluate(call), evaluate(comes));
  });
  it.each([
    'parseRefraction',
    'formatRefraction',
    'transpose',
    'toPowerVector',
    'fromPowerVector',
    'blurStrength',
    'toCornealPlane',
    'toSpectaclePlane',
    'nearestLenses',
    'compensateAxis',
    'powerOnEye',
    'resolveOverRefraction',
  ])('%s is exported and documented with an example', (name) => {
    expect(core).toHaveProperty(name);
    expect(examples.some((e) => e.call.startsWith(`${name}(`))).toBe(true);
  });
});
