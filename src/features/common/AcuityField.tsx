'use client';
import { formatAcuity, parseAcuity } from '@/core';
import { StateMark } from '@/ui/marks';
import { useServer } from './ServerProvider';
import { useProblemWords } from './words';

/** One acuity, read while it is typed, in the practice's notation. */
export function AcuityField({
  id,
  label,
  text,
  onText,
  disabled,
  problem,
}: {
  readonly id: string;
  readonly label: string;
  readonly text: string;
  readonly onText: (text: string) => void;
  readonly disabled: boolean;
  readonly problem: { readonly code: string; readonly data?: Readonly<Record<string, string | number>> | undefined } | null;
}) {
  const words = useProblemWords();
  const { session } = useServer();
  const read = parseAcuity(text, session.settings.acuity);
  const own = text.trim() !== '' && !read.ok ? read.error : null;
  const shown = own ?? problem;
  // Said back only where it reads otherwise than it was typed.
  const echo = read.ok ? formatAcuity(read.value, session.settings.acuity) : null;
  return (
    <span className="flex flex-col gap-1 items-inherit">
      <input
        id={id}
        className="input input-mono w-28! text-center"
        value={text}
        onChange={(event) => onText(event.target.value)}
        disabled={disabled}
        aria-label={label}
        aria-invalid={shown ? true : undefined}
        autoComplete="off"
      />
      {shown ? (
        <span className="problem" role="status">
          <StateMark state="stop" />
          {words(shown.code, shown.data)}
        </span>
      ) : echo !== null && echo !== text.trim() ? (
        <span className="note">{echo}</span>
      ) : null}
    </span>
  );
}
