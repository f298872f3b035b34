'use client';
import { useTranslations } from 'use-intl';
import { BLOCK_COLUMNS, type CatalogueColumn } from '@/schema/catalogue';
import { Button } from '@/ui/Button';
import { ProblemLine } from '@/ui/Field';
import type { Typed } from './editing';

/** What a family makes, block by block, as it is typed. */
export function BlockTable({
  blocks,
  faultAt,
  onBlocks,
}: {
  readonly blocks: readonly Typed[];
  readonly faultAt: (row: number, column: CatalogueColumn) => string | null;
  readonly onBlocks: (blocks: readonly Typed[]) => void;
}) {
  const t = useTranslations('library');
  return (
    <>
      <div className="overflow-x-auto">
        <table className="ledger">
          <thead>
            <tr>
              {BLOCK_COLUMNS.map((c) => (
                <th key={c} scope="col">
                  {t(`columns.${c}`)}
                </th>
              ))}
              <th aria-label={t('remove')} />
            </tr>
          </thead>
          <tbody>
            {blocks.map((block, i) => (
              <tr key={i}>
                {BLOCK_COLUMNS.map((c) => {
                  const fault = faultAt(i, c);
                  return (
                    <td key={c}>
                      <input
                        className={`input input-mono block-cell ${c === 'cylinders' || c === 'curves' ? 'min-w-[150px]' : 'min-w-[74px]'}`}
                        aria-label={t('cell', { column: t(`columns.${c}`), row: i + 1 })}
                        aria-invalid={fault ? true : undefined}
                        value={block[c] ?? ''}
                        onChange={(event) => onBlocks(blocks.map((b, at2) => (at2 === i ? { ...b, [c]: event.target.value } : b)))}
                      />
                      {fault ? <ProblemLine>{fault}</ProblemLine> : null}
                    </td>
                  );
                })}
                <td>
                  {blocks.length > 1 ? (
                    <Button look="quiet" onClick={() => onBlocks(blocks.filter((_, at2) => at2 !== i))}>
                      {t('remove')}
                    </Button>
                  ) : null}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <Button look="quiet" onClick={() => onBlocks([...blocks, { ...blocks.at(-1) }])}>
        {t('addBlock')}
      </Button>
    </>
  );
}
