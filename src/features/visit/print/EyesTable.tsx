'use client';
import type { ReactNode } from 'react';
import { EYES, type Eye } from '@/core';
import { useEyeWords } from '../../common/eyeWords';

export interface EyesRow {
  readonly key: string;
  readonly name: string;
  /** A cell for each eye, or one for both. */
  readonly cells: Readonly<Record<Eye, ReactNode>> | { readonly both: ReactNode };
}

/** What was read or found of each eye, on paper. */
export function EyesTable({ title, rows }: { readonly title: string; readonly rows: readonly EyesRow[] }) {
  const eyes = useEyeWords();
  return (
    <table className="ledger">
      <thead>
        <tr>
          <th scope="col" aria-label={title} />
          {EYES.map((e) => (
            <th key={e} scope="col">
              {eyes.name(e)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(({ key, name, cells }) => (
          <tr key={key}>
            <th scope="row">{name}</th>
            {'both' in cells ? <td colSpan={EYES.length}>{cells.both}</td> : EYES.map((e) => <td key={e}>{cells[e]}</td>)}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
