'use client';
import { useTranslations } from 'use-intl';
import {
  expectedBlur,
  formatAxis,
  formatRefraction,
  FEWEST_READINGS,
  fromPowerVector,
  powerOnEye,
  refitStep,
  subtractVectors,
  toPowerVector,
  turnCost,
  type Eye,
  type Refraction,
} from '@/core';
import { BlurredLetters } from '@/ui/BlurredLetters';
import { Button } from '@/ui/Button';
import { KeyCap, Stated } from '@/ui/marks';
import { RotationEye } from '@/ui/RotationEye';
import { SpineRow } from '@/ui/Spine';
import { useEyeWords } from '../common/eyeWords';
import { Figure } from '../common/Working';
import { Correctable, SwapEyes } from '../common/visit/Correct';
import { useVisit } from '../common/visit/VisitProvider';
import { FindingScale } from './findings';
import { InstrumentChoice } from './InstrumentChoice';
import { turnText } from './model';
import { TurnControls } from './TurnControls';
import type { Readings } from './useReadings';

/** Blinks until back after a push, as far as anybody counts. */
const RECOVERY = [0, 1, 2, 3, 4, 5, 6] as const;
/** The line of letters shown, its letters’ height in minutes of arc: 20/25. */
const LINE_SHOWN = 6.25;
const DUSK_PUPIL = 5;
const degrees = (value: number): string => (Math.round(value * 10) / 10).toFixed(Number.isInteger(Math.round(value * 10) / 10) ? 0 : 1);

/** Where the mark sits, blink by blink; what to do about it; what it costs. */
export function TurnDesk({ readings, measuring }: { readonly readings: Readings; readonly measuring: Eye }) {
  const t = useTranslations('turnDesk');
  const { record } = useVisit();
  const eyeWords = useEyeWords();
  const both = (make: (e: Eye) => React.ReactNode) => {
    const of = (e: Eye) => (readings.live[e].state.onEye ? make(e) : null);
    return { right: of('right'), left: of('left') };
  };
  const wanted = record.house.settings.blinksRead;
  const { live } = readings;
  return (
    <>
      <SpineRow
        label={t('markSits')}
        note={
          <span className="flex flex-col gap-2 items-center">
            <span>{t('markNote')}</span>
            <strong data-testid="measuring">{t('measuring', { eye: eyeWords.short(measuring), number: live[measuring].blinks.length, wanted })}</strong>
            <InstrumentChoice readings={readings} />
            {live.right.state.turn && live.left.state.turn ? <SwapEyes kind="rotation" /> : null}
          </span>
        }
        {...both((e) => (
          <div className={`flex flex-col gap-2 w-full ${e === 'right' ? 'items-end' : 'items-start'}`}>
            <RotationEye
              eye={e}
              layout={live[e].lens?.markLayout ?? 'none'}
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
        label={t('blinks', { count: wanted })}
        note={
          <>
            <KeyCap>{t('space')}</KeyCap> {t('blinksNote')}
          </>
        }
        {...both((e) => <Blinks readings={readings} eye={e} />)}
      />
      <SpineRow
        label={t('recovery')}
        note={t('recoveryNote')}
        {...both((e) => (readings.hasMark(e) ? <FindingScale readings={readings} eye={e} sign="recovery" values={RECOVERY} /> : null))}
      />
      <SpineRow label={t('verdict')} note={t('verdictNote')} {...both((e) => <Verdict readings={readings} eye={e} />)} />
      <SpineRow label={t('costs')} note={t('costsNote')} {...both((e) => <Cost readings={readings} eye={e} />)} />
      <SpineRow label={t('letters')} note={t('lettersNote', { pupil: DUSK_PUPIL })} {...both((e) => <Letters readings={readings} eye={e} />)} />
    </>
  );
}

/** The series as read: each blink, scatter, drift. */
function Blinks({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('turnDesk');
  const eyeWords = useEyeWords();
  const { record } = useVisit();
  const { stats, blinks, logged, state, verdict } = readings.live[eye];
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
  const wanted = record.house.settings.blinksRead;
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
        <Stated state={stats.count >= wanted ? 'ok' : 'watch'}>{stats.count >= wanted ? t('steady') : t('steadySoFar', { count: stats.count, wanted })}</Stated>
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
              <Correctable
                kind="rotation"
                chain={chain}
                show={(row) => eyeWords.turn(row.rotationLeftDeg)}
                typed="rotation"
                textOf={(row) => turnText(row.rotationLeftDeg)}
              />
            </div>
          ))}
        </details>
      ) : null}
    </div>
  );
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
      <span className="note">{t(`why.${rotation.why}`, { gain: rotation.gain === null ? '' : Math.max(0, rotation.gain).toFixed(2) })}</span>
      {rotation.code === 'refit' ? <span className="note">{t(`refit.${refitStep(fitSaid)}`)}</span> : null}
      {need && need.cylinder !== 0 && verdict.noOrder === null ? (
        <span className="axis-sum">
          {turned ? (stats.mean > 0 ? t('leftAdd', { turn: degrees(stats.mean) }) : t('rightSubtract', { turn: degrees(-stats.mean) })) : t('keep')}{' '}
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
      {lens && need && lens.cylinderD !== 0 && Math.round(need.axis) !== lens.axisDeg ? (
        <span className="note">{t('trialAxis', { trial: lens.axisDeg, asks: formatAxis(need.axis) })}</span>
      ) : null}
    </span>
  );
}

/** What the lens as it sits leaves, and what the order would: as cylinder and as blur. */
function Cost({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('turnDesk');
  const { stats, lens, verdict, made } = readings.live[eye];
  if (!stats || !lens) return <span className="label">{t('notRead')}</span>;
  const cost = turnCost(lens.cylinderD, stats.mean);
  const scatter = made && verdict.need && stats.sd !== null ? expectedBlur(verdict.need, made.lens.power, { mean: stats.mean, sd: stats.sd }) : null;
  return (
    <span className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`} data-testid={`cost-${eye}`}>
      <span className="value">
        <Figure id={`cost-${eye}`}>{t('cost', { cylinder: cost.cylinder.toFixed(2), blur: cost.blur.toFixed(2) })}</Figure>
      </span>
      {Math.abs(stats.mean) < 5 ? <span className="note">{t('underFive')}</span> : null}
      {made ? <span className="note">{t('withOrder', { cylinder: Math.abs(made.lens.residual.cylinder).toFixed(2), blur: made.blur.toFixed(2) })}</span> : null}
      {scatter === null ? null : <span className="note">{t('withScatter', { blur: scatter.toFixed(2) })}</span>}
    </span>
  );
}

const leftBy = (need: Refraction, lens: Refraction, turn: number): Refraction =>
  fromPowerVector(subtractVectors(toPowerVector(need), toPowerVector(powerOnEye(lens, turn))));

function Letters({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('turnDesk');
  const { stats, lens, verdict, made } = readings.live[eye];
  if (!stats || !lens || !verdict.need) return <span className="label">{t('nothingToShow')}</span>;
  const now = leftBy(verdict.need, { sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg }, stats.mean);
  const then = made ? leftBy(verdict.need, made.lens.power, stats.mean) : null;
  const view = (residual: Refraction, caption: string) => (
    <figure className="flex flex-col items-center">
      <BlurredLetters
        letters="KENDR"
        residual={residual}
        pupilMm={DUSK_PUPIL}
        letterArcmin={LINE_SHOWN}
        label={t('lettersLabel', { power: formatRefraction(residual) })}
      />
      <figcaption className="note">{caption}</figcaption>
    </figure>
  );
  return (
    <span className={`flex gap-3 flex-wrap ${eye === 'right' ? 'justify-end' : ''}`}>
      {view(now, t('now'))}
      {then ? view(then, t('withTheOrder')) : null}
    </span>
  );
}
