'use client';
import { useMemo } from 'react';
import { useTranslations } from 'use-intl';
import { centreCosts, formatAcuity, taskDemand } from '@/core';
import { Stated } from '@/ui/marks';
import { useEyeWords } from '../../../common/eyeWords';
import { useVisit } from '../../shell/VisitProvider';
import type { PairPage } from './usePair';

/** From here on a forecast is weak: the lens's centre lies too far from the pupil's, mm. Common practice. */
const WEAK_FROM = 0.5;

/** What a lens off the pupil's centre costs at each task. */
export function CentreCost({ page }: { readonly page: PairPage }) {
  const t = useTranslations('pairDesk');
  const eyeWords = useEyeWords();
  const { record } = useVisit();
  const { input, tasks: asked } = page;
  const costs = useMemo(() => {
    const pair = input?.worn.at(-1)?.pair;
    return input && pair
      ? centreCosts(
          input.wearer,
          pair,
          asked.map(({ task, cm }) => taskDemand(task, cm)),
        )
      : [];
  }, [input, asked]);
  const sight = (logMar: number): string => formatAcuity(Math.round(logMar * 50) / 50, record.session.settings.acuity);
  return costs.map(({ eye, offMm, tasks }) => (
    <p key={eye} data-testid={`centre-${eye}`}>
      <Stated state={offMm > WEAK_FROM ? 'watch' : 'ok'}>{t('centreOff', { eye: eyeWords.short(eye), mm: offMm.toFixed(1) })}</Stated>{' '}
      <span className="note">
        {tasks
          .map(({ centred, asItSits }, i) =>
            t('centreCost', { task: t(`tasks.${page.tasks[i]?.task ?? 'book'}`), centred: sight(centred), sits: sight(asItSits) }),
          )
          .join(' · ')}
      </span>
    </p>
  ));
}
