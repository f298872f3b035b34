'use client';
import { useState, type ReactNode } from 'react';

/** Rail, page and margin; below 1100 px the margin becomes a drawer, below 760 px the rail a bottom bar. */
export function Frame({
  rail,
  strip,
  index,
  children,
  margin,
  bar,
  marginWords,
}: {
  readonly rail: ReactNode;
  readonly strip: ReactNode;
  readonly index?: ReactNode;
  readonly children: ReactNode;
  readonly margin?: ReactNode;
  readonly bar?: ReactNode;
  readonly marginWords: { readonly open: string; readonly close: string; readonly label: string };
}) {
  const [open, setOpen] = useState(false);
  return (
    <div className="frame" data-margin={margin ? true : undefined}>
      {rail}
      <div className="frame-page">
        <div className="frame-head">
          <header className="frame-strip">{strip}</header>
          {index}
        </div>
        <div className="frame-body">
          <main className="frame-main">{children}</main>
          {margin ? (
            <aside className="frame-margin" data-open={open || undefined} aria-label={marginWords.label}>
              {margin}
            </aside>
          ) : null}
          {margin ? (
            <button type="button" className="margin-tab" aria-expanded={open} onClick={() => setOpen(!open)}>
              {open ? marginWords.close : marginWords.open}
            </button>
          ) : null}
        </div>
        {bar ? <footer className="frame-bar">{bar}</footer> : null}
      </div>
    </div>
  );
}
