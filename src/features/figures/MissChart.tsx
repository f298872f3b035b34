'use client';
import { BarController, BarElement, CategoryScale, Chart, Legend, LinearScale, Tooltip } from 'chart.js';
import { useEffect, useMemo, useRef } from 'react';

Chart.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip, Legend);

export interface MissBar {
  readonly name: string;
  readonly on: number;
  readonly off: number;
}

/** Why attempts failed: on filled, off in outline, told apart without colour. */
export function MissChart({ bars, label, on, off }: { readonly bars: readonly MissBar[]; readonly label: string; readonly on: string; readonly off: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const key = JSON.stringify(bars);
  const drawn = useMemo(() => JSON.parse(key) as MissBar[], [key]);
  useEffect(() => {
    const at = canvas.current;
    if (!at) return;
    const style = getComputedStyle(at);
    const ink = style.getPropertyValue('--ink').trim();
    const rule = style.getPropertyValue('--rule').trim();
    const font = { family: style.fontFamily, size: 13 };
    const chart = new Chart(at, {
      type: 'bar',
      data: {
        labels: drawn.map((bar) => bar.name),
        datasets: [
          { label: on, data: drawn.map((bar) => bar.on), backgroundColor: ink, borderColor: ink, borderWidth: 2 },
          { label: off, data: drawn.map((bar) => bar.off), backgroundColor: 'transparent', borderColor: ink, borderWidth: 2 },
        ],
      },
      options: {
        indexAxis: 'y',
        animation: false,
        responsive: true,
        maintainAspectRatio: false,
        plugins: { legend: { labels: { color: ink, font } } },
        scales: {
          x: { stacked: true, beginAtZero: true, ticks: { color: ink, font, precision: 0 }, grid: { color: rule } },
          y: { stacked: true, ticks: { color: ink, font }, grid: { display: false } },
        },
      },
    });
    return () => chart.destroy();
  }, [drawn, on, off]);
  return (
    <div className="miss-chart">
      <canvas ref={canvas} role="img" aria-label={label} />
    </div>
  );
}
