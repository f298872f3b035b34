'use client';
import { useTranslations } from 'use-intl';
import type { Degrees } from '@/core';

const R = 84;
const CX = 110;
const CY = 104;
const RADIANS = Math.PI / 180;
const at = (axis: Degrees, radius: number): readonly [number, number] => [CX + radius * Math.cos(axis * RADIANS), CY - radius * Math.sin(axis * RADIANS)];
const ray = (axis: Degrees, from: number, to: number): string => {
  const [x1, y1] = at(axis, from);
  const [x2, y2] = at(axis, to);
  return `M${x1.toFixed(1)} ${y1.toFixed(1)}L${x2.toFixed(1)} ${y2.toFixed(1)}`;
};
const LABELS = [30, 60, 90, 120, 150, 180];

/** The axes of one cell as the examiner sees them, 0 at the right: long ticks are made, short ones are not; heavy is given, dashed is asked. */
export function AxisFan({ made, given, asked }: { readonly made: readonly Degrees[]; readonly given: Degrees | null; readonly asked: Degrees | null }) {
  const t = useTranslations('range');
  const label = [
    t('fanMade', { count: made.length }),
    ...(asked === null ? [] : [t('fanAsked', { axis: Math.round(asked) })]),
    ...(given === null ? [] : [t('fanGiven', { axis: given })]),
  ].join(', ');
  const every = made.length > 40 ? 5 : 10;
  const ticks = Array.from({ length: 180 / every }, (_, i) => (i + 1) * every);
  const has = (axis: number): boolean => made.includes(axis);
  return (
    <figure className="axis-fan">
      <svg viewBox="0 0 220 124" role="img" aria-label={label} className="w-full h-auto max-w-[240px]">
        <path d={`M${CX - R} ${CY}A${R} ${R} 0 0 1 ${CX + R} ${CY}`} fill="none" stroke="var(--rule-2)" />
        <line x1={CX - R - 6} x2={CX + R + 6} y1={CY} y2={CY} stroke="var(--rule-2)" />
        {ticks.map((axis) => (
          <path key={axis} d={ray(axis, has(axis) ? R - 11 : R - 4, R)} stroke={has(axis) ? 'var(--ink)' : 'var(--ink-3)'} strokeWidth={has(axis) ? 1.6 : 1} />
        ))}
        {LABELS.map((axis) => {
          const [x, y] = at(axis, R + 11);
          return (
            <text key={axis} x={x} y={y + 4} textAnchor="middle" className="range-text">
              {axis}
            </text>
          );
        })}
        {asked === null ? null : <path d={ray(asked, 0, R + 4)} stroke="var(--ink)" strokeDasharray="4 3" />}
        {given === null ? null : <path d={ray(given, R * 0.5, R - 2)} stroke="var(--ink)" strokeWidth="4" />}
      </svg>
      <figcaption className="note">{label}</figcaption>
    </figure>
  );
}
