import type { ReactNode } from 'react';

/** Figures under a title, with a line of what they count; or that there are none. */
export function Table({
  title,
  line,
  none,
  heads,
  children,
}: {
  readonly title: string;
  readonly line: string;
  readonly none: string;
  readonly heads: readonly string[];
  readonly children: readonly ReactNode[];
}) {
  return (
    <section className="pt-5" aria-label={title}>
      <h2 className="border-b border-rule-2 pb-1">{title}</h2>
      <p className="label py-1">{line}</p>
      {children.length === 0 ? (
        <p className="py-1">{none}</p>
      ) : (
        <table className="ledger w-full">
          <thead>
            <tr>
              {heads.map((head) => (
                <th key={head} scope="col">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>{children}</tbody>
        </table>
      )}
    </section>
  );
}

export const Row = ({ cells }: { readonly cells: readonly (string | number)[] }) => (
  <tr>
    {cells.map((cell, i) => (
      <td key={i} className={i === 0 ? 'value' : undefined}>
        {cell}
      </td>
    ))}
  </tr>
);

/** A part of all, in per cent. */
export const share = (part: number, all: number): string => (all === 0 ? '–' : `${Math.round((part / all) * 100)} %`);
