'use client';
import { useRouter } from 'next/navigation';
import { useTranslations } from 'use-intl';
import { centredOverlap, COMFORT_LADDER, EYES, MEAN_HVID_MM, movementByOverlap, nextCurves, overlaps, refitStep, type Eye, type LensSignId } from '@/core';
import { Button } from '@/ui/Button';
import { FitEye } from '@/ui/FitEye';
import { Stated } from '@/ui/marks';
import { SpineRow } from '@/ui/Spine';
import { useDeviceChoice } from '../common/deviceChoice';
import { useEyeWords } from '../common/eyeWords';
import { Figure } from '../common/Working';
import { useVisit } from '../common/visit/VisitProvider';
import { FitControl } from './FitControl';
import { FindingField, FindingScale, FindingWords, useLensSignWords } from './findings';
import type { Readings } from './useReadings';

/** Shares of the overlap on the ruler. */
const SHARES = [0, 0.25, 0.5, 0.75, 1, 1.5] as const;
const PUSH_UP = [0, 20, 40, 50, 60, 80, 100] as const;
const TEN = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10] as const;
const ONE_LINE: readonly LensSignId[] = ['lineCentre', 'lineMovement', 'lineLag', 'linePushUp'];
const SIDES = [
  ['overlapUp', 'up'],
  ['overlapDown', 'down'],
  ['overlapNose', 'nose'],
  ['overlapEar', 'ear'],
] as const;

/** Movement, centring, push-up, comfort: the fit as seen, in one line or in full, and what it comes to. */
export function FitDesk({ readings }: { readonly readings: Readings }) {
  const t = useTranslations('fitDesk');
  const words = useLensSignWords();
  const [form, setForm] = useDeviceChoice('fitForm');
  const full = form === 'full';
  const both = (make: (e: Eye) => React.ReactNode) => {
    const of = (e: Eye) => (readings.live[e].state.onEye ? make(e) : null);
    return { right: of('right'), left: of('left') };
  };
  const row = (sign: LensSignId, note?: string) => (
    <SpineRow key={sign} label={words.name(sign)} note={note} {...both((e) => <FindingWords readings={readings} eye={e} sign={sign} />)} />
  );
  return (
    <>
      <SpineRow
        label={t('form')}
        note={
          <span className="segment" role="group" aria-label={t('form')}>
            {(['line', 'full'] as const).map((form) => (
              <button
                key={form}
                type="button"
                data-state={(form === 'full') === full ? 'on' : 'off'}
                aria-pressed={(form === 'full') === full}
                onClick={() => setForm(form)}
              >
                {t(form)}
              </button>
            ))}
          </span>
        }
        {...both((e) => <Judged readings={readings} eye={e} />)}
      />
      {full ? (
        <>
          <SpineRow label={t('centring')} note={t('centringNote')} {...both((e) => <Centring readings={readings} eye={e} />)} />
          <SpineRow label={t('overlap')} note={t('overlapNote')} {...both((e) => <Overlap readings={readings} eye={e} />)} />
          {row('coverage')}
          {(['movement', 'movementUp', 'lag'] as const).map((sign) => (
            <SpineRow
              key={sign}
              label={words.name(sign)}
              note={sign === 'movement' ? t('rulerNote') : undefined}
              {...both((e) => <Ruler readings={readings} eye={e} sign={sign} />)}
            />
          ))}
          <SpineRow
            label={words.name('pushUp')}
            note={t('pushUpNote')}
            {...both((e) => <FindingScale readings={readings} eye={e} sign="pushUp" values={PUSH_UP} />)}
          />
          {row('edge')}
          {row('edgeVessels')}
          {row('afterBlink')}
        </>
      ) : (
        <SpineRow
          label={t('oneLine')}
          note={t('oneLineNote')}
          {...both((e) => (
            <span className="one-line">
              {ONE_LINE.map((sign) => (
                <span key={sign} className="flex flex-col items-inherit">
                  <span className="note">{words.short(sign)}</span>
                  <FindingWords readings={readings} eye={e} sign={sign} />
                </span>
              ))}
            </span>
          ))}
        />
      )}
      <SpineRow
        label={words.name('comfort')}
        note={t('comfortNote')}
        {...both((e) => <FindingScale readings={readings} eye={e} sign="comfort" values={TEN} />)}
      />
      {EYES.some((e) => readings.live[e].fitVerdict.hurts) ? (
        <SpineRow
          label={t('hurts')}
          note={t('hurtsNote')}
          {...both((e) => (readings.live[e].fitVerdict.hurts ? <ComfortLadder readings={readings} eye={e} /> : null))}
        />
      ) : null}
      <SpineRow
        chosen
        label={t('verdict')}
        note={t('verdictNote')}
        {...both((e) => (
          <FitControl
            eye={e}
            state={readings.live[e].state}
            typed={readings.draft.body[`${e}Fit`] ?? null}
            usable={readings.usable(e)}
            onChoose={(word) => readings.draft.set(`${e}Fit`, word)}
          />
        ))}
      />
      <SpineRow label={t('next')} note={t('nextNote')} {...both((e) => <NextLens readings={readings} eye={e} />)} />
    </>
  );
}

/** What the signs say, before the fitter does. */
function Judged({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('fitDesk');
  const { record } = useVisit();
  const { verdict, reasons } = readings.live[eye].fitVerdict;
  if (verdict === null) return <span className="label">{t('lookFirst')}</span>;
  const speaking = reasons.filter((r) => verdict === 'mixed' || r.side === verdict);
  return (
    <span className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`} data-testid={`judged-${eye}`}>
      <Stated state={verdict === 'fits' ? 'ok' : verdict === 'mixed' ? 'watch' : 'stop'}>{t(`says.${verdict}`)}</Stated>
      <span className="note">{t(`school.${record.house.settings.movement}`)}</span>
      <span className="note">{speaking.map((r) => t(`reasons.${r.code.replace('.', '_') as 'movesWell'}`, r.data)).join(' · ')}</span>
    </span>
  );
}

const useGeometry = (readings: Readings, eye: Eye) => {
  const { health } = useVisit();
  const seen = health.facts.eyes[eye].hvid;
  const { lens, findings } = readings.live[eye];
  const hvid = typeof seen === 'number' ? seen : MEAN_HVID_MM;
  const diameter = lens?.diameterMm ?? 14.2;
  const number = (sign: LensSignId): number => {
    const value = findings[sign];
    return typeof value === 'number' ? value : 0;
  };
  return { hvid, measured: typeof seen === 'number', diameter, centred: centredOverlap(diameter, hvid), off: { nose: number('offNose'), up: number('offUp') } };
};

function Centring({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('fitDesk');
  const eyeWords = useEyeWords();
  const g = useGeometry(readings, eye);
  const usable = readings.usable(eye);
  const move = (nose: number, up: number): void => {
    const text = (mm: number): string => (Math.round(mm * 10) / 10).toFixed(1);
    readings.setFinding(eye, 'offNose', text(nose));
    readings.setFinding(eye, 'offUp', text(up));
  };
  const nudges = [
    ['nose', 0.1, 0],
    ['ear', -0.1, 0],
    ['up', 0, 0.1],
    ['down', 0, -0.1],
  ] as const;
  return (
    <div className={`flex flex-col gap-2 w-full ${eye === 'right' ? 'items-end' : 'items-start'}`}>
      <FitEye
        eye={eye}
        hvid={g.hvid}
        lensDiameter={g.diameter - 0.25}
        offNose={g.off.nose}
        offUp={g.off.up}
        onMove={move}
        disabled={!usable}
        label={t('eyeLabel', { eye: eyeWords.name(eye), nose: g.off.nose.toFixed(1), up: g.off.up.toFixed(1) })}
        words={{ nose: t('nose'), ear: t('ear') }}
      />
      <span className="flex gap-1">
        {nudges.map(([to, nose, up]) => (
          <button
            key={to}
            type="button"
            className="btn nudge"
            disabled={!usable}
            aria-label={t('nudge', { eye: eyeWords.name(eye), to: t(to) })}
            onClick={() => move(g.off.nose + nose, g.off.up + up)}
          >
            {t(`${to}Short`)}
          </button>
        ))}
      </span>
      <span className="flex gap-3 flex-wrap">
        <FindingField readings={readings} eye={eye} sign="offNose" />
        <FindingField readings={readings} eye={eye} sign="offUp" />
      </span>
    </div>
  );
}

/** How far the lens reaches past the limbus: from the centring, or as it was seen. */
function Overlap({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('fitDesk');
  const g = useGeometry(readings, eye);
  const from = overlaps(g.centred, g.off);
  return (
    <span className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`}>
      <span className="value">
        <Figure id={`overlap-${eye}`}>
          {t('overlapLine', { up: from.up.toFixed(1), down: from.down.toFixed(1), nose: from.nose.toFixed(1), ear: from.ear.toFixed(1) })}
        </Figure>
      </span>
      {Object.values(from).some((mm) => mm < 1) ? <Stated state="watch">{t('overlapSmall')}</Stated> : null}
      <span className="grid grid-cols-2 gap-x-3 gap-y-1">
        {SIDES.map(([sign]) => (
          <FindingField key={sign} readings={readings} eye={eye} sign={sign} />
        ))}
      </span>
      {g.measured ? null : <span className="note">{t('hvidAssumed', { mm: g.hvid.toFixed(1) })}</span>}
    </span>
  );
}

/** The overlap is the ruler: how far toward the limbus did the edge go? */
function Ruler({ readings, eye, sign }: { readonly readings: Readings; readonly eye: Eye; readonly sign: 'movement' | 'movementUp' | 'lag' }) {
  const t = useTranslations('fitDesk');
  const words = useLensSignWords();
  const eyeWords = useEyeWords();
  const g = useGeometry(readings, eye);
  const now = readings.live[eye].findings[sign];
  return (
    <div className={`flex gap-3 items-start flex-wrap ${eye === 'right' ? 'flex-row-reverse' : ''}`}>
      <FindingField readings={readings} eye={eye} sign={sign} bare />
      <div className="ruler" role="group" aria-label={t('rulerLabel', { eye: eyeWords.name(eye), sign: words.name(sign) })}>
        {SHARES.map((share) => {
          const mm = movementByOverlap(share, g.centred);
          return (
            <button
              key={share}
              type="button"
              disabled={!readings.usable(eye)}
              data-state={now === mm ? 'on' : 'off'}
              aria-pressed={now === mm}
              onClick={() => readings.setFinding(eye, sign, mm.toFixed(2))}
            >
              <span className="ruler-share">{t(`shares.s${share * 100}` as 'shares.s0')}</span>
              <span className="note">{mm.toFixed(2)}</span>
            </button>
          );
        })}
      </div>
    </div>
  );
}

function ComfortLadder({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('fitDesk');
  return (
    <div className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`} data-testid={`ladder-${eye}`}>
      <ol className="list-decimal pl-5 text-left">
        {COMFORT_LADDER.map((step) => (
          <li key={step}>{t(`ladder.${step}`)}</li>
        ))}
      </ol>
      <FindingWords readings={readings} eye={eye} sign="insideOut" />
      <FindingWords readings={readings} eye={eye} sign="debris" />
    </div>
  );
}

/** The lens to try next, from sags within the family; another family when it has none. */
function NextLens({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('fitDesk');
  const router = useRouter();
  const { record, run, busy } = useVisit();
  const { lens, family, state, fitSaid: word, made, verdict } = readings.live[eye];
  const toFamilies = <Button onClick={() => router.push(`/visits/${record.visit.id}/lens`)}>{t('otherFamily')}</Button>;
  if (verdict.noOrder === 'refit' && refitStep(word) === 'stabilisation')
    return (
      <>
        <Stated state="stop">{t('otherStabilisation')}</Stated>
        {toFamilies}
      </>
    );
  if (!state.onEye || (word !== 'loose' && word !== 'tight')) return <span className="label">{word === 'fits' ? t('nextNone') : t('nextLater')}</span>;
  if (!lens || !family || lens.baseCurveMm === null || lens.diameterMm === null) return <span className="label">{t('nextUnknown')}</span>;
  const power = made?.lens.power ?? { sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg };
  const variants = family.blocks.flatMap((b) => b.curves);
  const next = nextCurves({ baseCurve: lens.baseCurveMm, diameter: lens.diameterMm }, variants, word);
  const other = (
    <>
      <span>{t(word === 'loose' ? 'otherLoose' : 'otherTight')}</span>
      {toFamilies}
    </>
  );
  return (
    <span className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`} data-testid={`next-${eye}`}>
      {next.length === 0 ? other : null}
      {next.slice(0, 2).map((n) => (
        <span key={`${n.curve.baseCurve}|${n.curve.diameter}`} className="flex gap-3 items-baseline flex-wrap">
          <Figure id={`next-${eye}`}>
            {t('nextCurve', {
              step: t(`steps.${n.step}`),
              curve: n.curve.baseCurve.toFixed(1),
              diameter: n.curve.diameter.toFixed(1),
              sag: `${n.sagChange < 0 ? '−' : '+'}${Math.abs(n.sagChange * 1000).toFixed(0)}`,
            })}
          </Figure>
          <Button
            disabled={busy || readings.closed}
            onClick={() => {
              const spec = { familyId: family.id, ...power, add: lens.addBand, baseCurve: n.curve.baseCurve, diameter: n.curve.diameter };
              void run('putOnTrials', { right: eye === 'right' ? spec : null, left: eye === 'left' ? spec : null }, t('putOnDone'));
            }}
          >
            {t('putOn')}
          </Button>
        </span>
      ))}
      {verdict.noOrder === 'refit' ? <span className="note">{t('turnsToo')}</span> : null}
    </span>
  );
}
