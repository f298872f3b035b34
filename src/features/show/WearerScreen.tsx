'use client';
import { ArrowLeft, ArrowRight } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import { useTranslations } from 'use-intl';
import type { LessonScreen } from '@/services/lesson/screen';
import drawingWords from '@/i18n/messages/en/drawing.messages.json';
import sceneWords from '@/i18n/messages/en/scenes.messages.json';
import showWords from '@/i18n/messages/en/show.messages.json';
import { useKnownWords } from '@/i18n/wordsOf';
import { withWords } from '@/i18n/withWords';
import { EyeBadge } from '@/ui/marks';
import { Drawing } from '../common/lesson/Drawing';
import { pagesOf } from '../common/lesson/pages';
import { useLessonScreen } from './useLessonScreen';

// They bring their own script and words when they are begun.
const IsItSafe = lazy(() => import('./IsItSafe').then((m) => ({ default: m.IsItSafe })));
const WhichWayOut = lazy(() => import('./WhichWayOut').then((m) => ({ default: m.WhichWayOut })));

/** Parts in which a hand works at an eye: they are drawn as the wearer sees them in the mirror. */
const AT_THE_EYE = ['on', 'off', 'moveAndFind', 'again'];

/** One step at a time, large enough without lenses; in step with the teacher, or by oneself. */
function Screen({ first }: { readonly first: LessonScreen }) {
  const t = useTranslations('show');
  const scenes = useKnownWords('scenes');
  const { screen, away, ended } = useLessonScreen(first);
  const { show } = screen;
  const [own, setOwn] = useState<{ readonly part: string; readonly page: number } | null>(null);
  const [exercise, setExercise] = useState<'which' | 'safe' | null>(null);
  if (ended) return <Plain title={t('ended')} text={t('endedText')} />;
  if (!show) return <Plain title={t('waiting')} text={t('waitingText')} />;
  const pages = pagesOf(show.part, { on: show.onTechnique, off: show.offTechnique, singleUse: screen.singleUse, peroxide: show.peroxide });
  // Another part is shown: whoever looked by themselves looks with the teacher again.
  const alone = own?.part === show.part ? own : null;
  const page = Math.min(alone?.page ?? show.page, pages.length - 1);
  const scene = pages[page] ?? 'theTable';
  const next = pages[page + 1];
  const turnTo = (to: number): void => setOwn({ part: show.part, page: Math.max(0, Math.min(pages.length - 1, to)) });
  const atTheEye = AT_THE_EYE.includes(show.part);
  const drawn = { hand: show.hand, eye: show.eye, skinTone: show.skinTone };
  if (exercise)
    return (
      <main className="show-screen" data-testid="wearer-screen">
        <header />
        <Suspense fallback={<div />}>
          {exercise === 'which' ? (
            <WhichWayOut of={{ ...drawn, view: 'facing' }} onDone={() => setExercise(null)} />
          ) : (
            <IsItSafe
              lessonId={screen.lessonId}
              of={{ singleUse: screen.singleUse, peroxide: show.peroxide }}
              answers={screen.answers}
              onDone={() => setExercise(null)}
            />
          )}
        </Suspense>
        <footer className="show-foot">
          <button type="button" className="btn show-button" onClick={() => setExercise(null)}>
            {t('close')}
          </button>
        </footer>
      </main>
    );
  return (
    <main className="show-screen" data-testid="wearer-screen" data-scene={scene} data-version={show.version}>
      <header className="show-head">
        {atTheEye ? (
          <p className="show-eye">
            <EyeBadge eye={show.eye} /> {t(`your.${show.eye}`)}
          </p>
        ) : (
          <p className="show-eye">{t(`parts.${show.part}`)}</p>
        )}
        <p className="show-steps">
          <span className="show-bars" aria-hidden="true">
            {pages.map((name, i) => (
              <span key={name} data-state={i === page ? 'now' : i < page ? 'done' : 'next'} />
            ))}
          </span>
          {t('step', { step: page + 1, steps: pages.length })}
        </p>
      </header>
      <div className="show-body">
        <div>
          <Drawing scene={scene} of={{ ...drawn, view: atTheEye ? 'mirror' : 'facing' }} ink={3} />
          {atTheEye ? <p className="show-note">{t(scene === 'placeLens' ? 'side' : 'mirror')}</p> : null}
        </div>
        <div aria-live="polite">
          <h1>{scenes.of(`${scene}.title`)}</h1>
          <ul>{['1', '2', '3'].map((n) => (scenes.has(`${scene}.lines.${n}`) ? <li key={n}>{scenes.of(`${scene}.lines.${n}`)}</li> : null))}</ul>
        </div>
      </div>
      <footer className="show-foot">
        {alone ? (
          <>
            <button type="button" className="btn show-button" disabled={page === 0} onClick={() => turnTo(page - 1)}>
              <ArrowLeft aria-hidden="true" /> {t('back')}
            </button>
            <button type="button" className="btn show-button" onClick={() => setOwn(null)}>
              {t('follow')}
            </button>
            <button type="button" className="btn btn-act show-button" disabled={next === undefined} onClick={() => turnTo(page + 1)}>
              {t('next')} <ArrowRight aria-hidden="true" />
            </button>
          </>
        ) : (
          <>
            <button type="button" className="btn show-button" onClick={() => turnTo(page)}>
              {t('alone')}
            </button>
            <p className="grow">{next ? t('then', { title: scenes.of(`${next}.title`) }) : null}</p>
            {show.part === 'wayOut' ? (
              <button type="button" className="btn btn-act show-button" onClick={() => setExercise('which')}>
                {t('tryWhich')}
              </button>
            ) : null}
            {show.part === 'care' || show.part === 'signOff' ? (
              <button type="button" className="btn btn-act show-button" onClick={() => setExercise('safe')}>
                {t('trySafe')}
              </button>
            ) : null}
          </>
        )}
        {away ? <p role="status">{t('away')}</p> : null}
      </footer>
    </main>
  );
}

function Plain({ title, text }: { readonly title: string; readonly text: string }) {
  return (
    <main className="show-screen" data-testid="wearer-screen">
      <div className="show-plain">
        <h1>{title}</h1>
        <p>{text}</p>
      </div>
    </main>
  );
}

export const WearerScreen = withWords({ drawing: drawingWords, scenes: sceneWords, show: showWords }, Screen);
