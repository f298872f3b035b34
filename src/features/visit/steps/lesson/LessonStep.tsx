'use client';
import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { lazy, Suspense, useState, type ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { carePrescribed, EYES } from '@/core';
import { Button } from '@/ui/Button';
import { useEyeWords } from '../../../common/eyeWords';
import { OnceAlive } from '../../../common/OnceAlive';
import { VisitFrame } from '../../shell/VisitFrame';
import { useVisit } from '../../shell/VisitProvider';
import { Attempts } from './Attempts';
import { BeforeLesson } from './BeforeLesson';
import { HandOver, HAND_OVER_FORM } from './HandOver';
import { LessonMargin } from './LessonMargin';
import { Topics } from './Topics';
import { useLesson, type Lesson } from './useLesson';
import { Way } from './Way';
import correctWords from '@/i18n/messages/en/correct.messages.json';
import draftWords from '@/i18n/messages/en/draft.messages.json';
import handOverWords from '@/i18n/messages/en/handOver.messages.json';
import lessonWords from '@/i18n/messages/en/lesson.messages.json';
import powerFieldWords from '@/i18n/messages/en/powerField.messages.json';
import { withWords } from '@/i18n/withWords';

const CareSystem = lazy(() => import('../../shell/care/CareSystem').then((m) => ({ default: m.CareSystem })));
// Drawings are half of the page's script: the counts and topics are there without them.
const DrawnPart = dynamic(() => import('./DrawnPartWithWords').then((m) => m.DrawnPartWithWords), { ssr: false });
const Sights = lazy(() => import('./Sights').then((m) => ({ default: m.Sights })));
const SignOff = lazy(() => import('./SignOff').then((m) => ({ default: m.SignOff })));
const StopLesson = lazy(() => import('./StopLesson').then((m) => ({ default: m.StopLesson })));

/** The lesson: care first, then on and off, counted; sign-off stays locked until everything is there. */
function LessonStepBody() {
  const lesson = useLesson();
  const { record, eye, hasLibrary } = useVisit();
  const [handler, setHandler] = useState('');
  const [stopping, setStopping] = useState(false);
  const [signing, setSigning] = useState<string | null>(null);
  const signOff = (overrideNote: string): void => (handling || overrideNote !== '' ? setSigning(overrideNote) : lesson.signOffTopics());
  const { view } = lesson;
  const waiting = EYES.some(
    (e) => eye(e).onEye?.current.source === 'trial' && !record.handOvers.some((c) => c.current?.eye === e && c.current.visitId === record.visit.id),
  );
  const product = hasLibrary ? record.careProducts.find((p) => p.productId === carePrescribed(record.careSystems)?.productId) : undefined;
  const handling = view !== null && view.lesson.eyes.length > 0;
  return (
    <VisitFrame
      step="lesson"
      margin={<LessonMargin lesson={lesson} onSignOff={signOff} />}
      actions={<Actions lesson={lesson} waiting={waiting} handler={handler} onStop={() => setStopping(true)} onSignOff={() => signOff('')} />}
    >
      {view ? (
        <>
          <Way lesson={lesson} view={view} />
          <div className="grid wide:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]">
            <DrawnPart lesson={lesson} view={view} peroxide={product?.system === 'peroxide'} />
            <section>
              {handling ? <Attempts lesson={lesson} view={view} /> : null}
              <div className="p-5">
                <Topics lesson={lesson} view={view} />
                <Suspense fallback={null}>{handling ? <Sights lesson={lesson} view={view} /> : null}</Suspense>
              </div>
            </section>
          </div>
        </>
      ) : (
        <BeforeLesson lesson={lesson} handler={handler} onHandler={setHandler} />
      )}
      <OnceAlive>
        <Suspense fallback={null}>
          <CareSystem />
        </Suspense>
      </OnceAlive>
      {view?.lesson.signOffId || (!view && lesson.lensThere) ? <HandOver experienced={!view?.lesson.signOffId} /> : null}
      {stopping && view ? (
        <Suspense fallback={null}>
          <StopLesson lessonId={view.lesson.id} onClose={() => setStopping(false)} />
        </Suspense>
      ) : null}
      {signing !== null && view && view.lesson.signOffId === null ? (
        <Suspense fallback={null}>
          <SignOff view={view} overrideNote={signing} onClose={() => setSigning(null)} />
        </Suspense>
      ) : null}
    </VisitFrame>
  );
}

/** The next action: one of them is filled. */
function Actions({
  lesson,
  waiting,
  handler,
  onStop,
  onSignOff,
}: {
  readonly lesson: Lesson;
  readonly waiting: boolean;
  readonly handler: string;
  readonly onStop: () => void;
  readonly onSignOff: () => void;
}) {
  const t = useTranslations('lesson');
  const eyeWords = useEyeWords();
  const router = useRouter();
  const { record } = useVisit();
  const { view, busy, turn } = lesson;
  const closed = record.visit.closedAt !== null;
  const toSupply: ReactNode = <Button onClick={() => router.push(`/visits/${record.visit.id}/supply`)}>{t('toSupply')}</Button>;
  if (!view)
    return (
      <Button look="act" keys={['⏎']} data-enter="true" disabled={busy || closed || !lesson.lensThere} onClick={() => lesson.start(handler, false)}>
        {t('start')}
      </Button>
    );
  if (view.lesson.signOffId)
    return waiting ? (
      <>
        {toSupply}
        <Button look="act" keys={['⏎']} data-enter="true" type="submit" form={HAND_OVER_FORM} disabled={busy || closed}>
          {t('handOver')}
        </Button>
      </>
    ) : (
      <>
        {toSupply}
        <Button look="act" keys={['⏎']} data-enter="true" onClick={() => router.push(`/take-home/${record.visit.id}`)}>
          {t('takeHome')}
        </Button>
      </>
    );
  if (view.gate.open)
    return (
      <Button look="act" keys={['⏎']} data-enter="true" disabled={busy} onClick={onSignOff}>
        {t('signOff')}
      </Button>
    );
  const movesDone = view.gate.missing.every((m) => m.kind !== 'moves' && m.kind !== 'today');
  return (
    <>
      {lesson.running ? <Button onClick={onStop}>{t('stop')}</Button> : null}
      {movesDone ? (
        <Button look="act" disabled>
          {t('topicsMissing')}
        </Button>
      ) : (
        <Button look="act" keys={['⏎']} data-enter="true" disabled={busy || !lesson.running} onClick={() => lesson.attempt(true)}>
          {t(view.next[turn] === 'on' ? 'wentOn' : 'cameOff', { eye: eyeWords.short(turn) })}
        </Button>
      )}
    </>
  );
}

export const LessonStep = withWords(
  { correct: correctWords, draft: draftWords, handOver: handOverWords, lesson: lessonWords, powerField: powerFieldWords },
  LessonStepBody,
);
