'use client';
import { lazy, Suspense } from 'react';
import { useTranslations } from 'use-intl';
import { may } from '@/core';
import { Correctable } from '../../shell/Correct';
import { useVisit } from '../../shell/VisitProvider';

// Only a prescriber says something here: the form brings its own script.
const SayInstruction = lazy(() => import('./SayInstruction').then((m) => ({ default: m.SayInstruction })));

/** What a prescriber says of the lesson: something more to teach, somebody else who may handle the lenses. */
export function Instructions() {
  const t = useTranslations('lesson');
  const { record } = useVisit();
  const said = record.lessonInstructions.filter((c) => c.current !== null);
  const prescriber = may(record.session.viewer.roles, 'sign');
  if (said.length === 0 && !prescriber) return null;
  return (
    <section className="py-3" data-testid="instructions">
      <h2>{t('instructions')}</h2>
      <ul>
        {said.map((chain) => {
          const { current } = chain;
          if (!current) return null;
          const words = t(`instruction.${current.what}`, {
            text: current.text,
            why: current.why ? t(`helperWhy.${current.why}`) : '',
            name: current.recordedByName,
          });
          return (
            <li key={chain.rootId} className="py-1 flex gap-3 items-start">
              <span className="flex-1">{words}</span>
              {current.visitId === record.visit.id ? <Correctable kind="lessonInstruction" chain={chain} show={() => words} /> : null}
            </li>
          );
        })}
      </ul>
      {prescriber && record.visit.closedAt === null ? (
        <Suspense fallback={null}>
          <SayInstruction />
        </Suspense>
      ) : null}
    </section>
  );
}
