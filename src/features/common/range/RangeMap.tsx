'use client';
import { useMemo } from 'react';
import { useTranslations } from 'use-intl';
import {
  cellShare,
  EYES,
  formatPower,
  rangeGrid,
  type LensAdd,
  type Eye,
  type LensBlock,
  type LensPower,
  type Refraction,
  compareAdds,
  nameOfAdd,
} from '@/core';
import { useEyeWords } from '../eyeWords';

/** A need and what is given for it. */
export interface OnMap {
  readonly need: Refraction | null;
  readonly given: LensPower | null;
}
export interface RangeMapProps {
  readonly blocks: readonly LensBlock[];
  /** What is announced beyond what is made now. */
  readonly announced?: readonly LensBlock[];
  /** Lenses of the drawer. */
  readonly drawer?: readonly LensPower[];
  readonly eyes: Readonly<Record<Eye, OnMap>>;
  /** The add looked at, for lenses with adds and cylinders. */
  readonly add: LensAdd | null;
  readonly label: string;
}

const WIDTH = 900;
const LEFT = 64;
const TOP = 26;
const ROW = 38;
const BAR = 30;

/** What a family makes: sphere along, cylinder down, a bar a cell as high as the share of axes made; each eye's need as a cross. */
export function RangeMap({ blocks, announced = [], drawer = [], eyes, add, label }: RangeMapProps) {
  const t = useTranslations('range');
  const eyeWords = useEyeWords();
  const grid = useMemo(() => rangeGrid(blocks), [blocks]);
  const later = useMemo(() => rangeGrid(announced), [announced]);
  const toric = grid.axes.length > 0;
  const rows = [
    ...grid.rows.filter((r) => !toric || r.add === null || r.add === add).map((r) => ({ ...r, announced: false })),
    ...later.rows
      .filter((r) => !toric || r.add === null || r.add === add)
      .map((r) => ({ ...r, cells: r.cells.filter((c) => !isMadeAlready(grid.rows, r.cylinder, r.add, c.sphere)), announced: true }))
      .filter((r) => r.cells.length > 0),
  ];
  const lines = distinctRows(rows);
  const all = [...grid.spheres, ...later.spheres];
  const least = Math.min(...all);
  const most = Math.max(...all);
  const span = Math.max(1, most - least);
  const x = (sphere: number): number => LEFT + 14 + ((sphere - least) / span) * (WIDTH - LEFT - 28);
  const lineAt = (cylinder: number, band: LensAdd | null): number => lines.findIndex((l) => Math.abs(l.cylinder - cylinder) < 1e-6 && l.add === band);
  const barWidth = Math.max(2, Math.min(12, ((WIDTH - LEFT) / (span / 0.25 + 2)) * 0.72));
  const height = TOP + lines.length * ROW + 34;
  /** Where a cylinder falls between the rows. */
  const y = (cylinder: number, band: LensAdd | null): number => {
    const same = lines.map((l, i) => ({ ...l, i })).filter((l) => (!toric ? l.add === band : true));
    if (!toric) return TOP + ((same[0]?.i ?? 0) + 0.5) * ROW;
    const middle = (i: number): number => TOP + (i + 0.5) * ROW;
    const after = same.findIndex((l) => l.cylinder <= cylinder);
    if (after <= 0)
      return after === 0 ? middle(same[0]?.i ?? 0) - (same[0] && same[0].cylinder < cylinder ? ROW * 0.4 : 0) : middle(same.at(-1)?.i ?? 0) + ROW * 0.4;
    const [a, b] = [same[after - 1], same[after]];
    return a && b ? middle(a.i) + ((a.cylinder - cylinder) / (a.cylinder - b.cylinder)) * (middle(b.i) - middle(a.i)) : middle(0);
  };
  const ticks = tickValues(least, most);
  return (
    <figure className="range-map" aria-label={label}>
      <svg viewBox={`0 0 ${WIDTH} ${height}`} className="w-full h-auto" role="img" aria-label={label}>
        {ticks.map((s) => (
          <text key={s} x={x(s)} y="14" textAnchor="middle" className="range-text">
            {s === 0 ? '0' : formatPower(s).replace('.00', '')}
          </text>
        ))}
        {grid.stepChanges.map((s) => (
          <line key={s} x1={x(s)} x2={x(s)} y1={TOP} y2={TOP + lines.length * ROW} stroke="var(--rule-2)" strokeDasharray="3 3" />
        ))}
        {lines.map((line, i) => (
          <g key={`${line.cylinder}|${line.add ?? ''}`}>
            <text x={LEFT - 8} y={TOP + i * ROW + BAR - 6} textAnchor="end" className="range-text range-strong">
              {line.cylinder === 0 ? (line.add ? nameOfAdd(line.add, (band) => t(`add.${band}`)) : t('sphere')) : formatPower(line.cylinder)}
            </text>
            <line x1={LEFT} x2={WIDTH} y1={TOP + i * ROW + BAR + 3} y2={TOP + i * ROW + BAR + 3} stroke="var(--rule)" />
          </g>
        ))}
        {rows.map((row) =>
          row.cells.map((cell) => {
            const i = lineAt(row.cylinder, row.add);
            const bar = BAR * Math.max(0.12, cellShare(cell, grid.axes));
            const box = { x: x(cell.sphere) - barWidth / 2, y: TOP + i * ROW + BAR + 3 - bar, width: barWidth, height: bar };
            return row.announced ? (
              <rect key={`n${row.cylinder}${row.add ?? ''}${cell.sphere}`} {...box} fill="none" stroke="var(--ink-2)" strokeDasharray="2 2" />
            ) : (
              <rect key={`${row.cylinder}${row.add ?? ''}${cell.sphere}`} {...box} fill="var(--rule-2)" />
            );
          }),
        )}
        {drawerCells(drawer).map((d) => {
          const i = lineAt(d.cylinder, toric ? (rows[0]?.add ?? null) : (rows.find((r) => r.cylinder === d.cylinder)?.add ?? null));
          return i < 0 || barWidth < 5 ? null : (
            <rect
              key={`d${d.sphere}|${d.cylinder}`}
              x={x(d.sphere) - 2.5}
              y={TOP + i * ROW + BAR - 5}
              width="5"
              height="5"
              fill="var(--sheet)"
              stroke="var(--ink)"
              strokeWidth="0.8"
            />
          );
        })}
        {EYES.map((e) => {
          const { need, given } = eyes[e];
          if (!need) return null;
          const asked = toric ? need : { ...need, cylinder: 0, sphere: need.sphere + need.cylinder / 2 };
          const band = rows.find((r) => r.add === add)?.add ?? rows[0]?.add ?? null;
          const at = { x: Math.max(LEFT, Math.min(WIDTH, x(asked.sphere))), y: y(asked.cylinder, band) };
          const i = given ? lineAt(given.cylinder, band) : -1;
          const foot = TOP + lines.length * ROW + 20;
          return (
            <g key={e} data-testid={`need-${e}`}>
              {given && i >= 0 ? (
                <rect
                  x={x(given.sphere) - barWidth / 2 - 3}
                  y={TOP + i * ROW - 1}
                  width={barWidth + 6}
                  height={BAR + 8}
                  fill="none"
                  stroke="var(--ink)"
                  strokeWidth="2.4"
                />
              ) : null}
              <path d={`M${at.x - 8} ${at.y}h16M${at.x} ${at.y - 8}v16`} stroke="var(--sheet)" strokeWidth="5" />
              <path d={`M${at.x - 8} ${at.y}h16M${at.x} ${at.y - 8}v16`} stroke="var(--ink)" strokeWidth="2.4" />
              <line x1={at.x} x2={at.x} y1={at.y + 8} y2={foot - 10} stroke="var(--ink)" strokeWidth="1" />
              <path d={badge(e, at.x, foot)} fill={e === 'right' ? 'var(--ink)' : 'var(--sheet)'} stroke="var(--ink)" strokeWidth="1.6" />
              <text x={at.x} y={foot + 5} textAnchor="middle" className={e === 'right' ? 'range-text range-strong range-on-ink' : 'range-text range-strong'}>
                {eyeWords.short(e)}
              </text>
            </g>
          );
        })}
      </svg>
      <figcaption className="note flex flex-wrap gap-x-4">
        <span>{toric ? t('keyShare', { count: grid.axes.length }) : t('keyMade')}</span>
        {drawer.length > 0 ? <span>{t('keyDrawer')}</span> : null}
        {announced.length > 0 ? <span>{t('keyAnnounced')}</span> : null}
        {EYES.some((e) => eyes[e].need) ? <span>{t('keyNeed')}</span> : null}
        {grid.stepChanges.length > 0 ? <span>{t('keyStep')}</span> : null}
      </figcaption>
    </figure>
  );
}

/** The badge of an eye as everywhere: round to the side the eye stands on. */
const badge = (eye: Eye, x: number, y: number): string =>
  eye === 'right' ? `M${x + 10} ${y - 10}h-10a10 10 0 0 0 0 20h10z` : `M${x - 10} ${y - 10}h10a10 10 0 0 1 0 20h-10z`;

interface Line {
  readonly cylinder: number;
  readonly add: LensAdd | null;
}
function distinctRows(rows: readonly Line[]): readonly Line[] {
  const seen = new Map<string, Line>();
  for (const r of rows) seen.set(`${r.cylinder}|${r.add ?? ''}`, { cylinder: r.cylinder, add: r.add });
  return [...seen.values()].sort((a, b) => b.cylinder - a.cylinder || compareAdds(a.add, b.add));
}
const isMadeAlready = (
  rows: readonly (Line & { readonly cells: readonly { readonly sphere: number }[] })[],
  cylinder: number,
  add: LensAdd | null,
  sphere: number,
): boolean => rows.some((r) => r.cylinder === cylinder && r.add === add && r.cells.some((c) => c.sphere === sphere));

function drawerCells(drawer: readonly LensPower[]): LensPower[] {
  return [...new Map(drawer.map((d) => [`${d.sphere}|${d.cylinder}`, d])).values()];
}

/** Whole dioptres along the top, not too many. */
function tickValues(least: number, most: number): number[] {
  const step = most - least > 20 ? 4 : most - least > 10 ? 2 : 1;
  const first = Math.ceil(least / step) * step;
  return Array.from({ length: Math.floor((most - first) / step) + 1 }, (_, i) => first + i * step);
}
