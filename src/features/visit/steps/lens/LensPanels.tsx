'use client';
import dynamic from 'next/dynamic';
import { useTranslations } from 'use-intl';
import { Panel } from '@/ui/Panel';
import { useVisit } from '../../shell/VisitProvider';
import type { Choosing } from './useChoosing';

// What is opened now and then brings its own script.
const Compare = dynamic(() => import('./Compare').then((m) => m.Compare));
const RangeOfFamily = dynamic(() => import('../../../common/range/RangeOfFamily').then((m) => m.RangeOfFamily));

/** Families side by side, and the range of the one that leads. */
export function LensPanels({ choosing }: { readonly choosing: Choosing }) {
  const t = useTranslations('lens');
  const { record } = useVisit();
  const { panel, setPanel, rows, compared, needs, adds, meanK, product, leadRow, draft, choose, compare } = choosing;
  return (
    <>
      <Panel open={panel === 'compare'} onClose={() => setPanel(null)} title={t('compareTitle')} wide>
        <Compare
          rows={rows.filter((r) => compared.includes(r.family.code))}
          needs={needs}
          meanK={meanK}
          product={product}
          onProduct={(id) => draft.set('product', id)}
          onRemove={compare}
          onChoose={(code) => {
            choose(code);
            setPanel(null);
          }}
        />
      </Panel>
      <Panel
        open={panel === 'map' && leadRow !== undefined}
        onClose={() => setPanel(null)}
        title={leadRow ? t('mapTitle', { family: leadRow.family.name }) : ''}
        wide
      >
        {leadRow ? (
          <RangeOfFamily
            family={leadRow.family}
            drawer={record.drawer
              .filter((s) => s.familyCode === leadRow.family.code)
              .map((s) => ({ sphere: s.sphereD, cylinder: s.cylinderD, axis: s.axisDeg }))}
            needs={needs}
            adds={adds}
          />
        ) : null}
      </Panel>
    </>
  );
}
