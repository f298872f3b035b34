'use client';
import { useMemo } from 'react';
import { useTranslations } from 'use-intl';
import { aimsOf, asking, EYES, formatRefraction, nearState, servedBy, type AskedSoFar } from '@/core';
import { EyeBadge } from '@/ui/marks';
import { lastAxesOf, productOf, listInputOf } from '../../shell/candidates';
import { decisionOf } from '../../shell/health';
import { useVisit } from '../../shell/VisitProvider';
import { useSoFar } from './useSoFar';

/** The best families for what is typed, ranked anew with every key; nothing until the library has come. */
export function SoFar({ asked }: { readonly asked: AskedSoFar }) {
  const { hasLibrary } = useVisit();
  return hasLibrary ? <Ranked asked={asked} /> : null;
}

function Ranked({ asked }: { readonly asked: AskedSoFar }) {
  const t = useTranslations('refraction');
  const { record, health, eye, lensOf } = useVisit();
  const room = useMemo(
    () => ({
      room: listInputOf(record, health.answers, lastAxesOf(eye, lensOf)),
      kind: decisionOf(record)?.chosen ?? null,
      product: productOf(record, undefined),
    }),
    [record, health.answers, eye, lensOf],
  );
  // Eyes that are set apart are served by what each is to see.
  const add = EYES.reduce<number | null>((best, e) => (asked.adds[e] === null ? best : Math.max(best ?? 0, asked.adds[e])), null);
  const found = useSoFar(room, JSON.stringify(servedBy(aimsOf(nearState(record.nearFindings), add), asked)));
  if (!found || asking(asked.needs).length === 0) return null;
  return (
    <section className="mt-5" data-testid="so-far">
      <h2>{t('live')}</h2>
      <p className="note mb-2">{found.reached === 0 ? t('liveNone') : t('liveNote', { count: found.reached })}</p>
      {found.best.map(({ code, name, worst, powers }) => (
        <div key={code} className="border-t border-rule py-2">
          <strong>{name}</strong>
          {EYES.map((e) => {
            const power = powers[e];
            return power ? (
              <div key={e} className="flex gap-2 items-center">
                <EyeBadge eye={e} /> <span className="font-mono whitespace-nowrap">{formatRefraction(power)}</span>
              </div>
            ) : null;
          })}
          <span className="note">{t('liveRow', { blur: worst.toFixed(2) })}</span>
        </div>
      ))}
    </section>
  );
}
