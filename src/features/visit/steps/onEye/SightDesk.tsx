'use client';
import { useTranslations } from 'use-intl';
import { formatAcuity, formatRefraction, isUnrestored, LIMITS, patternData, powerOf, sightGate, type Eye, type SightGate } from '@/core';
import { Stated } from '@/ui/marks';
import { SpineRow } from '@/ui/Spine';
import { AcuityField } from '../../../common/AcuityField';
import { PowerField } from '../../../common/PowerField';
import { problemAt, useProblemWords } from '../../../common/words';
import { useEyeWords } from '../../../common/eyeWords';
import { CorrectablePower, SwapEyes } from '../../shell/Correct';
import { useVisit } from '../../shell/VisitProvider';
import { BothEyes, LostTogether } from './BothEyes';
import { FindingWords, RecordedFinding } from './findings';
import { FindCylinder } from './FindCylinder';
import { HowTaken, LockedVisit } from './HowTaken';
import { OrderRows } from './OrderRows';
import type { Readings } from './useReadings';
import sightDeskWords from '@/i18n/messages/en/sightDesk.messages.json';
import lensSignsWords from '@/i18n/messages/en/lensSigns.messages.json';
import { withWords } from '@/i18n/withWords';

const GATE_WORDS = { sightUnrestored: 'noOrderYet', sightCauseFirst: 'causeFirst', sightNearEye: 'nearEyeNot' } as const satisfies Record<SightGate, string>;

/** Sight through the lens, the over-refraction, and what it means for the order. */
function SightDeskRows({ readings }: { readonly readings: Readings }) {
  const t = useTranslations('sightDesk');
  const onEye = useTranslations('onEye');
  const words = useProblemWords();
  const { live } = readings;
  const both = (make: (e: Eye) => React.ReactNode) => {
    const of = (e: Eye) => (live[e].state.onEye ? make(e) : null);
    return { right: of('right'), left: of('left') };
  };
  const short = (e: Eye): boolean => isUnrestored(live[e].acuities);
  const anyShort = short('right') || short('left');
  return (
    <>
      <SpineRow label={t('glasses')} note={t('glassesNote')} {...both((e) => <Glasses readings={readings} eye={e} />)} />
      <SpineRow label={t('lens')} note={t('lensNote')} {...both((e) => <Acuity readings={readings} eye={e} sign="acuityLens" />)} />
      <SpineRow label={t('bothEyes')} note={<BothEyes readings={readings} />} {...both((e) => <LostTogether readings={readings} eye={e} />)} />
      <SpineRow
        tone="field"
        chosen
        label={onEye('over')}
        note={
          <span className="flex flex-col items-center gap-1">
            <span>{t('plusFirst')}</span>
            <label htmlFor="over-vertex">{onEye('vertex')}</label>
            <input
              id="over-vertex"
              className="input input-mono w-20! h-8! text-center text-ink"
              value={readings.vertexText}
              onChange={(event) => readings.draft.set('vertex', event.target.value)}
              inputMode="decimal"
              aria-invalid={!readings.vertexFine || undefined}
            />
            {live.right.state.overRefraction && live.left.state.overRefraction ? <SwapEyes kind="overRefraction" /> : null}
            {!readings.vertexFine ? (
              <span>{words('vertexMmOutOfRange', { value: readings.vertexText, min: LIMITS.vertexMm.min, max: LIMITS.vertexMm.max })}</span>
            ) : null}
          </span>
        }
        {...both((e) => <Over readings={readings} eye={e} />)}
      />
      <SpineRow label={t('then')} note={t('thenNote')} {...both((e) => <OverAcuity readings={readings} eye={e} />)} />
      {anyShort ? (
        <>
          <SpineRow
            label={t('pinhole')}
            note={t('pinholeNote')}
            {...both((e) => (short(e) ? <Acuity readings={readings} eye={e} sign="acuityPinhole" /> : null))}
          />
          <SpineRow label={t('cause')} note={t('causeNote')} {...both((e) => (short(e) ? <Cause readings={readings} eye={e} /> : null))} />
        </>
      ) : null}
      <OrderRows readings={readings} />
    </>
  );
}

/** Sight with glasses, from the Power step. */
function Glasses({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('sightDesk');
  const { record } = useVisit();
  const acuity = readings.live[eye].acuities.glasses;
  return acuity === null ? (
    <span className="label">{t('glassesNone')}</span>
  ) : (
    <span className="value" data-testid={`glasses-va-${eye}`}>
      {formatAcuity(acuity, record.session.settings.acuity)}
    </span>
  );
}

function Acuity({ readings, eye, sign }: { readonly readings: Readings; readonly eye: Eye; readonly sign: 'acuityLens' | 'acuityPinhole' }) {
  const t = useTranslations('sightDesk');
  const eyeWords = useEyeWords();
  return (
    <>
      <AcuityField
        id={`finding-${eye}-${sign}`}
        label={t(`${sign}Label`, { eye: eyeWords.name(eye) })}
        text={readings.findingText(eye, sign)}
        onText={(text) => readings.setFinding(eye, sign, text)}
        disabled={!readings.usable(eye)}
        problem={null}
      />
      <RecordedFinding readings={readings} eye={eye} sign={sign} />
    </>
  );
}

/** The over-refraction of one eye: plus first; a lens nobody knows takes none. */
function Over({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const onEye = useTranslations('onEye');
  const eyeWords = useEyeWords();
  const { record, problem } = useVisit();
  const { draft, live, asked } = readings;
  const { state } = live[eye];
  if (!state.confirmed) return <Stated state="stop">{onEye('unconfirmed')}</Stated>;
  const over = state.overRefraction;
  const text = draft.body[eye] ?? '';
  return (
    <>
      <PowerField
        id={`over-${eye}`}
        label={onEye('overLabel', { eye: eyeWords.name(eye) })}
        eye={eye}
        value={text}
        onValue={(value) => {
          draft.set(eye, value);
          // Asked of another figure: it is asked again.
          draft.set(`${eye}Sure`, '');
        }}
        problem={problemAt(problem, eye, 'overRefraction')}
        kept={draft.body[`${eye}Kept`] ?? null}
        onKeep={(value) => draft.set(`${eye}Kept`, value)}
        notation={record.session.settings.notation}
        asked={asked}
        disabled={!readings.usable(eye)}
      />
      <HowTaken readings={readings} eye={eye} typed={text.trim() !== ''} />
      <FindCylinder readings={readings} eye={eye} />
      {over ? (
        <>
          <span className="value" data-testid={`over-recorded-${eye}`}>
            {formatRefraction(powerOf(over.current), { notation: record.session.settings.notation })}
          </span>
          <LockedVisit over={over.current} />
          {over.current.provisional ? <Stated state="watch">{onEye('provisional')}</Stated> : null}
          <CorrectablePower kind="overRefraction" chain={over} />
        </>
      ) : null}
      <Asks readings={readings} eye={eye} />
    </>
  );
}

/** Is this the lens? Asked first where the over-refraction is not what this lens should leave. */
function Asks({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('sightDesk');
  const { draft, patterns, live } = readings;
  const [pattern] = patterns[eye];
  if (!pattern) return null;
  const sure = draft.body[`${eye}Sure`] === 'yes' || ((draft.body[eye] ?? '').trim() === '' && live[eye].findings.sureOfLens === 'yes');
  return (
    <span className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`} data-testid={`asks-${eye}`}>
      <Stated state={sure ? 'watch' : 'stop'}>{t(`patterns.${pattern.code}`, patternData(pattern))}</Stated>
      {sure ? (
        <span className="note">{t('sure')}</span>
      ) : (
        <button type="button" className="btn btn-plain" disabled={!readings.usable(eye)} onClick={() => draft.set(`${eye}Sure`, 'yes')}>
          {t('isTheLens')}
        </button>
      )}
    </span>
  );
}

/** Sight with the over-refraction, and what both acuities say against it. */
function OverAcuity({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('sightDesk');
  const eyeWords = useEyeWords();
  const { record, problem } = useVisit();
  const { state } = readings.live[eye];
  const notation = record.session.settings.acuity;
  const recorded = state.overRefraction?.current.acuityLogMar ?? null;
  const doubts = readings.doubts[eye];
  return (
    <>
      <AcuityField
        id={`over-va-${eye}`}
        label={t('overVaLabel', { eye: eyeWords.name(eye) })}
        text={readings.draft.body[`${eye}OverVa`] ?? ''}
        onText={(text) => readings.draft.set(`${eye}OverVa`, text)}
        disabled={!readings.usable(eye) || (readings.draft.body[eye] ?? '').trim() === ''}
        problem={problemAt(problem, eye, 'overAcuity')}
      />
      {recorded === null ? null : (
        <span className="value" data-testid={`over-va-recorded-${eye}`}>
          {formatAcuity(recorded, notation)}
        </span>
      )}
      <span className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`} data-testid={`doubts-${eye}`}>
        {doubts.map((d) => (
          <Stated key={d.code} state={d.code === 'unrestored' ? 'stop' : 'watch'}>
            {t(`doubts.${d.code}`, 'lines' in d ? { lines: Math.abs(Math.round(d.lines * 10) / 10) } : { lines: 0 })}
          </Stated>
        ))}
      </span>
    </>
  );
}

function Cause({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('sightDesk');
  const { acuities, findings } = readings.live[eye];
  const gate = sightGate(acuities, findings);
  return (
    <>
      <FindingWords readings={readings} eye={eye} sign="cause" />
      {gate ? <Stated state="stop">{t(GATE_WORDS[gate])}</Stated> : <Stated state="watch">{t('causeSaid')}</Stated>}
    </>
  );
}

export const SightDesk = withWords({ sightDesk: sightDeskWords, lensSigns: lensSignsWords }, SightDeskRows);
