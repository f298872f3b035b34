'use client';
import { lazy, Suspense } from 'react';
import { useTranslations } from 'use-intl';
import { formatAxis, refitStep, turnHistory, type Eye } from '@/core';
import { formatDay } from '@/i18n/format';
import { KeyCap, Stated } from '@/ui/marks';
import { RotationEye } from '@/ui/RotationEye';
import { SpineRow } from '@/ui/Spine';
import { useDeviceChoice } from '../../../common/deviceChoice';
import { useEyeWords } from '../../../common/eyeWords';
import { pedalName, usePedal } from '../../../common/pedal';
import { SwapEyes } from '../../shell/Correct';
import { useVisit } from '../../shell/VisitProvider';
import { Blinks } from './Blinks';
import { FindingScale } from './findings';
import { degrees } from './model';
import { TurnControls } from './TurnControls';
import type { Readings } from './useReadings';
import { withWords } from '@/i18n/withWords';
import photoProblems from '@/i18n/messages/en/photoProblems.messages.json';
import lensSignsWords from '@/i18n/messages/en/lensSigns.messages.json';
import turnDeskWords from '@/i18n/messages/en/turnDesk.messages.json';

const Cost = lazy(() => import('./TurnCost').then((m) => ({ default: m.Cost })));
const PhotoTurn = lazy(() => import('./photo/PhotoTurn').then((m) => ({ default: m.PhotoTurn })));
const InstrumentChoice = lazy(() => import('./InstrumentChoice').then((m) => ({ default: m.InstrumentChoice })));
const LettersRow = lazy(() => import('./letters/LettersRow').then((m) => ({ default: m.LettersRow })));

/** Seconds until back after a push, as far as anybody waits. */
const RECOVERY = [5, 10, 20, 30, 60, 90] as const;

/** Where the mark sits, blink by blink; what to do about it; what it costs. */
function TurnDeskRows({ readings, measuring }: { readonly readings: Readings; readonly measuring: Eye }) {
  const t = useTranslations('turnDesk');
  const eyeWords = useEyeWords();
  const both = (make: (e: Eye) => React.ReactNode) => {
    const of = (e: Eye) => (readings.live[e].state.onEye ? make(e) : null);
    return { right: of('right'), left: of('left') };
  };
  const [pedal] = usePedal();
  const [keys] = useDeviceChoice('keys');
  const { live } = readings;
  return (
    <>
      <SpineRow
        label={t('markSits')}
        note={
          <span className="flex flex-col gap-2 items-center">
            <span>{t('markNote')}</span>
            <strong data-testid="measuring">
              {t('measuring', { eye: eyeWords.short(measuring), number: live[measuring].blinks.length, wanted: live[measuring].wanted })}
            </strong>
            <Suspense fallback={null}>
              <InstrumentChoice readings={readings} />
            </Suspense>
            {live.right.state.turn && live.left.state.turn ? <SwapEyes kind="rotation" /> : null}
          </span>
        }
        {...both((e) => (
          <div className={`flex flex-col gap-2 w-full ${e === 'right' ? 'items-end' : 'items-start'}`}>
            <RotationEye
              eye={e}
              layout={live[e].lens?.markLayout ?? 'none'}
              spacing={live[e].lens?.markSpacing ?? 30}
              value={live[e].turn}
              trail={live[e].blinks}
              onChange={(value, how) => readings.setTurn(e, value, how)}
              disabled={!readings.hasMark(e)}
              label={t('dialLabel', { eye: eyeWords.name(e) })}
              valueText={eyeWords.turn}
              words={{ nose: t('nose'), ear: t('ear') }}
            />
            <TurnControls readings={readings} eye={e} />
          </div>
        ))}
      />
      <SpineRow
        label={t('blinks')}
        note={
          <>
            {keys === 'off' ? null : <KeyCap>{t('space')}</KeyCap>} {pedal ? <KeyCap>{pedalName(pedal)}</KeyCap> : null} {t('blinksNote')}
          </>
        }
        {...both((e) => (
          <span className={`flex flex-col gap-1 ${e === 'right' ? 'items-end' : 'items-start'}`}>
            <Blinks readings={readings} eye={e} />
            <Suspense fallback={null}>
              <PhotoTurn readings={readings} eye={e} />
            </Suspense>
            <TurnBefore readings={readings} eye={e} />
          </span>
        ))}
      />
      <SpineRow
        label={t('recovery')}
        note={t('recoveryNote')}
        {...both((e) => (readings.hasMark(e) ? <FindingScale readings={readings} eye={e} sign="recoverySeconds" values={RECOVERY} /> : null))}
      />
      <SpineRow label={t('verdict')} note={t('verdictNote')} {...both((e) => <Verdict readings={readings} eye={e} />)} />
      <SpineRow
        label={t('costs')}
        note={t('costsNote')}
        {...both((e) => (
          <Suspense fallback={null}>
            <Cost readings={readings} eye={e} />
          </Suspense>
        ))}
      />
      <Suspense fallback={null}>
        <LettersRow readings={readings} />
      </Suspense>
    </>
  );
}

/** How the same lens, worn home since, turned on this eye before. */
function TurnBefore({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('turnDesk');
  const eyeWords = useEyeWords();
  const { record } = useVisit();
  const lensId = readings.live[eye].state.onEye?.current.lensId;
  if (!lensId) return null;
  return turnHistory(eye, lensId, record.earlierOnEye, record.earlierRotations).map((turn) => (
    <span key={turn.visitId} className="note" data-testid={`turn-before-${eye}`}>
      {t('before', { day: formatDay(turn.at.slice(0, 10)), turn: eyeWords.turn(Math.round(turn.rotationLeft)), count: turn.readings })}
    </span>
  ));
}

/** What to do about the turn: left add, right subtract, to the axis of the refraction. */
function Verdict({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('turnDesk');
  const { verdict, stats, lens, fitSaid } = readings.live[eye];
  const { rotation, need } = verdict;
  if (!stats || !rotation) return <span className="label">{t('notRead')}</span>;
  const state = rotation.code === 'refit' || rotation.code === 'changeDesign' ? 'stop' : rotation.code === 'provisional' ? 'watch' : 'ok';
  const turned = Math.abs(stats.mean) >= 0.5;
  return (
    <span className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`} data-testid={`turn-verdict-${eye}`}>
      <Stated state={state}>{t(`does.${rotation.code}`)}</Stated>
      <span className="note">
        {verdict.noOrder === 'notSteadyYet'
          ? t('notSteadyYet')
          : t(`why.${rotation.why}`, { gain: rotation.gain === null ? '' : Math.max(0, rotation.gain).toFixed(2) })}
      </span>
      {rotation.code === 'changeDesign' ? <span className="note">{t('farWay')}</span> : null}
      {rotation.code === 'refit' ? <span className="note">{t(`refit.${refitStep(fitSaid)}`)}</span> : null}
      {need && need.cylinder !== 0 && verdict.noOrder === null ? (
        <span className="axis-sum">
          {rotation.code === 'leave' && turned
            ? t('leaveAxis')
            : turned
              ? stats.mean > 0
                ? t('leftAdd', { turn: degrees(stats.mean) })
                : t('rightSubtract', { turn: degrees(-stats.mean) })
              : t('keep')}{' '}
          <span className="axis-from">{formatAxis(need.axis)}</span> <span aria-hidden="true">→</span>{' '}
          <strong>{formatAxis(verdict.order?.axis ?? need.axis)}</strong>
        </span>
      ) : null}
      {rotation.code === 'leave' &&
      rotation.uncompensated &&
      rotation.compensated &&
      rotation.uncompensated.lens.power.axis !== rotation.compensated.lens.power.axis ? (
        <span className="note">
          {t('either', {
            axis: rotation.uncompensated.lens.power.axis,
            least: rotation.compensated.lens.power.axis,
            more: Math.max(0, rotation.gain ?? 0).toFixed(2),
          })}
        </span>
      ) : null}
      {lens && need && verdict.noOrder === null && lens.cylinderD !== 0 && Math.round(need.axis) !== lens.axisDeg ? (
        <span className="note">{t('trialAxis', { trial: lens.axisDeg, asks: formatAxis(need.axis) })}</span>
      ) : null}
    </span>
  );
}

export const TurnDesk = withWords({ problems: photoProblems, lensSigns: lensSignsWords, turnDesk: turnDeskWords }, TurnDeskRows);
