'use client';
import { useRef } from 'react';
import type { Eye, Millimetres } from '../core';
import { CX, CY, Lids, NoseAndEar, PX_PER_MM, VIEW_WIDTH } from './eyeDrawing';
import { useDrag } from './useDrag';

export interface FitEyeProps {
  readonly eye: Eye;
  /** Iris and lens as they lie on the eye, mm. */
  readonly hvid: Millimetres;
  readonly lensDiameter: Millimetres;
  /** How far the middle of the lens lies toward the nose and up, mm. */
  readonly offNose: Millimetres;
  readonly offUp: Millimetres;
  readonly onMove: (offNose: Millimetres, offUp: Millimetres) => void;
  readonly disabled?: boolean;
  readonly label: string;
  readonly words: { readonly nose: string; readonly ear: string };
}

const REACH = 3;
const tenth = (mm: number): number => Math.round(Math.max(-REACH, Math.min(REACH, mm)) * 10) / 10 + 0;

/** Where a lens sits on the eye, as the examiner sees it: drag it to where it was seen. Buttons and fields do the same. */
export function FitEye({ eye, hvid, lensDiameter, offNose, offUp, onMove, disabled = false, label, words }: FitEyeProps) {
  const svg = useRef<SVGSVGElement>(null);
  // The nose is toward the spine: right of the right eye, left of the left one.
  const side = eye === 'right' ? 1 : -1;
  const { shown, on } = useDrag({
    value: { nose: offNose, up: offUp },
    disabled,
    point: (event) => {
      const box = svg.current?.getBoundingClientRect();
      if (!box) return null;
      const mm = VIEW_WIDTH / box.width / PX_PER_MM;
      return { nose: event.clientX * mm * side, up: -event.clientY * mm };
    },
    moved: (from, to) => ({ nose: tenth(from.value.nose + to.nose - from.point.nose), up: tenth(from.value.up + to.up - from.point.up) }),
    same: (a, b) => a.nose === b.nose && a.up === b.up,
    onChange: ({ nose, up }) => onMove(nose, up),
  });
  const [x, y] = [CX + shown.nose * side * PX_PER_MM, CY - shown.up * PX_PER_MM];
  const lens = (lensDiameter / 2) * PX_PER_MM;
  const iris = (hvid / 2) * PX_PER_MM;
  return (
    <svg ref={svg} viewBox="0 30 360 250" className="rotation-eye" role="img" aria-label={label} {...on} data-testid={`fit-eye-${eye}`}>
      <Lids clip={`fit-lids-${eye}`}>
        <circle cx={CX} cy={CY} r={iris} fill="var(--iris)" stroke="var(--ink)" strokeWidth="2" />
      </Lids>
      <g stroke="var(--ink-3)" strokeWidth="1" strokeDasharray="3 3">
        <line x1={CX - iris - 30} y1={CY} x2={CX + iris + 30} y2={CY} />
        <line x1={CX} y1={CY - iris - 26} x2={CX} y2={CY + iris + 26} />
      </g>
      <circle cx={x} cy={y} r={lens} fill="none" stroke="var(--ink)" strokeWidth="2.4" />
      <path d={`M${x - 8} ${y}h16M${x} ${y - 8}v16`} stroke="var(--sheet)" strokeWidth="5" />
      <path d={`M${x - 7} ${y}h14M${x} ${y - 7}v14`} stroke="var(--ink)" strokeWidth="2" />
      <NoseAndEar eye={eye} y={274} words={words} />
    </svg>
  );
}
