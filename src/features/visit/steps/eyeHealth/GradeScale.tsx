import type { Eye } from '@/core';

const PER_GRADE = 44;
const TOP = 4;
const HEIGHT = 34;

/**
 * A bar grown outward from the spine on one scale; past the threshold it is hatched. Last visit is a small triangle
 * above the bar, visits before it are ticks below, the longer the later.
 */
export function GradeScale({
  eye,
  value,
  trend,
  threshold,
  onPick,
}: {
  readonly eye: Eye;
  readonly value: number | undefined;
  /** Grades of earlier visits, oldest first. */
  readonly trend: readonly number[];
  readonly threshold: number | null;
  readonly onPick: ((grade: number) => void) | null;
}) {
  const width = PER_GRADE * TOP;
  const was = trend.at(-1);
  const older = trend.slice(-4, -1);
  const x = (grade: number): number => (eye === 'right' ? width - grade * PER_GRADE : grade * PER_GRADE);
  const bar = (from: number, to: number) => ({ x: Math.min(x(from), x(to)), width: Math.abs(x(to) - x(from)), y: 13, height: 12 });
  const solid = value === undefined ? 0 : Math.min(value, threshold ?? TOP, TOP);
  const past = value !== undefined && threshold !== null && value > threshold ? Math.min(value, TOP) : 0;
  const hatch = `hatch-${eye}`;
  return (
    <svg
      width={width}
      height={HEIGHT}
      viewBox={`0 0 ${width} ${HEIGHT}`}
      className="grade-scale drop-narrow"
      aria-hidden="true"
      onClick={(event) => {
        if (!onPick) return;
        const box = event.currentTarget.getBoundingClientRect();
        const at = ((event.clientX - box.left) / box.width) * width;
        const grade = (eye === 'right' ? width - at : at) / PER_GRADE;
        onPick(Math.max(0, Math.min(TOP, Math.round(grade * 2) / 2)));
      }}
    >
      <defs>
        <pattern id={hatch} width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="5" height="5" fill="var(--sheet)" />
          <rect width="2" height="5" fill="var(--bar)" />
        </pattern>
      </defs>
      {[1, 2, 3, 4].map((g) => (
        <line key={g} x1={x(g)} x2={x(g)} y1="0" y2={HEIGHT} stroke="var(--rule)" />
      ))}
      {value !== undefined ? <rect {...bar(0, solid)} fill="var(--bar)" /> : null}
      {value === 0 ? <rect x={eye === 'right' ? width - 2 : 0} y="13" width="2" height="12" fill="var(--bar)" /> : null}
      {past > 0 ? <rect {...bar(threshold ?? 0, past)} fill={`url(#${hatch})`} stroke="var(--bar)" /> : null}
      {threshold !== null ? <line x1={x(threshold)} x2={x(threshold)} y1="2" y2={HEIGHT - 2} stroke="var(--ink)" strokeDasharray="3 3" /> : null}
      {older.map((grade, i) => (
        <line
          key={i}
          x1={x(Math.min(grade, TOP))}
          x2={x(Math.min(grade, TOP))}
          y1={27}
          y2={28 + (6 * (i + 1)) / older.length}
          stroke="var(--ink)"
          strokeWidth="1.5"
        />
      ))}
      {was !== undefined ? (
        <path d={`M${Math.max(5, Math.min(width - 5, x(was))) - 5} 2h10l-5 8Z`} fill="var(--sheet)" stroke="var(--ink)" strokeWidth="1.2" />
      ) : null}
    </svg>
  );
}

/** The scale's figures above the bars. */
export function GradeFigures({ eye }: { readonly eye: Eye }) {
  const width = PER_GRADE * TOP;
  return (
    <svg width={width} height="16" viewBox={`0 0 ${width} 16`} className="grade-scale drop-narrow" aria-hidden="true">
      {[1, 2, 3, 4].map((g) => (
        <text
          key={g}
          x={eye === 'right' ? width - g * PER_GRADE : g * PER_GRADE}
          y="12"
          fontSize="12"
          textAnchor={g === 4 ? (eye === 'right' ? 'start' : 'end') : 'middle'}
          fill="var(--ink-2)"
        >
          {g}
        </text>
      ))}
    </svg>
  );
}
