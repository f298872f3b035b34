'use client';
import { useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { SEPARATOR } from '@/formats/gs1/elementString';
import { Field } from '@/ui/Field';

/** Where codes are scanned or typed, Enter after each. Scans faster than they are answered are read one after another. */
export function ScanField({
  label,
  hint,
  autoFocus = false,
  onScan,
}: {
  readonly label: ReactNode;
  readonly hint: ReactNode;
  readonly autoFocus?: boolean;
  readonly onScan: (scanned: string) => Promise<void>;
}) {
  const [text, setText] = useState('');
  const queue = useRef<Promise<void>>(Promise.resolve());
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>): void => {
    // A scanner that is a keyboard sends its separator as Ctrl ].
    if (event.ctrlKey && event.key === ']') {
      event.preventDefault();
      setText((typed) => typed + SEPARATOR);
    }
    if (event.key !== 'Enter') return;
    event.preventDefault();
    const scanned = event.currentTarget.value;
    setText('');
    if (scanned.trim() !== '') queue.current = queue.current.then(() => onScan(scanned));
  };
  return <Field label={label} value={text} onValue={setText} onKeyDown={onKeyDown} hint={hint} autoFocus={autoFocus} autoComplete="off" spellCheck={false} />;
}
