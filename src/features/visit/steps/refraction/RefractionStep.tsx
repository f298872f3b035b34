'use client';
import { lazy, Suspense, type KeyboardEvent } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, type Eye } from '@/core';
import { Button } from '@/ui/Button';
import { Stated, StateMark } from '@/ui/marks';
import { Spine, SpineHead, SpineRow } from '@/ui/Spine';
import { PowerField } from '../../../common/PowerField';
import { problemAt, useProblemWords } from '../../../common/words';
import { DraftLine } from '../../shell/DraftLine';
import { useEyeWords } from '../../../common/eyeWords';
import { VisitFrame, workingsOf } from '../../shell/VisitFrame';
import { useVisit } from '../../shell/VisitProvider';
import { AcuityRow } from './AcuityRow';
import { CrossEntry } from './CrossEntry';
import { Doubts } from './Doubts';
import { CornealRows, RecordedRows } from './RefractionRows';
import { useRefraction } from './useRefraction';
import { VertexRow } from './VertexRow';
import { cornealWorking } from './working';
import correctWords from '@/i18n/messages/en/correct.messages.json';
import draftWords from '@/i18n/messages/en/draft.messages.json';
import powerFieldWords from '@/i18n/messages/en/powerField.messages.json';
import refractionWords from '@/i18n/messages/en/refraction.messages.json';
import { withWords } from '@/i18n/withWords';

// Near is asked of few, and the ranking comes when the library has.
const AddRow = lazy(() => import('./AddRow').then((m) => ({ default: m.AddRow })));
const NearAcuityRow = lazy(() => import('./NearAcuityRow').then((m) => ({ default: m.NearAcuityRow })));
const SoFar = lazy(() => import('./SoFar').then((m) => ({ default: m.SoFar })));

/** Spectacle powers in, powers at the cornea out, with the way between them. */
function RefractionStepBody() {
  const t = useTranslations('refraction');
  const words = useProblemWords();
  const eyeWords = useEyeWords();
  const { record, eye, problem, busy } = useVisit();
  const { settings } = record.session;
  const powers = useRefraction();
  const { draft, asked, textOf, shown, needs, addOf } = powers;
  const copy = (event: KeyboardEvent): void => {
    if (event.key !== '=' || textOf('left') !== '') return;
    event.preventDefault();
    draft.set('left', textOf('right'));
  };

  const field = (e: Eye) => (
    <PowerField
      id={`power-${e}`}
      label={t('fieldLabel', { eye: eyeWords.name(e) })}
      eye={e}
      value={textOf(e)}
      onValue={(value) => draft.set(e, value)}
      problem={problemAt(problem, e)}
      kept={draft.body[`${e}Kept`] ?? null}
      onKeep={(value) => draft.set(`${e}Kept`, value)}
      notation={settings.notation}
      asked={asked}
      autoFocus={e === 'right' && !eye('right').refraction}
      disabled={record.visit.closedAt !== null}
    />
  );
  const blocks = EYES.flatMap((e) => {
    const s = shown(e);
    if (!s) return [];
    const workingWords = {
      title: t('workingTitle', { eye: eyeWords.short(e) }),
      formula: t('workingFormula'),
      along: (axis: number) => t('workingAlong', { axis: Math.round(axis) }),
      foot: t('workingFoot'),
    };
    return [cornealWorking(`corneal-${e}`, s.power, s.vertexMm, eyeWords.short(e), workingWords)];
  });
  const anyRecorded = EYES.some((e) => eye(e).refraction);
  return (
    <VisitFrame
      step="refraction"
      workings={workingsOf(blocks, 'corneal-right')}
      keys={[
        [['Tab'], t('keyOther')],
        [['='], t('keyCopy')],
        [['W'], t('keyWorking')],
      ]}
      margin={
        <>
          <h2 className="mb-3">{t('reasoning')}</h2>
          <p className="mb-3">{t('bothMeridians')}</p>
          {EYES.some((e) => (shown(e)?.power.sphere ?? 0) <= -4 || (shown(e)?.power.sphere ?? 0) >= 4) ? (
            <p className="mb-3">
              <Stated state="watch">{t('strong')}</Stated>
            </p>
          ) : null}
          <Doubts doubts={powers.doubts} onSwap={EYES.every((e) => textOf(e).trim() !== '') ? powers.swapTyped : null} />
        </>
      }
      marginEnd={
        <Suspense fallback={null}>
          <SoFar asked={{ needs, adds: { right: addOf('right'), left: addOf('left') } }} />
        </Suspense>
      }
      actions={
        <Button look="act" keys={['⏎']} data-enter="true" disabled={busy || record.visit.closedAt !== null} onClick={() => void powers.submit()}>
          {powers.nearAsked ? t(powers.typedNow || !anyRecorded ? 'recordThenNear' : 'toNear') : powers.typedNow || !anyRecorded ? t('record') : t('toLens')}
        </Button>
      }
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void powers.submit();
        }}
      >
        <Spine label={t('title')}>
          <SpineHead words={eyeWords.heads} label={t('facing')} />
          <SpineRow
            tone="field"
            chosen
            label={t('glasses')}
            note={
              <>
                {t('glassesNote')} <span className="font-mono whitespace-nowrap">{t('glassesExample')}</span>
              </>
            }
            right={field('right')}
            left={
              <div onKeyDown={copy} className="w-full">
                {field('left')}
              </div>
            }
          />
          <VertexRow powers={powers} />
          {powers.asCross ? (
            <SpineRow
              label={t('crossRow')}
              note={t('crossNote')}
              right={<CrossEntry eye="right" draft={draft} />}
              left={<CrossEntry eye="left" draft={draft} />}
            />
          ) : null}
          <CornealRows powers={powers} />
          <Suspense fallback={null}>{powers.addShown ? <AddRow powers={powers} /> : null}</Suspense>
          <AcuityRow draft={draft} />
          <Suspense fallback={null}>{powers.addShown ? <NearAcuityRow powers={powers} /> : null}</Suspense>
          <RecordedRows powers={powers} />
        </Spine>
        {/* Enter in a field sends the form only where there is a submit button. */}
        <button type="submit" hidden aria-hidden="true" tabIndex={-1} />
      </form>
      <DraftLine draft={draft} />
      {problem?.kind === 'invalid' && problemAt(problem, 'right')?.code === 'oneEyeRequired' ? (
        <p className="problem px-6">
          <StateMark state="stop" />
          {words('oneEyeRequired')}
        </p>
      ) : null}
    </VisitFrame>
  );
}

export const RefractionStep = withWords(
  { correct: correctWords, draft: draftWords, powerField: powerFieldWords, refraction: refractionWords },
  RefractionStepBody,
);
