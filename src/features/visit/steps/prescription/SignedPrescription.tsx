'use client';
import Link from 'next/link';
import { Fragment } from 'react';
import { useTranslations } from 'use-intl';
import lastLookWords from '@/i18n/messages/en/lastLook.messages.json';
import { withWords } from '@/i18n/withWords';
import { useWordsOf } from '@/i18n/wordsOf';
import { COPY_WAYS, formatRefraction, type Eye, nameOfAdd } from '@/core';
import { formatDay, formatMoment } from '@/i18n/format';
import type { VisitRecord } from '../../shell/visitData';
import { Segment } from '@/ui/Segment';
import { Spine, SpineHead, SpineRow } from '@/ui/Spine';
import { useEyeWords } from '../../../common/eyeWords';
import { RawFigures } from '../../shell/RawFigures';
import { useVisit } from '../../shell/VisitProvider';

/** A prescription as it was signed: number, days, prescriber, each eye's lens. It is never edited. */
function SignedPrescriptionPart({ signed }: { readonly signed: VisitRecord['prescriptions'][number] }) {
  const t = useTranslations('prescription');
  const purposes = useTranslations('purposes');
  const print = useTranslations('print');
  const look = useTranslations('lastLook');
  const lookOf = useWordsOf('lastLook');
  const eyeWords = useEyeWords();
  const { record, run, busy } = useVisit();
  const zone = record.session.practice.timeZone;
  const signedEye = (e: Eye) => {
    const row = signed.eyes.find((x) => x.eye === e);
    const lens = row?.lensId ? record.lenses[row.lensId] : undefined;
    if (row?.raw) return <RawFigures raw={row.raw} />;
    if (!row || !lens) return <span className="label">{t('notPrescribed')}</span>;
    return (
      <>
        <span className="power-read">{formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg })}</span>
        <span className="label">
          {t('signedLens', {
            maker: lens.maker,
            family: lens.familyName,
            curve: lens.baseCurveMm?.toFixed(1) ?? '',
            diameter: lens.diameterMm?.toFixed(1) ?? '',
          })}
        </span>
        {row.aim ? (
          <span className="label" data-testid={`aim-${e}`}>
            {t('forSight', { aim: eyeWords.aim(row.aim) ?? '' })}
          </span>
        ) : null}
        {lens.addBand ? <span className="label">{nameOfAdd(lens.addBand, (band) => t(`add.${band}`))}</span> : null}
        {row.baseCurveTriedMm !== null && row.baseCurveTriedMm !== row.baseCurveOrderedMm ? (
          <span className="note">{t('triedCurve', { curve: row.baseCurveTriedMm.toFixed(1), diameter: '' })}</span>
        ) : null}
      </>
    );
  };
  return (
    <>
      <Spine label={t('title')}>
        <SpineHead words={eyeWords.heads} label={t('number', { number: signed.number })} />
        <SpineRow
          chosen
          tone="field"
          label={t('prescribed')}
          note={t('version', { number: signed.number })}
          right={signedEye('right')}
          left={signedEye('left')}
        />
      </Spine>
      <dl className="terms" data-testid="signed">
        <dt>{t('copyTerm')}</dt>
        <dd>
          <Segment
            label={t('copyTerm')}
            kind="wrapping"
            values={COPY_WAYS}
            value={signed.copy?.how}
            word={(how) => t(`copyWays.${how}`)}
            disabled={busy || record.visit.closedAt !== null}
            onChoose={(how) => void run('recordCopy', { prescriptionId: signed.id, how }, t('copyKept'))}
          />
          {signed.copy ? <span className="note">{t('copyBy', { time: formatMoment(signed.copy.givenAt, zone), name: signed.copy.givenByName })}</span> : null}
        </dd>
        {signed.expiryReason ? (
          <>
            <dt>{t('expiryReason')}</dt>
            <dd>{signed.expiryReason}</dd>
          </>
        ) : null}
        <dt>{t('asFile')}</dt>
        <dd className="flex gap-4">
          <a className="underline" href={`/api/prescriptions/${signed.id}/fhir`} download>
            {t('asFhir')}
          </a>
          <a className="underline" href={`/api/prescriptions/${signed.id}/csv`} download>
            {t('asCsv')}
          </a>
        </dd>
        <dt>{t('numberTerm')}</dt>
        <dd>{signed.number}</dd>
        <dt>{t('purpose')}</dt>
        <dd>{purposes(signed.purpose)}</dd>
        <dt>{t('examined')}</dt>
        <dd>{formatDay(signed.examinedOn)}</dd>
        <dt>{t('issued')}</dt>
        <dd>{formatMoment(signed.issuedAt, zone)}</dd>
        <dt>{t('expires')}</dt>
        <dd>{formatDay(signed.expiresOn)}</dd>
        <dt>{t('signer')}</dt>
        <dd>{t('signerLine', { name: signed.prescriber.name, title: signed.prescriber.title, register: signed.prescriber.registerNumber })}</dd>
        <dt>{t('practice')}</dt>
        <dd>{t('practiceLine', { practice: signed.prescriber.practice, address: signed.prescriber.address, telephone: signed.prescriber.telephone })}</dd>
        {signed.overrides.map((o) => (
          <Fragment key={`${o.eye ?? 'wearer'}-${o.code}`}>
            <dt>{o.eye ? t('overriddenEye', { eye: eyeWords.short(o.eye) }) : t('overridden')}</dt>
            <dd>
              {lookOf(`c.${o.code}`)}
              {o.cost === null || o.cost < 0.005 ? '' : look('cost', { blur: o.cost.toFixed(2) })} {t('quote', { text: o.reason })}
            </dd>
          </Fragment>
        ))}
        {signed.waitNote ? (
          <>
            <dt>{t('waitNote')}</dt>
            <dd>{t('quote', { text: signed.waitNote })}</dd>
          </>
        ) : null}
      </dl>
      <p className="px-6 pb-4 flex gap-3">
        <Link className="btn btn-plain" href={`/visits/${record.visit.id}/print/prescription`} prefetch={false}>
          {print('printCopy')}
        </Link>
        <a className="btn btn-plain" href={`/api/prescriptions/${signed.id}/copy`} download>
          {print('copyPdf')}
        </a>
        <Link className="btn btn-plain" href={`/visits/${record.visit.id}/print/summary`} prefetch={false}>
          {print('printSummary')}
        </Link>
      </p>
    </>
  );
}

export const SignedPrescription = withWords({ lastLook: lastLookWords }, SignedPrescriptionPart);
