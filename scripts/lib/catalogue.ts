import { rangeCount, type CurveDiameter, type LensBlock, type LensFamily, type StepRange } from '../../src/core';

/** A made-up catalogue for the bench: always the same, of the kinds of families that are really made. */

const span = (from: number, to: number, step: number): StepRange => ({ from, to, step });
const SPHERE_AXIS = span(180, 180, 10);
const steps = (from: number, count: number, step: number): number[] => Array.from({ length: count }, (_, i) => from + i * step);
const curvesOf = (curves: number, diameters: number): CurveDiameter[] =>
  steps(8, curves, 0.1).flatMap((baseCurve) => steps(13.6, diameters, 0.2).map((diameter) => ({ baseCurve, diameter })));

/** A small generator of numbers between 0 and 1, the same on every run. */
function numbers(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

/** Made to order: every quarter dioptre, every degree, many curves and diameters. */
export const MADE_TO_ORDER: LensFamily = {
  name: 'made to order',
  geometry: 'toric',
  blocks: [
    { spheres: span(-20, 20, 0.25), cylinders: steps(-4.25, 16, 0.25), axes: span(1, 180, 1), adds: [null], curves: curvesOf(10, 5) },
    { spheres: span(-25, -20.5, 0.5), cylinders: steps(-4.25, 16, 0.25), axes: span(1, 180, 1), adds: [null], curves: curvesOf(10, 5) },
  ],
};

/** Families of a catalogue, made-to-order ones among them. */
export function catalogue(count: number): LensFamily[] {
  const next = numbers(7);
  return Array.from({ length: count }, (_, i): LensFamily => {
    if (i % 20 === 0) return { ...MADE_TO_ORDER, name: `made to order ${i}` };
    const far = -7 - Math.floor(next() * 6);
    const curves = curvesOf(1 + Math.floor(next() * 3), 1);
    if (i % 3 === 0) {
      const near: LensBlock = { spheres: span(-6, 6, 0.25), cylinders: [0], axes: SPHERE_AXIS, adds: [null], curves };
      return { name: `sphere ${i}`, geometry: 'sphere', blocks: [near, { ...near, spheres: span(far, -6.5, 0.5) }] };
    }
    const axes = next() < 0.5 ? span(10, 180, 10) : span(5, 180, 5);
    const cylinders = [-0.75, -1.25, -1.75, -2.25].slice(0, 2 + Math.floor(next() * 3));
    const near: LensBlock = { spheres: span(-6, 4, 0.25), cylinders, axes, adds: [null], curves };
    const narrow: LensBlock = { ...near, cylinders: [-2.75], axes: span(80, 100, 10) };
    return { name: `toric ${i}`, geometry: 'toric', blocks: [near, { ...near, spheres: span(far, -6.5, 0.5) }, narrow] };
  });
}

/** How many lenses a family makes, curve and diameter included. */
export const lensCount = (family: LensFamily): number =>
  family.blocks.reduce(
    (sum, b) => sum + rangeCount(b.spheres) * b.cylinders.length * (b.cylinders[0] === 0 ? 1 : rangeCount(b.axes)) * b.curves.length * b.adds.length,
    0,
  );
