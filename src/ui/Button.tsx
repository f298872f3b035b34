'use client';
import type { ButtonHTMLAttributes, ReactNode } from 'react';
import { KeyCap } from './marks';

export interface ButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  /** `act` is the one violet thing on a screen: what to do next. */
  readonly look?: 'act' | 'plain' | 'quiet';
  readonly keys?: readonly string[];
  readonly children: ReactNode;
}

export function Button({ look = 'plain', keys = [], children, className = '', ...rest }: ButtonProps) {
  return (
    <button type="button" className={`btn btn-${look} ${className}`} {...rest}>
      <span>{children}</span>
      {keys.length > 0 ? (
        <span aria-hidden="true" className="flex gap-1">
          {keys.map((key) => (
            <KeyCap key={key}>{key}</KeyCap>
          ))}
        </span>
      ) : null}
    </button>
  );
}
