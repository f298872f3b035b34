'use client';
import { useRef, type PointerEvent } from 'react';
import type { Eye, Millimetres } from '../core';

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

const PX_PER_MM = 15.4;
const [CX, CY] = [180, 150];
const REACH = 3;
const tenth = (mm: number): number => Math.round(Math.max(-REACH, Math.min(REACH, mm)) * 10) / 10 + 0;

/** Where a lens sits on the eye, as the examiner sees it: drag it to where it was seen. Buttons and fields do the same. */
export function FitEye({ eye, hvid, lensDiameter, offNose, offUp, onMove, disabled = false, label, words }: FitEyeProps) {
  const svg = useRef<SVGSVGElement>(null);
  const start = useRef<{ x: number; y: number; nose: number; up: number } | null>(null);
  // The nose is toward the spine: right of the right eye, left of the left one.
  const side = eye === 'right' ? 1 : -1;
  const onPointerDown = (event: PointerEvent<SVGSVGElement>): void => {
    if (disabled) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    start.current = { x: event.clientX, y: event.clientY, nose: offNose, up: offUp };
  };
  const onPointerMove = (event: PointerEvent): void => {
    const from = start.current;
    const box = svg.current?.getBoundingClientRect();
    if (!from || !box) return;
    const mm = 360 / box.width / PX_PER_MM;
    onMove(tenth(from.nose + (event.clientX - from.x) * mm * side), tenth(from.up - (event.clientY - from.y) * mm));
  };
  const onPointerUp = (): void => {
    start.current = null;
  };
  const clip = `fit-lids-${eye}`;
  const lids = 'M18 158 C80 60 280 60 342 158 C290 262 70 262 18 158Z';
  const [x, y] = [CX + offNose * side * PX_PER_MM, CY - offUp * PX_PER_MM];
  const lens = (lensDiameter / 2) * PX_PER_MM;
  const iris = (hvid / 2) * PX_PER_MM;
  const nose = eye === 'right' ? 'end' : 'start';
  return (
    <svg
      ref={svg}
      viewBox="0 30 360 250"
      className="rotation-eye"
      role="img"
      aria-label={label}
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      onPointerCancel={onPointerUp}
      data-testid={`fit-eye-${eye}`}
    >
      <clipPath id={clip}>
        <path d={lids} />
      </clipPath>
      <path d={lids} fill="var(--eye-white)" />
      <g clipPath={`url(#${clip})`}>
        <circle cx={CX} cy={CY} r={iris} fill="var(--iris)" stroke="var(--ink)" strokeWidth="2" />
        <circle cx={CX} cy={CY} r={30} fill="var(--pupil)" />
      </g>
      <path d={lids} fill="none" stroke="var(--ink-2)" strokeWidth="2.2" />
      <g stroke="var(--ink-3)" strokeWidth="1" strokeDasharray="3 3">
        <line x1={CX - iris - 30} y1={CY} x2={CX + iris + 30} y2={CY} />
        <line x1={CX} y1={CY - iris - 26} x2={CX} y2={CY + iris + 26} />
      </g>
      <circle cx={x} cy={y} r={lens} fill="none" stroke="var(--ink)" strokeWidth="2.4" />
      <path d={`M${x - 8} ${y}h16M${x} ${y - 8}v16`} stroke="var(--sheet)" strokeWidth="5" />
      <path d={`M${x - 7} ${y}h14M${x} ${y - 7}v14`} stroke="var(--ink)" strokeWidth="2" />
      <g fontSize="12" fill="var(--ink-3)">
        <text x={nose === 'end' ? 352 : 8} y="274" textAnchor={nose}>
          {words.nose}
        </text>
        <text x={nose === 'end' ? 8 : 352} y="274" textAnchor={nose === 'end' ? 'start' : 'end'}>
          {words.ear}
        </text>
      </g>
    </svg>
  );
}
