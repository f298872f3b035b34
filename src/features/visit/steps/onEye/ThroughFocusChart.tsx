'use client';
import { Chart, Legend, LinearScale, LineController, LineElement, PointElement, ScatterController, Tooltip } from 'chart.js';
import { useEffect, useRef } from 'react';
import type { ThroughFocus } from '@/core';

Chart.register(LineController, LineElement, PointElement, ScatterController, LinearScale, Tooltip, Legend);

export interface TaskMark {
  readonly name: string;
  readonly vergence: number;
  readonly acuity: number;
}
interface ChartWords {
  readonly right: string;
  readonly left: string;
  readonly both: string;
  readonly tasks: string;
  readonly x: string;
  readonly y: string;
}

/** Acuity over vergence: R, L and both, told apart by dash; tasks as points. The chart stays and its figures change. */
export function ThroughFocusChart({
  curves,
  tasks,
  label,
  words,
  acuity,
}: {
  readonly curves: ThroughFocus;
  readonly tasks: readonly TaskMark[];
  readonly label: string;
  readonly words: ChartWords;
  readonly acuity: (logMar: number) => string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = useRef<Chart | null>(null);
  const { right, left, both, tasks: named, x, y } = words;
  useEffect(() => {
    const on = canvas.current;
    if (!on) return;
    const style = getComputedStyle(on);
    const ink = style.getPropertyValue('--ink').trim();
    const rule = style.getPropertyValue('--rule').trim();
    const font = { family: style.fontFamily, size: 12 };
    const line = (name: string, dash: readonly number[], width: number) => ({
      type: 'line' as const,
      label: name,
      data: [] as { x: number; y: number }[],
      borderColor: ink,
      backgroundColor: ink,
      borderWidth: width,
      borderDash: [...dash],
      pointRadius: 0,
    });
    chart.current = new Chart(on, {
      data: {
        datasets: [
          line(both, [], 3),
          line(right, [7, 4], 1.5),
          line(left, [2, 3], 1.5),
          { type: 'scatter', label: named, data: [], backgroundColor: ink, pointStyle: 'rectRot', pointRadius: 7 },
        ],
      },
      options: {
        animation: false,
        responsive: true,
        maintainAspectRatio: false,
        plugins: {
          legend: { labels: { color: ink, font } },
          tooltip: { callbacks: { label: (item) => `${item.dataset.label ?? ''}: ${acuity(Number(item.parsed.y))}` } },
        },
        scales: {
          x: { type: 'linear', min: -0.5, max: 4, title: { display: true, text: x, color: ink, font }, ticks: { color: ink, font }, grid: { color: rule } },
          // Better sight stands higher.
          y: {
            reverse: true,
            min: -0.2,
            max: 0.8,
            title: { display: true, text: y, color: ink, font },
            ticks: { color: ink, font, callback: (value) => acuity(Number(value)) },
            grid: { color: rule },
          },
        },
      },
    });
    return () => {
      chart.current?.destroy();
      chart.current = null;
    };
  }, [right, left, both, named, x, y, acuity]);
  useEffect(() => {
    const at = chart.current;
    if (!at) return;
    const points = (of: readonly number[] | null) => (of ?? []).map((value, i) => ({ x: curves.vergences[i] ?? 0, y: value }));
    [points(curves.both), points(curves.right), points(curves.left), tasks.map((task) => ({ x: task.vergence, y: task.acuity }))].forEach((data, i) => {
      const set = at.data.datasets[i];
      if (set) set.data = data;
    });
    at.update('none');
  }, [curves, tasks]);
  return (
    <div className="focus-chart">
      <canvas ref={canvas} role="img" aria-label={label} />
    </div>
  );
}
