import type { Geometry } from '../core';

export type Ring = 'unjudged' | 'fits' | 'loose' | 'tight';

export interface LensTokenProps {
  /** px */
  readonly size: number;
  readonly ring: Ring;
  readonly geometry: Geometry;
  /** Degrees at which the mark sits, examiner's left positive. */
  readonly rotationLeft: number;
  /** TABO axis the lens gives as it sits; null for a lens without cylinder. */
  readonly axisGiven: number | null;
  /** TABO axis the eye asks. */
  readonly axisAsked: number | null;
  readonly label: string;
}

const point = (radius: number, degreesFromSix: number): { x: number; y: number } => {
  const angle = (degreesFromSix * Math.PI) / 180;
  return { x: 24 - radius * Math.sin(angle), y: 24 + radius * Math.cos(angle) };
};
const onAxis = (radius: number, axis: number): { x1: number; y1: number; x2: number; y2: number } => {
  const angle = (axis * Math.PI) / 180;
  const [dx, dy] = [radius * Math.cos(angle), radius * Math.sin(angle)];
  return { x1: 24 - dx, y1: 24 + dy, x2: 24 + dx, y2: 24 - dy };
};

/** One lens on one eye: ring = fit, centre = kind, mark = how it sits, inner line = axis given, ticks = axis asked. */
export function LensToken({ size, ring, geometry, rotationLeft, axisGiven, axisAsked, label }: LensTokenProps) {
  const toric = geometry === 'toric' || geometry === 'toricMultifocal';
  const multifocal = geometry === 'multifocal' || geometry === 'toricMultifocal';
  const from = point(14, rotationLeft);
  const to = point(21, rotationLeft);
  return (
    <svg width={size} height={size} viewBox="0 0 48 48" role="img" aria-label={label} className="token">
      <circle
        cx="24"
        cy="24"
        r="17"
        fill="none"
        stroke="currentColor"
        strokeWidth={ring === 'unjudged' ? 1.2 : 2.4}
        strokeDasharray={ring === 'loose' ? '5 4' : undefined}
      />
      {ring === 'tight' ? <circle cx="24" cy="24" r="13.5" fill="none" stroke="currentColor" strokeWidth="1.4" /> : null}
      {multifocal ? <circle cx="24" cy="24" r="7" fill="none" stroke="currentColor" strokeWidth="1.6" /> : null}
      {toric ? (
        <>
          <line x1={from.x} y1={from.y} x2={to.x} y2={to.y} stroke="currentColor" strokeWidth="3.4" />
          {axisGiven !== null && size >= 40 ? <line {...onAxis(10, axisGiven)} stroke="currentColor" strokeWidth="1.2" /> : null}
          {axisAsked !== null && size >= 40 ? <AskedTicks axis={axisAsked} /> : null}
        </>
      ) : (
        <circle cx="24" cy="24" r="1.8" fill="currentColor" />
      )}
    </svg>
  );
}

function AskedTicks({ axis }: { readonly axis: number }) {
  const inner = onAxis(19, axis);
  const outer = onAxis(23, axis);
  return (
    <g stroke="currentColor" strokeWidth="2">
      <line x1={inner.x1} y1={inner.y1} x2={outer.x1} y2={outer.y1} />
      <line x1={inner.x2} y1={inner.y2} x2={outer.x2} y2={outer.y2} />
    </g>
  );
}
