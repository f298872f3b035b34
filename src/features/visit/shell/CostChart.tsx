'use client';
import { CategoryScale, Chart, Legend, LinearScale, LineController, LineElement, PointElement, Tooltip } from 'chart.js';
import { useEffect, useMemo, useRef } from 'react';

Chart.register(LineController, LineElement, PointElement, CategoryScale, LinearScale, Tooltip, Legend);

export interface CostLine {
  readonly name: string;
  /** Money at 1 to 7 wearing days a week, whole units of the currency. */
  readonly values: readonly number[];
}
/** Lines are told apart by dash and point as well as by place, never by colour alone. */
const DASHES = [[], [7, 4], [2, 3]];
const POINTS = ['circle', 'rect', 'triangle'] as const;

/** What a year costs by wearing days a week. */
export function CostChart({
  lines,
  label,
  daysLabel,
  money,
}: {
  readonly lines: readonly CostLine[];
  readonly label: string;
  readonly daysLabel: string;
  readonly money: (value: number) => string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  // Drawn anew only when a figure differs, not whenever the page around it does.
  const key = JSON.stringify(lines);
  const drawn = useMemo(() => JSON.parse(key) as CostLine[], [key]);
  useEffect(() => {
    const on = canvas.current;
    if (!on) return;
    const style = getComputedStyle(on);
    const ink = style.getPropertyValue('--ink').trim();
    const rule = style.getPropertyValue('--rule').trim();
    const font = { family: style.fontFamily, size: 12 };
    const chart = new Chart(on, {
      type: 'line',
      data: {
        labels: ['1', '2', '3', '4', '5', '6', '7'],
        datasets: drawn.map((line, i) => ({
          label: line.name,
          data: [...line.values],
          borderColor: ink,
          backgroundColor: ink,
          borderWidth: 2,
          borderDash: [...(DASHES[i] ?? [])],
          pointStyle: POINTS[i] ?? 'circle',
          pointRadius: 4,
        })),
      },
      options: {
        animation: false,
        responsive: true,
        maintainAspectRatio: false,
        plugins: {
          legend: { labels: { color: ink, font, usePointStyle: true } },
          tooltip: { callbacks: { label: (item) => `${item.dataset.label ?? ''}: ${money(Number(item.parsed.y))}` } },
        },
        scales: {
          x: { title: { display: true, text: daysLabel, color: ink, font }, ticks: { color: ink, font }, grid: { color: rule } },
          y: { beginAtZero: true, ticks: { color: ink, font, callback: (value) => money(Number(value)) }, grid: { color: rule } },
        },
      },
    });
    return () => chart.destroy();
  }, [drawn, daysLabel, money]);
  return (
    <div className="cost-chart">
      <canvas ref={canvas} role="img" aria-label={label} />
    </div>
  );
}
