import { formatPower, formatRefraction, type Millimetres, type Refraction, effectivePower, toCornealPlane } from '@/core';
import type { WorkingBlock, WorkingLine } from '../../../common/Working';

export interface PowerWorkingWords {
  readonly title: string;
  readonly formula: string;
  readonly along: (axis: number) => string;
  readonly foot: string;
}

const along = (power: number, meridian: number, vertexMm: Millimetres, words: PowerWorkingWords): WorkingLine => {
  const divisor = 1 - (vertexMm / 1000) * power;
  return { what: words.along(meridian), comes: `${formatPower(power)} ÷ ${divisor.toFixed(3)} = ${formatPower(effectivePower(power, vertexMm), 3)}` };
};

/** The way from the spectacle plane to the cornea, meridian by meridian. */
export function cornealWorking(id: string, refraction: Refraction, vertexMm: Millimetres, badge: string, words: PowerWorkingWords): WorkingBlock {
  const across = refraction.axis > 90 ? refraction.axis - 90 : refraction.axis + 90;
  const meridians =
    refraction.cylinder === 0
      ? [along(refraction.sphere, refraction.axis, vertexMm, words)]
      : [along(refraction.sphere, refraction.axis, vertexMm, words), along(refraction.sphere + refraction.cylinder, across, vertexMm, words)];
  return {
    id,
    title: words.title,
    lines: [
      { what: words.formula, comes: `d = ${(vertexMm / 1000).toFixed(4).replace(/0$/, '')} m` },
      ...meridians,
      { what: badge, comes: formatRefraction(toCornealPlane(refraction, vertexMm)), strong: true },
    ],
    foot: words.foot,
  };
}
