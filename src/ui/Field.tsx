'use client';
import { useId, type InputHTMLAttributes, type ReactNode } from 'react';
import { StateMark } from './marks';

export interface FieldProps extends Omit<InputHTMLAttributes<HTMLInputElement>, 'onChange' | 'value'> {
  readonly label: ReactNode;
  readonly value: string;
  readonly onValue: (value: string) => void;
  readonly problem?: ReactNode;
  readonly hint?: ReactNode;
  readonly mono?: boolean;
  readonly hideLabel?: boolean;
}

/** A labelled text field; what is wrong stands below it and is read out with it. */
export function Field({ label, value, onValue, problem, hint, mono = false, hideLabel = false, className = '', id, ...rest }: FieldProps) {
  const own = useId();
  const inputId = id ?? own;
  return (
    <div className={`field ${className}`}>
      <label htmlFor={inputId} className={hideLabel ? 'sr-only' : 'field-label'}>
        {label}
      </label>
      <input
        {...rest}
        id={inputId}
        className={mono ? 'input input-mono' : 'input'}
        value={value}
        onChange={(event) => onValue(event.target.value)}
        aria-invalid={problem ? true : undefined}
        aria-describedby={`${inputId}-note`}
      />
      <div id={`${inputId}-note`} className="field-note" aria-live="polite">
        {problem ? <ProblemLine>{problem}</ProblemLine> : hint}
      </div>
    </div>
  );
}

export function ProblemLine({ children }: { readonly children: ReactNode }) {
  return (
    <div className="problem">
      <StateMark state="stop" />
      <span>{children}</span>
    </div>
  );
}
