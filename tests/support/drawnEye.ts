import sharp from 'sharp';
import type { Eye, MarkLayout } from '../../src/core';

/** What an eye is drawn with; lengths in mm, angles in degrees. */
export interface DrawnEye {
  readonly layout: MarkLayout;
  readonly eye: Eye;
  readonly rotationLeft: number;
  readonly roll: number;
  readonly iris: string;
  readonly mark: 'dark' | 'light';
  readonly width: number;
  readonly height: number;
}
const PLACES: Readonly<Record<MarkLayout, readonly number[]>> = { none: [], six: [0], threeNine: [-90, 90], twelve: [180], fiveSixSeven: [-30, 0, 30] };
const line = (x1: number, y1: number, x2: number, y2: number, ink: string): string => `<line x1="${x1}" y1="${y1}" x2="${x2}" y2="${y2}" ${ink}/>`;

/**
 * An eye with a lens on, drawn with shapes by a library for pictures: another hand than the camera's, with straight fibres, crooked vessels,
 * an even line about the lens, lids of one colour.
 */
export async function drawnEye({
  layout,
  eye,
  rotationLeft,
  roll,
  iris,
  mark,
  width,
  height,
}: DrawnEye): Promise<{ width: number; height: number; rgb: Uint8Array }> {
  const mm = height / 20;
  const [cx, cy] = [width / 2, height / 2];
  const [lx, ly, lens] = [cx + 0.3 * mm, cy + 0.2 * mm, 7.1 * mm];
  const marks = PLACES[layout].map((place) => {
    const a = ((place + rotationLeft + roll) * Math.PI) / 180;
    const at = (r: number): [number, number] => [lx - Math.sin(a) * r, ly + Math.cos(a) * r];
    return line(
      ...at(lens - 0.3 * mm),
      ...at(lens - 1.3 * mm),
      `stroke="${mark === 'dark' ? '#202020' : '#fff'}" stroke-opacity="0.8" stroke-width="${0.14 * mm}"`,
    );
  });
  const fibres = Array.from({ length: 180 }, (_, k) => {
    const [a, r] = [(k * Math.PI) / 90, 5.9 * mm];
    return line(
      cx + Math.cos(a) * r * 0.35,
      cy + Math.sin(a) * r * 0.35,
      cx + Math.cos(a + 0.03) * r * 0.95,
      cy + Math.sin(a + 0.03) * r * 0.95,
      `stroke="${k % 2 ? '#fff' : '#000'}" stroke-opacity="${0.05 + 0.01 * (k % 11)}" stroke-width="2"`,
    );
  });
  const vessels = Array.from({ length: 9 }, (_, k) => {
    const a = 0.4 + k * 0.7;
    const at = (r: number, by: number): string => `${cx + Math.cos(a + by) * r * mm} ${cy + Math.sin(a + by) * r * mm}`;
    return `<path d="M${at(6.3, 0)}L${at(7.1, 0.08)}L${at(8, -0.05)}L${at(9, 0.06)}" fill="none" stroke="#b03030" stroke-opacity="0.35" stroke-width="${0.08 * mm}"/>`;
  });
  const [upper, lower] = layout === 'twelve' ? [8, 7] : [5.4, 8];
  const lid = (edge: number, outside: number): string =>
    `<path d="M-99 ${outside}H${width + 99}V${cy}Q${cx} ${cy + 2 * edge * mm} -99 ${cy}Z" fill="#c99a80"/>`;
  const caruncle = cx + (eye === 'right' ? 1 : -1) * 11.3 * mm;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><rect width="${width}" height="${height}" fill="#f0eae6"/>
    <g transform="rotate(${roll} ${cx} ${cy})"><ellipse cx="${caruncle}" cy="${cy + 0.5 * mm}" rx="${1.3 * mm}" ry="${1.1 * mm}" fill="#d98a86"/></g>${vessels.join('')}
    <circle cx="${cx}" cy="${cy}" r="${5.9 * mm}" fill="${iris}"/>${fibres.join('')}<circle cx="${cx}" cy="${cy}" r="${1.9 * mm}" fill="#0a0a0a"/>
    <circle cx="${lx}" cy="${ly}" r="${lens}" fill="none" stroke="#777" stroke-opacity="0.5" stroke-width="${0.08 * mm}"/>${marks.join('')}
    <g transform="rotate(${roll} ${cx} ${cy})">${lid(-upper, -height)}${lid(lower, 2 * height)}</g></svg>`;
  const rgb = await sharp(Buffer.from(svg)).blur(0.7).removeAlpha().raw().toBuffer();
  return { width, height, rgb: new Uint8Array(rgb) };
}
