'use client';
import Link from 'next/link';
import { lazy, Suspense } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, inForce, may, provenance, type WearerFile } from '@/core';
import { formatDay, formatMoment } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Stated } from '@/ui/marks';
import { OnceAlive } from '../common/OnceAlive';
import { useServer } from '../common/ServerProvider';
import { Coming } from './Coming';

const Contact = lazy(() => import('./Contact').then((m) => ({ default: m.Contact })));
const IdentityChanges = lazy(() => import('./IdentityChanges').then((m) => ({ default: m.IdentityChanges })));

/** Why it is said what is worn; the prescriptions in force; what was changed of who this is. */
export function WearerMargin({ file, onFiles }: { readonly file: WearerFile; readonly onFiles: () => void }) {
  const t = useTranslations('wearer');
  const purposes = useTranslations('purposes');
  const { session } = useServer();
  const prescription = file.prescriptions[0] ?? null;
  const worn = EYES.some((e) => provenance(file, e).worn !== null);
  return (
    <>
      {file.erasure === null ? null : (
        <p className="mb-5">
          <Stated state="watch">{t('erased', { day: formatDay(file.erasure.erasedAt.slice(0, 10)), until: formatDay(file.erasure.keptUntil) })}</Stated>
        </p>
      )}
      {file.stoppedSince === null ? null : (
        <p className="mb-5">
          <Stated state="stop">{t('stopped', { time: formatMoment(file.stoppedSince, session.practice.timeZone) })}</Stated>
        </p>
      )}
      {file.alertSince === null ? null : (
        <p className="mb-5">
          <Stated state="stop">{t('alerted', { time: formatMoment(file.alertSince, session.practice.timeZone) })}</Stated>
        </p>
      )}
      <Coming file={file} />
      {may(session.viewer.roles, 'wearers') && file.erasure === null ? (
        <OnceAlive>
          <Contact wearer={file.wearer} contact={file.contact} />
        </OnceAlive>
      ) : null}
      <h2 className="mb-2">{t('why')}</h2>
      <p className="mb-5">{worn ? t('whyWorn') : t('whyNothing')}</p>
      <h2 className="mb-2">{t('prescription')}</h2>
      {prescription ? (
        <>
          <p>{t('prescriptionLine', { number: prescription.number, name: prescription.prescriber.name })}</p>
          <p className="mb-2">{t('prescriptionDays', { issued: formatDay(prescription.issuedOn), expires: formatDay(prescription.expiresOn) })}</p>
          {prescription.expiresOn < session.today ? <Stated state="stop">{t('expired')}</Stated> : null}
          {inForce(file.prescriptions)
            .slice(1)
            .map((p) => (
              <p key={p.id}>{t('prescriptionPurpose', { number: p.number, purpose: purposes(p.purpose), expires: formatDay(p.expiresOn) })}</p>
            ))}
          {file.prescriptionCount > 1 ? <p className="label">{t('before', { count: file.prescriptionCount - 1 })}</p> : null}
        </>
      ) : (
        <p className="label">{t('noPrescription')}</p>
      )}
      {may(session.viewer.roles, 'clinicalRead') ? (
        <p className="mt-2 mb-5">
          <Button look="quiet" onClick={onFiles}>
            {t('files')}
          </Button>
          <br />
          <Link className="btn btn-quiet" href={`/wearers/${file.wearer.id}/file`} prefetch={false}>
            {t('file')}
          </Link>
        </p>
      ) : null}
      <Suspense fallback={null}>
        <IdentityChanges changes={file.identityChanges} zone={session.practice.timeZone} />
      </Suspense>
    </>
  );
}
