/** Sixty strokes, one a minute: used ones long and dark. */
export function MinuteRing({ used, label, children }: { readonly used: number; readonly label: string; readonly children: React.ReactNode }) {
  return (
    <div className="minute-ring" role="img" aria-label={label}>
      <svg viewBox="0 0 140 140" width="132" height="132" aria-hidden="true">
        {Array.from({ length: 60 }, (_, minute) => {
          const angle = (minute * 6 * Math.PI) / 180;
          const done = minute < used;
          const [inner, outer] = [done ? 50 : 56, 66];
          const [dx, dy] = [Math.sin(angle), -Math.cos(angle)];
          return (
            <line
              key={minute}
              x1={70 + dx * inner}
              y1={70 + dy * inner}
              x2={70 + dx * outer}
              y2={70 + dy * outer}
              stroke={done ? 'var(--ink)' : 'var(--rule-2)'}
              strokeWidth={done ? 3.4 : 1.4}
            />
          );
        })}
      </svg>
      <div className="minute-ring-middle">{children}</div>
    </div>
  );
}
