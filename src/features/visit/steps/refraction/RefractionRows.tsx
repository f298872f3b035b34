'use client';
import { useTranslations } from 'use-intl';
import { formatPower, formatRefraction, linesLost, powerOf, toCornealPlane, type Eye } from '@/core';
import { formatDay, formatTime } from '@/i18n/format';
import { SpineRow } from '@/ui/Spine';
import { Figure } from '../../../common/Working';
import { Correctable, CorrectablePower, SwapEyes } from '../../shell/Correct';
import { useVisit } from '../../shell/VisitProvider';
import { asSphere, thumbOf } from './model';
import type { Powers } from './useRefraction';

const both = (make: (eye: Eye) => React.ReactNode) => ({ right: make('right'), left: make('left') });

/** What the typed powers come to at the cornea, and as a sphere alone. */
export function CornealRows({ powers }: { readonly powers: Powers }) {
  const t = useTranslations('refraction');
  return (
    <>
      <SpineRow label={t('cornea')} note={t('corneaNote')} {...both((e) => <Corneal powers={powers} eye={e} />)} />
      <SpineRow label={t('asSphere')} note={t('asSphereNote')} {...both((e) => <SphereOnly powers={powers} eye={e} />)} />
    </>
  );
}

/** What is on record today and from earlier visits. */
export function RecordedRows({ powers }: { readonly powers: Powers }) {
  const t = useTranslations('refraction');
  const { record, eye } = useVisit();
  const swap = eye('right').refraction && eye('left').refraction ? <SwapEyes kind="refraction" /> : undefined;
  return (
    <>
      <SpineRow label={t('recordedRow')} note={swap} {...both((e) => <Recorded eye={e} />)} />
      {record.earlierRefractions.length > 0 ? <SpineRow label={t('earlier')} {...both((e) => <Earlier powers={powers} eye={e} />)} /> : null}
    </>
  );
}

function Corneal({ powers, eye }: { readonly powers: Powers; readonly eye: Eye }) {
  const t = useTranslations('refraction');
  const { settings } = useVisit().record.session;
  const s = powers.shown(eye);
  if (!s) return <span className="label">{powers.textOf(eye).trim() === '' ? t('nothingYet') : t('notReadable')}</span>;
  const thumb = thumbOf(s.power);
  return (
    <>
      <Figure id={`corneal-${eye}`}>
        <span className="power-read" data-testid={`corneal-${eye}`}>
          {formatRefraction(toCornealPlane(s.power, s.vertexMm), { notation: settings.notation })}
        </span>
      </Figure>
      {thumb ? (
        <span className="note" title={t('thumbWhy')} data-testid={`thumb-${eye}`}>
          {t('thumb', { power: formatRefraction(thumb, { notation: settings.notation }) })}
        </span>
      ) : null}
    </>
  );
}

function SphereOnly({ powers, eye }: { readonly powers: Powers; readonly eye: Eye }) {
  const t = useTranslations('refraction');
  const need = powers.needs[eye];
  if (!need) return <span />;
  const alone = asSphere(need);
  return (
    <>
      <span className="power" data-testid={`sphere-${eye}`}>
        {formatPower(alone.sphere)}
      </span>
      <span className="note">
        {alone.cylinder < 0.005
          ? t('leavesNothing')
          : t('leaves', { cylinder: alone.cylinder.toFixed(2), blur: alone.blur.toFixed(2), lines: linesLost(alone.blur).toFixed(1) })}
      </span>
    </>
  );
}

function Recorded({ eye }: { readonly eye: Eye }) {
  const t = useTranslations('refraction');
  const { record, eye: stateOf } = useVisit();
  const { settings, practice } = record.session;
  const fact = stateOf(eye).refraction;
  const gone = record.facts.refractions.filter((c) => c.rows[0]?.eye === eye && (c.current === null || c.rootId !== fact?.rootId));
  return (
    <>
      {fact ? (
        <>
          <span className="power" data-testid={`recorded-${eye}`}>
            {formatRefraction(powerOf(fact.current), { notation: settings.notation })}
          </span>
          <span className="note">
            {t('recordedBy', {
              name: fact.current.recordedByName,
              time: formatTime(fact.current.recordedAt, practice.timeZone),
              vertex: fact.current.vertexMm,
            })}
          </span>
          <CorrectablePower kind="refraction" chain={fact} />
        </>
      ) : (
        <span className="label">{t('notRecorded')}</span>
      )}
      {gone.map((chain) => (
        <span key={chain.rootId} className="note">
          {chain.current ? (
            t('earlierToday', { power: formatRefraction(powerOf(chain.current)), time: formatTime(chain.current.recordedAt, practice.timeZone) })
          ) : (
            <Correctable kind="refraction" chain={chain} show={(row) => formatRefraction(powerOf(row))} />
          )}
        </span>
      ))}
    </>
  );
}

function Earlier({ powers, eye }: { readonly powers: Powers; readonly eye: Eye }) {
  const t = useTranslations('refraction');
  const { record } = useVisit();
  const before = record.earlierRefractions.find((r) => r.eye === eye);
  if (!before) return <span className="label">{t('noEarlier')}</span>;
  const text = formatRefraction(powerOf(before));
  return (
    <>
      <span className="value">{text}</span>
      <button type="button" className="btn btn-quiet" onClick={() => powers.draft.set(eye, text)}>
        {t('useEarlier', { day: formatDay(before.observedAt.slice(0, 10)) })}
      </button>
    </>
  );
}
