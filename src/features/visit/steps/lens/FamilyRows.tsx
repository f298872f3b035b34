'use client';
import { useEffect, useRef } from 'react';
import { useTranslations } from 'use-intl';
import { CandidateRow } from './CandidateRow';
import { SIDE_BY_SIDE } from './model';
import type { Choosing } from './useChoosing';

/** The families in their order, each with its nearest lenses for both eyes. */
export function FamilyRows({ choosing }: { readonly choosing: Choosing }) {
  const t = useTranslations('lens');
  const { rows, chosen, leadCode, meanK, compared, needs, draft, choose, compare, first, list, listed } = choosing;
  // What the kind decided leads to may stand below the first lines.
  const firstCode = first?.family.code;
  const arrived = useRef(false);
  useEffect(() => {
    if (arrived.current || firstCode === undefined) return;
    arrived.current = true;
    if (firstCode !== list.rows[0]?.family.code) document.getElementById(`candidate-${firstCode}`)?.scrollIntoView({ block: 'nearest' });
  }, [firstCode, list.rows]);
  return (
    <div role="radiogroup" aria-label={t('listLabel')}>
      {rows.map((row) => (
        <CandidateRow
          key={row.family.code}
          row={row}
          picked={{
            right: chosen.right?.family.code === row.family.code ? chosen.right : null,
            left: chosen.left?.family.code === row.family.code ? chosen.left : null,
          }}
          lead={leadCode === row.family.code}
          meanK={meanK}
          compared={compared.includes(row.family.code)}
          onCompare={compared.length < SIDE_BY_SIDE || compared.includes(row.family.code) ? () => compare(row.family.code) : null}
          needs={row.needs}
          asks={{ right: listed('right') && needs.right !== null, left: listed('left') && needs.left !== null }}
          onChoose={() => choose(row.family.code)}
          onPower={(e, index) => draft.set(`${e}Power:${row.family.code}`, String(index))}
          onVariant={(e, key) => draft.set(`${e}Variant:${row.family.code}`, key)}
        />
      ))}
    </div>
  );
}
