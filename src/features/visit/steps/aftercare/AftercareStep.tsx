'use client';
import { useRouter } from 'next/navigation';
import { lazy, Suspense } from 'react';
import { useTranslations } from 'use-intl';
import { stepSlug, stepsOf } from '@/core';
import aftercareProblems from '@/i18n/messages/en/aftercareProblems.messages.json';
import aftercareWords from '@/i18n/messages/en/aftercare.messages.json';
import answersWords from '@/i18n/messages/en/answers.messages.json';
import diaryProblems from '@/i18n/messages/en/diaryProblems.messages.json';
import draftWords from '@/i18n/messages/en/draft.messages.json';
import lensSignsWords from '@/i18n/messages/en/lensSigns.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Spine, SpineHead } from '@/ui/Spine';
import { useEyeWords } from '../../../common/eyeWords';
import { useKey } from '../../../common/keys';
import { DraftLine } from '../../shell/DraftLine';
import { VisitFrame } from '../../shell/VisitFrame';
import { useVisit } from '../../shell/VisitProvider';
import { AskedRows } from './AskedRows';
import { EyeRows } from './EyeRows';
import { Pointed } from './Pointed';
import { useAftercare } from './useAftercare';

// Below what the first view shows: they bring their own scripts.
const EndAftercare = lazy(() => import('./EndAftercare').then((m) => ({ default: m.EndAftercare })));
const Events = lazy(() => import('./Events').then((m) => ({ default: m.Events })));

/** Aftercare: what is reported, what the lens and the care are like, what that points to, and how it ends. */
function AftercareBody() {
  const t = useTranslations('aftercare');
  const eyeWords = useEyeWords();
  const router = useRouter();
  const { record } = useVisit();
  const page = useAftercare();
  useKey('n', page.allFine, [page]);
  const next = stepsOf(record.visit.kind).find((step, i, all) => all[i - 1] === 'aftercare') ?? 'onEye';
  return (
    <VisitFrame
      step="aftercare"
      keys={[[['N'], t('keys.n')]]}
      margin={<Pointed page={page} />}
      actions={
        <Button
          look={page.state.open.some((o) => o.what === 'trouble') || page.draft.body.outcome ? 'plain' : 'act'}
          onClick={() => router.push(`/visits/${record.visit.id}/${stepSlug(next)}`)}
        >
          {t(next === 'history' ? 'toHistory' : 'toOnEye')}
        </Button>
      }
    >
      <Spine label={t('title')}>
        <SpineHead words={eyeWords.heads} label={t('title')} />
        <EyeRows page={page} />
      </Spine>
      <AskedRows page={page} />
      <Suspense fallback={null}>
        <Events page={page} />
        <EndAftercare page={page} />
      </Suspense>
      <DraftLine draft={page.draft} />
    </VisitFrame>
  );
}

export const AftercareStep = withWords(
  {
    aftercare: aftercareWords,
    answers: answersWords,
    draft: draftWords,
    lensSigns: lensSignsWords,
    problems: { ...diaryProblems, ...aftercareProblems },
  },
  AftercareBody,
);
