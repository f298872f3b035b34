import type { Eye } from '../core';

/** Scale and middle of both drawings of an eye, in units of their view box. */
export const PX_PER_MM = 15.4;
export const [CX, CY] = [180, 150];
export const VIEW_WIDTH = 360;
const LIDS = 'M18 158 C80 60 280 60 342 158 C290 262 70 262 18 158Z';

/** The opening between the lids with what lies in it. */
export function Lids({ clip, children }: { readonly clip: string; readonly children: React.ReactNode }) {
  return (
    <>
      <clipPath id={clip}>
        <path d={LIDS} />
      </clipPath>
      <path d={LIDS} fill="var(--eye-white)" />
      <g clipPath={`url(#${clip})`}>
        {children}
        <circle cx={CX} cy={CY} r={30} fill="var(--pupil)" />
      </g>
      <path d={LIDS} fill="none" stroke="var(--ink-2)" strokeWidth="2.2" />
    </>
  );
}

/** Which side the nose is on: toward the spine, right of the right eye and left of the left one. */
export function NoseAndEar({ eye, y, words }: { readonly eye: Eye; readonly y: number; readonly words: { readonly nose: string; readonly ear: string } }) {
  const right = eye === 'right';
  return (
    <g fontSize="12" fill="var(--ink-3)">
      <text x={right ? 352 : 8} y={y} textAnchor={right ? 'end' : 'start'}>
        {words.nose}
      </text>
      <text x={right ? 8 : 352} y={y} textAnchor={right ? 'start' : 'end'}>
        {words.ear}
      </text>
    </g>
  );
}
