'use client';
import { useId } from 'react';
import { ProblemLine } from '@/ui/Field';
import type { Bookable } from '@/services/appointment/queries';

/** One of a list by its name, or none. */
export function Choice({
  label,
  none,
  of,
  value,
  onValue,
  problem = null,
}: {
  readonly label: string;
  /** What it says when nobody, or nothing, is chosen. */
  readonly none: string;
  readonly of: readonly Bookable[];
  /** Empty for none. */
  readonly value: string;
  readonly onValue: (value: string) => void;
  readonly problem?: string | null;
}) {
  const id = useId();
  return (
    <div className="field">
      <label className="field-label" htmlFor={id}>
        {label}
      </label>
      <select
        id={id}
        className="choice h-10!"
        value={value}
        aria-invalid={problem ? true : undefined}
        aria-describedby={`${id}-note`}
        onChange={(event) => onValue(event.target.value)}
      >
        <option value="">{none}</option>
        {of.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </select>
      <div id={`${id}-note`} className="field-note" aria-live="polite">
        {problem ? <ProblemLine>{problem}</ProblemLine> : null}
      </div>
    </div>
  );
}
