import type { ReactNode } from 'react';

interface FileChoiceProps {
  readonly children: ReactNode;
  /** Kinds of files, as the browser's chooser takes them. */
  readonly accept: string;
  readonly multiple?: boolean;
  readonly disabled?: boolean;
  readonly onFiles: (files: readonly [File, ...File[]]) => void;
}

/** A button that opens the browser's chooser of files. The same file can be chosen again: it may have been mended since. */
export function FileChoice({ children, accept, multiple = false, disabled = false, onFiles }: FileChoiceProps) {
  return (
    <label className="btn btn-plain file-choose">
      {children}
      <input
        type="file"
        className="sr-only"
        accept={accept}
        multiple={multiple}
        disabled={disabled}
        onChange={(event) => {
          const [first, ...rest] = event.target.files ?? [];
          if (first) onFiles([first, ...rest]);
          event.target.value = '';
        }}
      />
    </label>
  );
}
