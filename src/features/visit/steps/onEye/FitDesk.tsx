'use client';
import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import { EYES, type Eye, type LensSignId } from '@/core';
import { Stated } from '@/ui/marks';
import { SpineRow } from '@/ui/Spine';
import { Segment } from '@/ui/Segment';
import { useDeviceChoice } from '../../../common/deviceChoice';
import { useVisit } from '../../shell/VisitProvider';
import { FitControl } from './FitControl';
import { FindingField, FindingScale, FindingWords, useLensSignWords } from './findings';
import { Centring, Overlap, Ruler } from './FitGeometry';
import { ComfortLadder, NextLens } from './NextLens';
import type { Readings } from './useReadings';
import fitDeskWords from '@/i18n/messages/en/fitDesk.messages.json';
import lensSignsWords from '@/i18n/messages/en/lensSigns.messages.json';
import { withWords } from '@/i18n/withWords';

const PUSH_UP = [0, 20, 40, 50, 60, 80, 100] as const;
const TEN = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10] as const;
const ONE_LINE: readonly LensSignId[] = ['lineCentre', 'lineMovement', 'lineLag', 'lineRecovery'];

/** Movement, centring, push-up, comfort: the fit as seen, in one line or in full, and what it comes to. */
function FitDeskRows({ readings }: { readonly readings: Readings }) {
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
        note={<Segment label={t('form')} values={['line', 'full']} value={full ? 'full' : 'line'} word={(form) => t(form)} onChoose={setForm} />}
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
      {EYES.some((e) => readings.live[e].lens?.irregular === true) ? row('markUpGaze', t('upGazeNote')) : null}
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
      {EYES.some((e) => wearsAdd(readings, e)) ? (
        <SpineRow
          label={t('pupilCentre')}
          note={t('pupilCentreNote')}
          {...both((e) => (wearsAdd(readings, e) ? <PupilCentre readings={readings} eye={e} /> : null))}
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

const wearsAdd = (readings: Readings, eye: Eye): boolean => (readings.live[eye].lens?.addBand ?? null) !== null;

/** Where the centre of a lens with an add lies from the pupil's: near sight hangs on it. */
function PupilCentre({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  return (
    <span className={`flex gap-3 flex-wrap ${eye === 'right' ? 'justify-end' : ''}`}>
      <FindingField readings={readings} eye={eye} sign="pupilNose" />
      <FindingField readings={readings} eye={eye} sign="pupilUp" />
    </span>
  );
}

/** What the signs say, before the fitter does. */
function Judged({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('fitDesk');
  const tOf = useWordsOf('fitDesk');
  const { record } = useVisit();
  const { verdict, unsettled, reasons } = readings.live[eye].fitVerdict;
  if (verdict === null && unsettled === null) return <span className="label">{t('lookFirst')}</span>;
  const side = verdict ?? unsettled;
  const speaking = reasons.filter((r) => verdict === 'mixed' || r.side === side || (verdict === 'fits' && r.weight === 'watch'));
  return (
    <span className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`} data-testid={`judged-${eye}`}>
      {verdict === null ? (
        <Stated state="watch">{t(`unsettled.${unsettled ?? 'tight'}`)}</Stated>
      ) : (
        <Stated state={verdict === 'fits' ? 'ok' : verdict === 'mixed' ? 'watch' : 'stop'}>{t(`says.${verdict}`)}</Stated>
      )}
      <span className="note">{t(`school.${record.session.settings.movement}`)}</span>
      <span className="note">{speaking.map((r) => tOf(`reasons.${r.code.replace('.', '_')}`, r.data)).join(' · ')}</span>
    </span>
  );
}

export const FitDesk = withWords({ fitDesk: fitDeskWords, lensSigns: lensSignsWords }, FitDeskRows);
