'use client';
import { memo, useRef, type KeyboardEvent } from 'react';
import { anglesOf, LIMITS, type Eye, type MarkLayout } from '../core';
import { CX, CY, Lids, NoseAndEar, PX_PER_MM, VIEW_WIDTH } from './eyeDrawing';
import { useDrag } from './useDrag';

export interface RotationEyeProps {
  readonly eye: Eye;
  readonly layout: MarkLayout;
  /** Degrees between neighbouring marks of `fiveSixSeven`. */
  readonly spacing?: number;
  /** Degrees, examiner's left positive. */
  readonly value: number;
  readonly onChange: (value: number, how: 'drag' | 'keys') => void;
  readonly disabled?: boolean;
  /** Blinks read so far, oldest first: drawn further out one by one, so that a drift is a slope and a scatter a zigzag. */
  readonly trail?: readonly number[];
  readonly label: string;
  readonly valueText: (value: number) => string;
  readonly words: { readonly nose: string; readonly ear: string };
}

/** A lens without a mark is drawn with one, to be turned by. */
const marksAt = (layout: MarkLayout, spacing: number): readonly number[] => (layout === 'none' ? [0] : anglesOf(layout, spacing));
/** Top of the drawing's view box. */
const TOP = 38;
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
export function RotationEye({ eye, layout, spacing = 30, value, onChange, disabled = false, trail = [], label, valueText, words }: RotationEyeProps) {
  const svg = useRef<SVGSVGElement>(null);
  const { shown, dragging, on } = useDrag({
    value,
    disabled,
    point: (event) => {
      const box = svg.current?.getBoundingClientRect();
      if (!box) return null;
      const scale = VIEW_WIDTH / box.width;
      // Screen y grows downwards, so this angle grows clockwise, as a lens turning to the examiner's left does.
      return (Math.atan2((event.clientY - box.top) * scale + TOP - CY, (event.clientX - box.left) * scale - CX) * 180) / Math.PI;
    },
    moved: (from, to) => clamp(from.value + ((to - from.point + 540) % 360) - 180),
    same: (a, b) => a === b,
    onChange: (turned) => onChange(turned, 'drag'),
  });
  const onKeyDown = (event: KeyboardEvent): void => {
    if (disabled) return;
    const step: Partial<Record<string, number>> = { ArrowLeft: 1, ArrowRight: -1, PageUp: 5, PageDown: -5 };
    const by = step[event.key];
    if (by !== undefined) onChange(clamp(shown + by), 'keys');
    else if (event.key === 'Home') onChange(0, 'keys');
    else return;
    event.preventDefault();
    event.stopPropagation();
  };

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
      aria-valuenow={shown}
      aria-valuetext={valueText(shown)}
      aria-disabled={disabled}
      {...on}
      onKeyDown={onKeyDown}
      data-testid={`rotation-eye-${eye}`}
    >
      <Still eye={eye} nose={words.nose} ear={words.ear} />
      <g stroke="var(--ink)" strokeLinecap="butt">
        {marksAt(layout, spacing).map((hour) => {
          const a = at(LENS - 18, hour + shown);
          const b = at(LENS + 1, hour + shown);
          return <line key={hour} x1={a.x} y1={a.y} x2={b.x} y2={b.y} strokeWidth="7" />;
        })}
        <line x1={CX} y1={CY + 34} x2={at(LENS - 20, shown).x} y2={at(LENS - 20, shown).y} strokeWidth="1" strokeDasharray="2 4" />
      </g>
      {dragging ? (
        <text x={CX} y={CY + 6} textAnchor="middle" fontSize="18" fontWeight="700" fill="var(--on-pupil)" aria-hidden="true">
          {`${Math.abs(shown)}°`}
        </text>
      ) : null}
      <Trail turns={trail.slice(-TRAIL_SHOWN)} />
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

const TICKS = Array.from({ length: 19 }, (_, i) => (i - 9) * 5);

/** What does not turn with the lens: the eye, the lens's edge and the scale around it. */
const Still = memo(function Still({ eye, nose, ear }: { readonly eye: Eye; readonly nose: string; readonly ear: string }) {
  return (
    <>
      <Lids clip={`lids-${eye}`}>
        <circle cx={CX} cy={CY} r={IRIS} fill="var(--iris)" stroke="var(--ink)" strokeWidth="2" />
        {Array.from({ length: 48 }, (_, i) => {
          const a = at(IRIS * 0.42, i * 7.5);
          const b = at(IRIS * (i % 2 ? 0.92 : 0.8), i * 7.5);
          return <line key={i} x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="var(--iris-ray)" strokeWidth="1" />;
        })}
      </Lids>
      <path d="M40 118 C110 40 250 40 320 118" fill="none" stroke="var(--ink-3)" strokeWidth="1.4" />
      <circle cx={CX} cy={CY} r={LENS} fill="none" stroke="var(--ink)" strokeWidth="1.6" />
      <g stroke="var(--ink-2)">
        {TICKS.map((t) => {
          const long = t % 10 === 0;
          const a = at(LENS + 3, t);
          const b = at(LENS + (long ? 13 : 8), t);
          return <line key={t} x1={a.x} y1={a.y} x2={b.x} y2={b.y} strokeWidth={t === 0 ? 2.4 : 1.1} />;
        })}
      </g>
      <g className="note" fill="var(--ink-2)" textAnchor="middle">
        {TICKS.filter((t) => t % 10 === 0).map((t) => {
          const p = at(LENS + 24, t);
          return (
            <text key={t} x={p.x} y={p.y + 4} fontSize="12">
              {Math.abs(t)}
            </text>
          );
        })}
      </g>
      <NoseAndEar eye={eye} y={290} words={{ nose, ear }} />
    </>
  );
});
