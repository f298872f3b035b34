'use client';
import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { clockwiseFromDown, placeAt, type PhotoPoint, type TurnOfPhoto } from '@/core';
import { rollOf, type Placed } from './usePhotoSeries';
import type { Shot } from './usePhotoReading';

/** What a press on the picture places. */
export const TOOLS = ['mark', 'centre', 'edge', 'canthusLeft', 'canthusRight'] as const;
export type Tool = (typeof TOOLS)[number];

/** What a tool places is now here. */
export function placedBy(tool: Tool, placed: Placed, to: PhotoPoint, { width, height }: Shot): Placed {
  const { lens } = placed;
  switch (tool) {
    case 'mark':
      return { ...placed, at: clockwiseFromDown(lens, to) };
    case 'centre':
      return { ...placed, lens: { ...lens, x: to.x, y: to.y } };
    case 'edge':
      return { ...placed, lens: { ...lens, r: Math.max(8, Math.hypot(to.x - lens.x, to.y - lens.y)) } };
    case 'canthusLeft':
    case 'canthusRight': {
      const [left, right] = placed.canthi ?? [
        { x: 0, y: height / 2 },
        { x: width, y: height / 2 },
      ];
      return { ...placed, canthi: tool === 'canthusLeft' ? [to, right] : [left, to] };
    }
  }
}
/** Where what a tool places lies now: the arrow keys move it from there. */
export function placeOf(tool: Tool, placed: Placed, { width, height }: Shot): PhotoPoint {
  const { lens, canthi } = placed;
  switch (tool) {
    case 'mark':
      return placeAt(lens, placed.at ?? rollOf(placed));
    case 'centre':
      return lens;
    case 'edge':
      return { x: lens.x + lens.r, y: lens.y };
    case 'canthusLeft':
      return canthi?.[0] ?? { x: 0, y: height / 2 };
    case 'canthusRight':
      return canthi?.[1] ?? { x: width, y: height / 2 };
  }
}

const ARROWS: Readonly<Record<string, readonly [number, number]>> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
/** Degrees that an arrow key turns the arm by. */
const NUDGE_DEG = 0.5;

interface Of {
  readonly shot: Shot;
  readonly placed: Placed;
  readonly tool: Tool;
  readonly upsideDown: boolean;
  readonly found: TurnOfPhoto | null;
  readonly label: string;
  readonly valueText: string;
  /** Where the lens's other marks then are, degrees clockwise from straight down. */
  readonly others: readonly number[];
  readonly onPlace: (placed: Placed) => void;
}

/** The picture with the protractor on it: a press or a drag places what the tool names, arrow keys nudge it. */
export function PhotoProtractor({ shot, placed, tool, upsideDown, found, label, valueText, others, onPlace }: Of) {
  const svg = useRef<SVGSVGElement>(null);
  const [holds, setHolds] = useState(false);
  const { width, height } = shot;
  const pointOf = (event: PointerEvent): PhotoPoint | null => {
    const box = svg.current?.getBoundingClientRect();
    return box ? { x: ((event.clientX - box.left) / box.width) * width, y: ((event.clientY - box.top) / box.height) * height } : null;
  };
  const place = (event: PointerEvent): void => {
    const to = pointOf(event);
    if (to) onPlace(placedBy(tool, placed, to, shot));
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const by = ARROWS[event.key];
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    const step = event.shiftKey ? 10 : 1;
    if (tool === 'mark') {
      // Down and right turn it back: to the examiner's right.
      const turned = (by[0] < 0 || by[1] < 0 ? 1 : -1) * NUDGE_DEG * step;
      return onPlace({ ...placed, at: (placed.at ?? rollOf(placed)) + turned });
    }
    const from = placeOf(tool, placed, shot);
    onPlace(placedBy(tool, placed, { x: from.x + by[0] * step, y: from.y + by[1] * step }, shot));
  };
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${width} ${height}`}
      className="photo"
      role="application"
      tabIndex={0}
      aria-label={label}
      aria-describedby="photo-keys"
      data-testid="photo"
      onKeyDown={onKeyDown}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        setHolds(true);
        place(event);
      }}
      onPointerMove={(event) => (holds ? place(event) : undefined)}
      onPointerUp={() => setHolds(false)}
      onPointerCancel={() => setHolds(false)}
    >
      <title>{valueText}</title>
      <Picture shot={shot} upsideDown={upsideDown} />
      <Drawn shot={shot} placed={placed} found={found} others={others} />
    </svg>
  );
}

function Picture({ shot, upsideDown }: { readonly shot: Shot; readonly upsideDown: boolean }) {
  const { id, width, height } = shot;
  return <image href={`/api/pictures/${id}`} width={width} height={height} transform={upsideDown ? `rotate(180 ${width / 2} ${height / 2})` : undefined} />;
}

/** Lines over the picture, light with a dark edge: they show on white and on brown. */
function Drawn({ shot, placed, found, others }: Pick<Of, 'shot' | 'placed' | 'found' | 'others'>) {
  const { lens, at, canthi } = placed;
  const unit = shot.width / 560;
  // Open where the mark is: what is looked at is not drawn over.
  const on = (share: number, angle: number): PhotoPoint => placeAt({ ...lens, r: lens.r * share }, angle);
  const arm = at === null ? [] : [[on(0, at), on(0.76, at)] as const, [on(1.01, at), on(1.09, at)] as const];
  const zero = on(0.76, rollOf(placed));
  return (
    <g className="photo-lines" strokeWidth={2 * unit}>
      {found?.limbus ? <circle cx={found.limbus.x} cy={found.limbus.y} r={found.limbus.r} strokeDasharray={`${3 * unit} ${5 * unit}`} /> : null}
      <circle cx={lens.x} cy={lens.y} r={lens.r} />
      <path d={`M${lens.x - 8 * unit} ${lens.y}h${16 * unit}M${lens.x} ${lens.y - 8 * unit}v${16 * unit}`} />
      <line x1={lens.x} y1={lens.y} x2={zero.x} y2={zero.y} strokeDasharray={`${2 * unit} ${6 * unit}`} />
      {arm.map(([a, b], i) => (
        <line key={i} x1={a.x} y1={a.y} x2={b.x} y2={b.y} strokeWidth={3 * unit} />
      ))}
      {others.map((angle) => {
        const [a, b] = [on(1.01, angle), on(1.06, angle)];
        return <line key={angle} x1={a.x} y1={a.y} x2={b.x} y2={b.y} strokeWidth={3 * unit} />;
      })}
      {canthi ? <line x1={canthi[0].x} y1={canthi[0].y} x2={canthi[1].x} y2={canthi[1].y} strokeDasharray={`${10 * unit} ${4 * unit}`} /> : null}
    </g>
  );
}

/** Side of the piece that the loupe shows, as a share of the picture's width. */
const LOUPE = 0.16;

/** What lies under the tool, four times as large. */
export function PhotoLoupe({ shot, placed, tool, upsideDown, label }: Pick<Of, 'shot' | 'placed' | 'tool' | 'upsideDown' | 'label'>) {
  const side = shot.width * LOUPE;
  const { x, y } = placeOf(tool, placed, shot);
  return (
    <svg viewBox={`${x - side / 2} ${y - side / 2} ${side} ${side}`} className="photo-loupe" role="img" aria-label={label}>
      <Picture shot={shot} upsideDown={upsideDown} />
      <Drawn shot={{ ...shot, width: shot.width / 3 }} placed={placed} found={null} others={[]} />
    </svg>
  );
}
