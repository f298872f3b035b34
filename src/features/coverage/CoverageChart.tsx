'use client';
import { Chart, LinearScale, LineController, LineElement, PointElement, Tooltip } from 'chart.js';
import { useEffect, useRef } from 'react';
import type { CoveragePoint } from '@/core';

Chart.register(LineController, LineElement, PointElement, LinearScale, Tooltip);

/** How many wearers walk out, by lenses kept. */
export function CoverageChart({
  points,
  wearers,
  label,
  lensesLabel,
  wearersLabel,
}: {
  readonly points: readonly CoveragePoint[];
  readonly wearers: number;
  readonly label: string;
  readonly lensesLabel: string;
  readonly wearersLabel: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const on = canvas.current;
    if (!on) return;
    const style = getComputedStyle(on);
    const ink = style.getPropertyValue('--ink').trim();
    const rule = style.getPropertyValue('--rule').trim();
    const font = { family: style.fontFamily, size: 12 };
    const axis = (text: string) => ({ title: { display: true, text, color: ink, font }, ticks: { color: ink, font }, grid: { color: rule } });
    const chart = new Chart(on, {
      type: 'line',
      data: {
        datasets: [{ data: points.map((p) => ({ x: p.lenses, y: p.covered })), borderColor: ink, backgroundColor: ink, borderWidth: 2, pointRadius: 0 }],
      },
      options: {
        animation: false,
        responsive: true,
        maintainAspectRatio: false,
        parsing: false,
        interaction: { mode: 'nearest', axis: 'x', intersect: false },
        scales: { x: { type: 'linear', beginAtZero: true, ...axis(lensesLabel) }, y: { beginAtZero: true, max: wearers, ...axis(wearersLabel) } },
      },
    });
    return () => chart.destroy();
  }, [points, wearers, lensesLabel, wearersLabel]);
  return (
    <div className="h-[260px] max-w-[620px]">
      <canvas ref={canvas} role="img" aria-label={label} />
    </div>
  );
}
