import type { Eye } from '../core';
import type { ReactNode } from 'react';
import { EyeBadge } from './marks';

/** The page's backbone: right eye left of it, left eye right of it, labels down the middle. */
export function Spine({
  children,
  label,
  width = 'usual',
}: {
  readonly children: ReactNode;
  readonly label: string;
  readonly width?: 'usual' | 'slim' | 'wide';
}) {
  return (
    <div className={width === 'usual' ? 'spine' : `spine spine-${width}`} role="group" aria-label={label}>
      {children}
    </div>
  );
}

export interface SpineRowProps {
  readonly label: ReactNode;
  readonly note?: ReactNode;
  readonly right: ReactNode;
  readonly left: ReactNode;
  /** Rules above and below, lift ground, inverted spine cell. */
  readonly chosen?: boolean;
  readonly tone?: 'field' | 'plain';
}

/** One row: both values touch the spine. */
export function SpineRow({ label, note, right, left, chosen = false, tone = 'plain' }: SpineRowProps) {
  return (
    <div className="spine-row" data-chosen={chosen || undefined} data-tone={tone}>
      <div className="spine-right">{right}</div>
      <div className="spine-label">
        <div>{label}</div>
        {note ? <div className="note">{note}</div> : null}
      </div>
      <div className="spine-left">{left}</div>
    </div>
  );
}

/** The row that heads the columns with badges and sides. */
export function SpineHead({
  words,
  label,
}: {
  readonly words: Readonly<Record<Eye, { readonly name: string; readonly side: string }>>;
  readonly label: ReactNode;
}) {
  return (
    <div className="spine-row spine-head">
      <div className="spine-right">
        <span className="note">{words.right.side}</span> <span>{words.right.name}</span> <EyeBadge eye="right" />
      </div>
      <div className="spine-label">{label}</div>
      <div className="spine-left">
        <EyeBadge eye="left" /> <span>{words.left.name}</span> <span className="note">{words.left.side}</span>
      </div>
    </div>
  );
}
