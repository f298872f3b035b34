import type { ReactNode } from 'react';

export interface SegmentProps<V extends string | number> {
  /** Said of the whole group. */
  readonly label: string;
  readonly values: readonly V[];
  /** What each press says. */
  readonly word: (value: V) => ReactNode;
  /** The one chosen; anything else for none yet. */
  readonly value: string | number | null | undefined;
  readonly onChoose: (value: V) => void;
  readonly disabled?: boolean;
  /** Many words wrap, or a scale of figures with narrow presses. */
  readonly kind?: 'row' | 'wrapping' | 'scale';
  readonly keyOf?: (value: V) => string;
  readonly testId?: (value: V) => string;
}

/** One of a few, by one press: the choices stand open side by side. */
export function Segment<V extends string | number>({ label, values, word, value, onChoose, disabled, kind = 'row', keyOf, testId }: SegmentProps<V>) {
  return (
    <div className={kind === 'row' ? 'segment' : 'segment flex-wrap'} role="group" aria-label={label}>
      {values.map((v) => (
        <button
          key={v}
          type="button"
          className={kind === 'scale' ? 'scale-key' : undefined}
          data-state={value === v ? 'on' : 'off'}
          aria-pressed={value === v}
          aria-keyshortcuts={keyOf?.(v)}
          disabled={disabled}
          onClick={() => onChoose(v)}
          data-testid={testId?.(v)}
        >
          {word(v)}
        </button>
      ))}
    </div>
  );
}
