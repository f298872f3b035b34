'use client';
import { useTranslations } from 'use-intl';
import { FEWEST_READINGS, type Eye } from '@/core';
import { Button } from '@/ui/Button';
import { Stated } from '@/ui/marks';
import { useEyeWords } from '../../../common/eyeWords';
import { Figure } from '../../../common/Working';
import { Correctable } from '../../shell/Correct';
import { degrees, turnText } from './model';
import type { Readings } from './useReadings';

/** The series as read: each blink, scatter, drift. */
export function Blinks({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('turnDesk');
  const eyeWords = useEyeWords();
  const { stats, blinks, logged, state, verdict, wanted } = readings.live[eye];
  if (!stats)
    return (
      <span className={`flex gap-4 items-center flex-wrap ${eye === 'right' ? 'flex-row-reverse' : ''}`}>
        <span className="label">{t('notRead')}</span>
        {readings.hasMark(eye) ? (
          <Button onClick={() => readings.logBlink(eye)} aria-label={t('logLabel', { eye: eyeWords.name(eye) })}>
            {t('log')}
          </Button>
        ) : null}
      </span>
    );
  const shown = state.series;
  const steady = verdict.rotation;
  return (
    <div className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`} data-testid={`blinks-${eye}`}>
      <span className={`flex gap-4 items-center flex-wrap ${eye === 'right' ? 'flex-row-reverse' : ''}`}>
        <span className="flex gap-2 items-baseline">
          <span className="turn-figure" data-testid={`mean-${eye}`}>
            {`${degrees(Math.abs(stats.mean))}°`}
          </span>
          <span>{stats.mean === 0 ? t('true') : stats.mean > 0 ? t('left') : t('right')}</span>
        </span>
        <span className="blink-list">
          {blinks.map((b, i) => (
            <span key={i}>{b < 0 ? `−${-b}` : b}</span>
          ))}
        </span>
        <Button disabled={!readings.hasMark(eye)} onClick={() => readings.logBlink(eye)} aria-label={t('logLabel', { eye: eyeWords.name(eye) })}>
          {t('log')}
        </Button>
      </span>
      <span className="note">
        {stats.lensSd === null ? (
          t('oneBlink')
        ) : (
          <Figure id={`series-${eye}`}>
            {t('scatter', { sd: (stats.sd ?? 0).toFixed(1), lens: stats.lensSd.toFixed(1), slope: degrees(stats.slope ?? 0).replace('-', '−') })}
          </Figure>
        )}
      </span>
      {steady && (steady.why === 'unsteady' || steady.why === 'drifting' || steady.why === 'slow') ? (
        <Stated state="stop">{t(`unsteady.${steady.why}`)}</Stated>
      ) : stats.count >= FEWEST_READINGS ? (
        <Stated state={stats.count >= wanted ? 'ok' : 'watch'}>{stats.count >= wanted ? t('steady') : t('scatters', { count: wanted - stats.count })}</Stated>
      ) : null}
      {shown.some((c) => c.current.provisional) ? <Stated state="watch">{t('provisional')}</Stated> : null}
      <span className="flex gap-2 flex-wrap">
        {logged.length > 0 ? (
          <button type="button" className="btn btn-quiet" onClick={() => readings.dropBlink(eye)}>
            {t('dropLast')}
          </button>
        ) : null}
        {readings.live[eye].continues || shown.length === 0 || logged.length > 0 ? null : <span className="note">{t('newSeries')}</span>}
        {readings.live[eye].continues ? (
          <button type="button" className="btn btn-quiet" onClick={() => readings.readAnew(eye)}>
            {t('anew')}
          </button>
        ) : null}
      </span>
      {shown.length > 0 ? (
        <details className="text-left">
          <summary className="note">{t('recordedBlinks', { count: shown.length })}</summary>
          {shown.map((chain, i) => (
            <div key={chain.rootId} className="flex gap-2 items-baseline">
              <span className="note">
                {i + 1} {eyeWords.turn(chain.current.rotationLeftDeg)}{' '}
                {chain.current.scaleReading === null ? '' : t('offScale', { reading: chain.current.scaleReading })}
              </span>
              <Correctable kind="rotation" chain={chain} show={(row) => eyeWords.turn(row.rotationLeftDeg)} textOf={(row) => turnText(row.rotationLeftDeg)} />
            </div>
          ))}
        </details>
      ) : null}
    </div>
  );
}
