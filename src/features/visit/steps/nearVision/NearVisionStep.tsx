'use client';
import { useTranslations } from 'use-intl';
import type { Eye } from '@/core';
import { formatDay } from '@/i18n/format';
import nearVisionProblems from '@/i18n/messages/en/nearVisionProblems.messages.json';
import nearVisionWords from '@/i18n/messages/en/nearVision.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Spine, SpineHead, SpineRow } from '@/ui/Spine';
import { useEyeWords } from '../../../common/eyeWords';
import { VisitFrame } from '../../shell/VisitFrame';
import { useVisit } from '../../shell/VisitProvider';
import { BothEyes } from './BothEyes';
import { Tasks } from './Tasks';
import { useNearVision } from './useNearVision';
import { Way } from './Way';

/** Near vision: what is to be seen, which eye is for far, whether the eyes may be set apart; and so how near is served. */
function NearVisionBody() {
  const t = useTranslations('nearVision');
  const eyeWords = useEyeWords();
  const { eye, health } = useVisit();
  const page = useNearVision();
  const { advice, decided } = page;
  const add = (e: Eye) => {
    const known = page.adds[e];
    return known ? (
      <span>
        <span className="power">{`+${known.addD.toFixed(2)}`}</span>{' '}
        <span className="note">
          {t(known.source === 'age' ? 'estimated' : 'measured')}
          {known.cm === null ? null : t('addAt', { cm: known.cm })}
          {eye(e).refraction?.current.addD ? null : t('addBefore', { day: formatDay(known.observedAt.slice(0, 10)) })}
        </span>
      </span>
    ) : (
      <span className="note">{t('addMissing')}</span>
    );
  };
  const pupil = (e: Eye) => {
    const { pupilRoom, pupilDim } = health.findings[e];
    const shown = [pupilRoom, pupilDim].map((p) => (typeof p === 'number' ? p.toFixed(1) : '–'));
    return pupilRoom === undefined && pupilDim === undefined ? (
      <span className="note">{t('pupilMissing')}</span>
    ) : (
      <span className="value">{shown.join(' / ')}</span>
    );
  };
  return (
    <VisitFrame
      step="nearVision"
      keys={[]}
      margin={<Way page={page} />}
      actions={
        <>
          {decided ? null : <Button onClick={page.goOn}>{t(page.onward === 'kind' ? 'toKind' : 'toLens')}</Button>}
          {decided ? (
            <Button look="act" keys={['⏎']} data-enter="true" onClick={page.goOn}>
              {t(page.onward === 'kind' ? 'toKind' : 'toLens')}
            </Button>
          ) : (
            <Button
              look="act"
              keys={['⏎']}
              data-enter="true"
              disabled={page.blocked}
              onClick={() => void page.decide(advice.recommended.way, '').then((done) => (done?.ok ? page.goOn() : undefined))}
            >
              {t('decide', { way: t(`way.${advice.recommended.way}`).toLocaleLowerCase('en') })}
            </Button>
          )}
        </>
      }
    >
      <Spine label={t('title')}>
        <SpineHead words={eyeWords.heads} label={t('title')} />
        <SpineRow label={t('add')} note={t('addNote')} right={add('right')} left={add('left')} />
        <SpineRow label={t('pupils')} note={t('pupilsNote')} right={pupil('right')} left={pupil('left')} />
      </Spine>
      <Tasks page={page} />
      <BothEyes page={page} />
    </VisitFrame>
  );
}

export const NearVisionStep = withWords({ nearVision: nearVisionWords, problems: nearVisionProblems }, NearVisionBody);
