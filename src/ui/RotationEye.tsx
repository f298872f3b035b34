'use client';
import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { LIMITS, type Eye, type MarkLayout } from '../core';

export interface RotationEyeProps {
  readonly eye: Eye;
  readonly layout: MarkLayout;
  /** Degrees, examiner's left positive. */
  readonly value: number;
  readonly onChange: (value: number, how: 'drag' | 'keys') => void;
  readonly disabled?: boolean;
  /** Blinks read so far, oldest first: drawn further out one by one, so that a drift is a slope and a scatter a zigzag. */
  readonly trail?: readonly number[];
  readonly label: string;
  readonly valueText: string;
  readonly words: { readonly nose: string; readonly ear: string };
}

/** Hours at which a layout engraves its marks, as degrees clockwise from 6 o'clock. */
const MARKS: Readonly<Record<MarkLayout, readonly number[]>> = { none: [0], six: [0], threeNine: [90, 270], twelve: [180] };
const PX_PER_MM = 15.4;
/** Top of the drawing's view box. */
const TOP = 38;
const [CX, CY] = [180, 150];
const LENS = (14.2 / 2) * PX_PER_MM;
const IRIS = (11.8 / 2) * PX_PER_MM;

const at = (radius: number, clockwiseFromSix: number): { x: number; y: number } => {
  const angle = (clockwiseFromSix * Math.PI) / 180;
  return { x: CX - radius * Math.sin(angle), y: CY + radius * Math.cos(angle) };
};
/** Dots of the trail, the last few blinks. */
const TRAIL_SHOWN = 10;
const TRAIL_STEP = 7;
const clamp = (value: number): number => Math.max(LIMITS.rotationLeft.min, Math.min(LIMITS.rotationLeft.max, Math.round(value)));

/**
 * The eye as the examiner sees it, with the lens and its mark: turn it by dragging, or with the arrow keys.
 * Clockwise (the bottom mark to the examiner's left) is positive.
 */
export function RotationEye({ eye, layout, value, onChange, disabled = false, trail = [], label, valueText, words }: RotationEyeProps) {
  const start = useRef<{ pointer: number; value: number } | null>(null);
  const svg = useRef<SVGSVGElement>(null);
  const clip = `lids-${eye}`;

  const pointerAngle = (event: PointerEvent): number => {
    const box = svg.current?.getBoundingClientRect();
    if (!box) return 0;
    const scale = 360 / box.width;
    // Screen y grows downwards, so this angle grows clockwise, as a lens turning to the examiner's left does.
    return (Math.atan2((event.clientY - box.top) * scale + TOP - CY, (event.clientX - box.left) * scale - CX) * 180) / Math.PI;
  };
  const onPointerDown = (event: PointerEvent<SVGSVGElement>): void => {
    if (disabled) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    start.current = { pointer: pointerAngle(event), value };
  };
  const onPointerMove = (event: PointerEvent): void => {
    if (!start.current) return;
    const turned = ((pointerAngle(event) - start.current.pointer + 540) % 360) - 180;
    const now = clamp(start.current.value + turned);
    // A hand sends many moves a degree: only a new degree is news.
    if (now !== value) onChange(now, 'drag');
  };
  const onPointerUp = (): void => {
    start.current = null;
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if (disabled) return;
    const step: Partial<Record<string, number>> = { ArrowLeft: 1, ArrowRight: -1, PageUp: 5, PageDown: -5 };
    const by = step[event.key];
    if (by !== undefined) onChange(clamp(value + by), 'keys');
    else if (event.key === 'Home') onChange(0, 'keys');
    else return;
    event.preventDefault();
    event.stopPropagation();
  };

  const ticks = Array.from({ length: 19 }, (_, i) => (i - 9) * 5);
  const nose = eye === 'right' ? 'end' : 'start';
  return (
    <svg
      ref={svg}
      viewBox="0 38 360 294"
      className="rotation-eye"
      role="slider"
      tabIndex={disabled ? -1 : 0}
      aria-label={label}
      aria-valuemin={LIMITS.rotationLeft.min}
      aria-valuemax={LIMITS.rotationLeft.max}
      aria-valuenow={value}
      aria-valuetext={valueText}
      aria-disabled={disabled}
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      onPointerCancel={onPointerUp}
      onKeyDown={onKeyDown}
      data-testid={`rotation-eye-${eye}`}
    >
      <clipPath id={clip}>
        <path d="M18 158 C80 60 280 60 342 158 C290 262 70 262 18 158Z" />
      </clipPath>
      <path d="M18 158 C80 60 280 60 342 158 C290 262 70 262 18 158Z" fill="var(--eye-white)" />
      <g clipPath={`url(#${clip})`}>
        <circle cx={CX} cy={CY} r={IRIS} fill="var(--iris)" stroke="var(--ink)" strokeWidth="2" />
        {Array.from({ length: 48 }, (_, i) => {
          const a = at(IRIS * 0.42, i * 7.5);
          const b = at(IRIS * (i % 2 ? 0.92 : 0.8), i * 7.5);
          return <line key={i} x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="var(--iris-ray)" strokeWidth="1" />;
        })}
        <circle cx={CX} cy={CY} r={30} fill="var(--pupil)" />
      </g>
      <path d="M18 158 C80 60 280 60 342 158 C290 262 70 262 18 158Z" fill="none" stroke="var(--ink-2)" strokeWidth="2.2" />
      <path d="M40 118 C110 40 250 40 320 118" fill="none" stroke="var(--ink-3)" strokeWidth="1.4" />
      <circle cx={CX} cy={CY} r={LENS} fill="none" stroke="var(--ink)" strokeWidth="1.6" />
      <g stroke="var(--ink-2)">
        {ticks.map((t) => {
          const long = t % 10 === 0;
          const a = at(LENS + 3, t);
          const b = at(LENS + (long ? 13 : 8), t);
          return <line key={t} x1={a.x} y1={a.y} x2={b.x} y2={b.y} strokeWidth={t === 0 ? 2.4 : 1.1} />;
        })}
      </g>
      <g className="note" fill="var(--ink-2)" textAnchor="middle">
        {[-40, -30, -20, -10, 0, 10, 20, 30, 40].map((t) => {
          const p = at(LENS + 24, t);
          return (
            <text key={t} x={p.x} y={p.y + 4} fontSize="12">
              {Math.abs(t)}
            </text>
          );
        })}
      </g>
      <g stroke="var(--ink)" strokeLinecap="butt">
        {MARKS[layout].map((hour) => {
          const a = at(LENS - 18, hour + value);
          const b = at(LENS + 1, hour + value);
          return <line key={hour} x1={a.x} y1={a.y} x2={b.x} y2={b.y} strokeWidth="7" />;
        })}
        <line x1={CX} y1={CY + 34} x2={at(LENS - 20, value).x} y2={at(LENS - 20, value).y} strokeWidth="1" strokeDasharray="2 4" />
      </g>
      <Trail turns={trail.slice(-TRAIL_SHOWN)} />
      <g fontSize="12" fill="var(--ink-3)">
        <text x={nose === 'end' ? 352 : 8} y="290" textAnchor={nose}>
          {words.nose}
        </text>
        <text x={nose === 'end' ? 8 : 352} y="290" textAnchor={nose === 'end' ? 'start' : 'end'}>
          {words.ear}
        </text>
      </g>
    </svg>
  );
}

/** One dot a blink, each a step further out than the one before. */
function Trail({ turns }: { readonly turns: readonly number[] }) {
  const dots = turns.map((turn, i) => at(LENS + 36 + i * TRAIL_STEP, turn));
  return (
    <g>
      <polyline points={dots.map((d) => `${d.x},${d.y}`).join(' ')} fill="none" stroke="var(--ink-3)" strokeWidth="1" />
      {dots.map((d, i) => (
        <circle key={i} cx={d.x} cy={d.y} r={i === dots.length - 1 ? 4 : 3} fill="var(--ink)" />
      ))}
    </g>
  );
}
