'use client';
import { lazy, Suspense } from 'react';
import { useTranslations } from 'use-intl';
import { EYES } from '@/core';
import { formatDay } from '@/i18n/format';
import purposesWords from '@/i18n/messages/en/purposes.messages.json';
import wornNowWords from '@/i18n/messages/en/wornNow.messages.json';
import wornNowProblems from '@/i18n/messages/en/wornNowProblems.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Spine, SpineHead, SpineRow } from '@/ui/Spine';
import { useEyeWords } from '../../../common/eyeWords';
import { useKey } from '../../../common/keys';
import { VisitFrame } from '../../shell/VisitFrame';
import { useVisit } from '../../shell/VisitProvider';
import { WornDoubts } from '../../../common/WornDoubts';
import { powerWords, timeOf } from '../../shell/worn';
import { AnswerCell } from './AnswerCell';
import { ANSWER_KEYS } from './model';
import { Since } from './Since';
import { useAsking, type AskingState } from './useAsking';
import { ChainCell, WornCell } from './WornCell';

// Opened now and then.
const Elsewhere = lazy(() => import('./Elsewhere').then((m) => ({ default: m.Elsewhere })));
const OlderLens = lazy(() => import('./OlderLens').then((m) => ({ default: m.OlderLens })));

/** An hour, then a letter an eye. */
function useAskingKeys(asking: AskingState): void {
  useKey('5,6,7,8,9', (event) => asking.pressHour(timeOf(Number(event.key))), [asking]);
  useKey(
    Object.values(ANSWER_KEYS).map((key) => key.toLowerCase()),
    (event) => {
      const { next } = asking;
      const answer = next && asking.answersOf(next).find((a) => ANSWER_KEYS[a] === event.key.toUpperCase());
      if (next && answer) asking.press(next, answer);
    },
    [asking],
  );
}

/** What is really on each eye: what is on record, how that is known, what does not go together; then asked, in one press an eye. */
function WornNowBody() {
  const t = useTranslations('wornNow');
  const eyeWords = useEyeWords();
  const { busy, record } = useVisit();
  const asking = useAsking();
  const { right, left } = asking.eyes;
  useAskingKeys(asking);
  return (
    <VisitFrame
      step="wornNow"
      keys={[
        [['5–9'], t('keyHour')],
        [['Y'], t('keyYes')],
        [['O', 'M', 'E', 'S', 'X', 'G'], t('keyOther')],
      ]}
      margin={<WornMargin asking={asking} />}
      actions={
        <Button
          look={asking.next === null ? 'act' : 'plain'}
          keys={asking.next === null ? ['⏎'] : []}
          data-enter={asking.next === null ? 'true' : undefined}
          disabled={busy}
          onClick={asking.toNext}
        >
          {t('next')}
        </Button>
      }
    >
      <Spine label={t('title')}>
        <SpineHead words={eyeWords.heads} label={t('facing')} />
        <SpineRow chosen tone="field" label={t('wornNow')} note={t('wornNote')} right={<WornCell asked={right} />} left={<WornCell asked={left} />} />
        <SpineRow label={t('chain')} note={t('chainNote')} right={<ChainCell asked={right} />} left={<ChainCell asked={left} />} />
      </Spine>
      <WornDoubts doubts={asking.doubts} powerOf={(lensId) => powerWords(record, lensId)} />
      <Since asking={asking} />
      <Spine label={t('ask')}>
        <SpineRow
          label={t('answer')}
          note={t('answerNote')}
          right={<AnswerCell asking={asking} asked={right} />}
          left={<AnswerCell asking={asking} asked={left} />}
        />
      </Spine>
      <Suspense fallback={null}>
        {asking.opened?.answer === 'oldPair' ? <OlderLens asking={asking} eye={asking.opened.eye} /> : null}
        {asking.opened?.answer === 'boughtElsewhere' ? <Elsewhere asking={asking} eye={asking.opened.eye} /> : null}
      </Suspense>
    </VisitFrame>
  );
}

function WornMargin({ asking }: { readonly asking: AskingState }) {
  const t = useTranslations('wornNow');
  const eyeWords = useEyeWords();
  return (
    <>
      <h2 className="mb-3">{t('reasoning')}</h2>
      <p className="mb-3">{t('why')}</p>
      {EYES.map((eye) => {
        const { until, given } = asking.eyes[eye];
        return until && given ? (
          <p key={eye} className="mb-3">
            {t('until', { eye: eyeWords.name(eye), until: formatDay(until) })}
            <span className="note block">
              {t('untilWorking', { lenses: given.lensCount, from: formatDay(given.openedOn ?? given.handedOn), days: asking.daysPerWeek })}
            </span>
          </p>
        ) : null;
      })}
    </>
  );
}

export const WornNowStep = withWords({ purposes: purposesWords, wornNow: wornNowWords, problems: wornNowProblems }, WornNowBody);
