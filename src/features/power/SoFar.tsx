'use client';
import { useDeferredValue, useMemo } from 'react';
import { useTranslations } from 'use-intl';
import { asking, EYES, formatRefraction, type Eye } from '@/core';
import { EyeBadge } from '@/ui/marks';
import { bestFor, listOf, productOf, shapeFor, type Needs } from '../common/visit/candidates';
import { decisionOf } from '../common/visit/health';
import { useVisit } from '../common/visit/VisitProvider';

const SHOWN = 3;
const NO_AXIS = { right: undefined, left: undefined };

/** What is typed so far: needs at the cornea and near additions. */
export interface Asked {
  readonly needs: Needs;
  readonly adds: Readonly<Record<Eye, number | null>>;
}

/**
 * The best families for what is typed, ranked anew with every key; typing never waits for it.
 * @param asked an `Asked` as text, so that only a changed figure ranks anew
 */
export function SoFar({ asked }: { readonly asked: string }) {
  const t = useTranslations('power');
  const { record, health } = useVisit();
  const settled = useDeferredValue(asked);
  const later = useMemo(() => JSON.parse(settled) as Asked, [settled]);
  const list = useMemo(
    () =>
      asking(later.needs).length === 0
        ? null
        : listOf(
            { record, health, lastAxis: NO_AXIS },
            {
              needs: later.needs,
              adds: later.adds,
              kind: decisionOf(record)?.chosen ?? null,
              shape: shapeFor(later.needs, later.adds),
              withoutMaterial: null,
              product: productOf(record, undefined),
            },
          ),
    [record, health, later],
  );
  if (!list) return null;
  const reached = list.rows.filter((r) => Number.isFinite(r.worst));
  return (
    <section className="mt-5" data-testid="so-far">
      <h2>{t('live')}</h2>
      <p className="note mb-2">{reached.length === 0 ? t('liveNone') : t('liveNote', { count: reached.length })}</p>
      {reached.slice(0, SHOWN).map(({ family, worst }) => (
        <div key={family.code} className="border-t border-rule py-2">
          <strong>{family.name}</strong>
          {EYES.map((e) => {
            const [lens] = bestFor(record, family, later.needs[e], later.adds[e], undefined, 1);
            return lens ? (
              <div key={e} className="flex gap-2 items-center">
                <EyeBadge eye={e} /> <span className="font-mono whitespace-nowrap">{formatRefraction(lens.power)}</span>
              </div>
            ) : null;
          })}
          <span className="note">{t('liveRow', { blur: worst.toFixed(2) })}</span>
        </div>
      ))}
    </section>
  );
}
