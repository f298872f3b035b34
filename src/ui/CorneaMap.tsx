'use client';
import { useRef, type KeyboardEvent } from 'react';
import { CENTRAL_WITHIN, LESION_LIMITS, type CornealLesion, type Eye, type LesionKind } from '../core';
import { useDrag } from './useDrag';

export interface CorneaMapProps {
  readonly eye: Eye;
  /** What was drawn and kept. */
  readonly lesions: readonly CornealLesion[];
  /** What is being placed: dragged, or moved and sized by keys; null for nothing. */
  readonly placing: CornealLesion | null;
  readonly onPlace: (lesion: CornealLesion) => void;
  readonly disabled?: boolean;
  readonly label: string;
  /** What is being placed, in words. */
  readonly valueText: string;
  readonly words: { readonly nose: string; readonly ear: string };
}

/** Half of the view, mm, and the cornea in it. */
const HALF = 8;
const CORNEA = 5.9;
const REACH = 7;
const PUPIL = 2;
/** Steps of the arrow keys, and with Shift, mm. */
const MOVE = 0.5;
const FINE = 0.1;
const tenth = (mm: number): number => Math.round(mm * 10) / 10 + 0;

/** Kinds told apart by their line and filling, never by colour alone. */
const LOOK: Readonly<Record<LesionKind, { readonly fill: string; readonly dash?: string }>> = {
  staining: { fill: 'none', dash: '0.4 0.3' },
  infiltrate: { fill: 'var(--watch-fill, var(--rule))' },
  ulcer: { fill: 'var(--ink)' },
};

/** Keeps a lesion on the cornea. */
function within(lesion: CornealLesion, nasalMm: number, upMm: number): CornealLesion {
  const far = Math.hypot(nasalMm, upMm);
  if (far <= REACH - FINE) return { ...lesion, nasalMm: tenth(nasalMm), upMm: tenth(upMm) };
  const by = Math.min(1, REACH / far);
  // Towards the centre, so that rounding never puts it over the edge.
  const inward = (mm: number): number => Math.sign(mm) * Math.floor(Math.abs(mm * by) * 10 + 1e-6) * 0.1;
  return { ...lesion, nasalMm: tenth(inward(nasalMm)), upMm: tenth(inward(upMm)) };
}

/** The cornea as the examiner sees it: pupil, the ring within which sight is threatened, and what is drawn on it, in its real size. */
export function CorneaMap({ eye, lesions, placing, onPlace, disabled = false, label, valueText, words }: CorneaMapProps) {
  const svg = useRef<SVGSVGElement>(null);
  // The nose lies towards the middle of the page.
  const side = eye === 'right' ? 1 : -1;
  const pointOf = (event: { readonly clientX: number; readonly clientY: number }): { readonly nasal: number; readonly up: number } | null => {
    const box = svg.current?.getBoundingClientRect();
    if (!box) return null;
    const mm = (2 * HALF) / box.width;
    return { nasal: ((event.clientX - box.left) * mm - HALF) * side, up: HALF - (event.clientY - box.top) * mm };
  };
  const { shown, on } = useDrag({
    value: placing,
    disabled: disabled || placing === null,
    point: pointOf,
    moved: (from, to) => from.value && within(from.value, to.nasal, to.up),
    same: (a, b) => a?.nasalMm === b?.nasalMm && a?.upMm === b?.upMm,
    onChange: (lesion) => {
      if (lesion) onPlace(lesion);
    },
  });
  const onKeyDown = (event: KeyboardEvent): void => {
    if (disabled || placing === null) return;
    const by = event.shiftKey ? FINE : MOVE;
    const moves: Partial<Record<string, readonly [number, number]>> = {
      ArrowLeft: [-by * side, 0],
      ArrowRight: [by * side, 0],
      ArrowUp: [0, by],
      ArrowDown: [0, -by],
    };
    const move = moves[event.key];
    const grow = event.key === '+' || event.key === '=' ? by : event.key === '-' ? -by : 0;
    if (move) onPlace(within(placing, placing.nasalMm + move[0], placing.upMm + move[1]));
    else if (grow !== 0) {
      const { min, max } = LESION_LIMITS.longMm;
      const longMm = tenth(Math.max(min, Math.min(max, placing.longMm + grow)));
      // What is round stays round.
      onPlace({ ...placing, longMm, acrossMm: placing.acrossMm === placing.longMm ? longMm : Math.min(placing.acrossMm, longMm) });
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const drawn = (lesion: CornealLesion, key: string) => {
    const { fill, dash } = LOOK[lesion.kind];
    return (
      <ellipse
        key={key}
        cx={lesion.nasalMm * side}
        cy={-lesion.upMm}
        rx={lesion.longMm / 2}
        ry={lesion.acrossMm / 2}
        fill={fill}
        stroke="var(--ink)"
        strokeWidth="0.12"
        strokeDasharray={dash}
      />
    );
  };
  return (
    <svg
      ref={svg}
      viewBox={`${-HALF} ${-HALF} ${2 * HALF} ${2 * HALF}`}
      className="cornea-map"
      role="slider"
      tabIndex={disabled || placing === null ? -1 : 0}
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={REACH}
      aria-valuenow={shown ? tenth(Math.hypot(shown.nasalMm, shown.upMm)) : 0}
      aria-valuetext={valueText}
      aria-disabled={disabled || placing === null || undefined}
      data-testid={`cornea-map-${eye}`}
      onKeyDown={onKeyDown}
      onClick={(event) => {
        const to = pointOf(event);
        if (placing && to && !disabled) onPlace(within(placing, to.nasal, to.up));
      }}
      {...on}
    >
      <circle r={CORNEA} fill="var(--eye-white)" stroke="var(--ink-2)" strokeWidth="0.1" />
      <circle r={PUPIL} fill="none" stroke="var(--ink-3)" strokeWidth="0.08" />
      <circle r={CENTRAL_WITHIN} fill="none" stroke="var(--stop)" strokeWidth="0.08" strokeDasharray="0.3 0.3" />
      {lesions.map((lesion, index) => drawn(lesion, String(index)))}
      {shown ? (
        <g data-testid={`placing-${eye}`}>
          {drawn(shown, 'placing')}
          <circle cx={shown.nasalMm * side} cy={-shown.upMm} r={Math.max(0.9, shown.longMm / 2 + 0.35)} fill="none" stroke="var(--act)" strokeWidth="0.16" />
        </g>
      ) : null}
      <text x={7.8 * side} y={7.7} fontSize="0.95" fill="var(--ink-3)" textAnchor={side === 1 ? 'end' : 'start'}>
        {words.nose}
      </text>
      <text x={-7.8 * side} y={7.7} fontSize="0.95" fill="var(--ink-3)" textAnchor={side === 1 ? 'start' : 'end'}>
        {words.ear}
      </text>
    </svg>
  );
}
