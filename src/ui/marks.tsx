import type { Eye } from '../core';
import type { ReactNode } from 'react';

export type State = 'ok' | 'watch' | 'stop' | 'miss';

/** State as a shape; the word beside it is the caller's. */
export function StateMark({ state, size = 14 }: { readonly state: State; readonly size?: number }) {
  const common = { width: size, height: size, viewBox: '0 0 16 16', 'aria-hidden': true, className: `mark mark-${state}` } as const;
  switch (state) {
    case 'ok':
      return (
        <svg {...common}>
          <path d="M2 8.5 6.2 13 14 3.5" fill="none" stroke="currentColor" strokeWidth="2.4" />
        </svg>
      );
    case 'watch':
      return (
        <svg {...common}>
          <path d="M8 1.5 15 14.5H1Z" fill="var(--watch-fill)" stroke="var(--watch)" strokeWidth="1.3" strokeLinejoin="round" />
          <path d="M8 6v4M8 11.4v1.6" stroke="var(--mark-ink)" strokeWidth="1.6" />
        </svg>
      );
    case 'stop':
      return (
        <svg {...common}>
          <path d="M5 1h6l4 4v6l-4 4H5l-4-4V5Z" fill="currentColor" />
          <path d="M4 8h8" stroke="var(--sheet)" strokeWidth="2.2" />
        </svg>
      );
    case 'miss':
      return (
        <svg {...common}>
          <path d="M3 8h10" stroke="currentColor" strokeWidth="2.2" />
        </svg>
      );
  }
}

/** A mark with its word. */
export function Stated({ state, children }: { readonly state: State; readonly children: ReactNode }) {
  return (
    <span className={`stated stated-${state}`}>
      <StateMark state={state} />
      <span>{children}</span>
    </span>
  );
}

/** R filled and round on the left, L open and round on the right: the eyes differ by shape, not by colour. */
export function EyeBadge({ eye }: { readonly eye: Eye }) {
  return (
    <span className={eye === 'right' ? 'badge badge-r' : 'badge badge-l'} aria-hidden="true">
      {eye === 'right' ? 'R' : 'L'}
    </span>
  );
}

export function KeyCap({ children }: { readonly children: ReactNode }) {
  return <kbd className="keycap">{children}</kbd>;
}
