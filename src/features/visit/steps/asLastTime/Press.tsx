'use client';
import type { ReactNode } from 'react';
import type { Eye } from '@/core';
import { Button } from '@/ui/Button';
import type { EyePress } from './model';
import type { AsLastTime } from './useAsLastTime';

/** One eye of a row. */
export interface CellProps {
  readonly page: AsLastTime;
  readonly eye: Eye;
}

/** One press of one eye: violet where it comes next. */
export function Press({
  page,
  eye,
  what,
  keyCap,
  label,
  disabled = false,
  children,
}: CellProps & {
  readonly what: EyePress;
  readonly keyCap: string;
  readonly label: string;
  readonly disabled?: boolean;
  readonly children: ReactNode;
}) {
  const isNext = page.next?.what === what && page.next.eye === eye;
  return (
    <Button
      look={isNext ? 'act' : 'plain'}
      keys={isNext ? [keyCap] : []}
      aria-label={label}
      disabled={disabled || page.closed}
      onClick={() => page.ofEye(what, eye)}
    >
      {children}
    </Button>
  );
}
