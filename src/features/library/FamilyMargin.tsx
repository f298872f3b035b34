'use client';
import dynamic from 'next/dynamic';
import { useTranslations } from 'use-intl';
import { formatRefraction } from '@/core';
import { formatDay, formatMoment } from '@/i18n/format';
import type { FamilyPage } from '@/services/family/queries';
import { EyeBadge } from '@/ui/marks';
import { useServer } from '../common/ServerProvider';
import { WearerLink } from '../common/WearerLink';

const Ending = dynamic(() => import('./Ending').then((m) => m.Ending));

type Version = FamilyPage['versions'][number];

/** A family's versions, its end, and who wears it. */
export function FamilyMargin({
  page,
  shown,
  mayChange,
  onShow,
}: {
  readonly page: FamilyPage;
  readonly shown: Version;
  readonly mayChange: boolean;
  readonly onShow: (id: string) => void;
}) {
  const t = useTranslations('library');
  return (
    <>
      <h2 className="mb-2">{t('versions')}</h2>
      {page.versions.map((v) => (
        <VersionLine key={v.id} version={v} pressed={v.id === shown.id} inForce={v.id === page.inForce?.id} onShow={onShow} />
      ))}
      <Ending page={page} mayChange={mayChange} />
      <section className="mt-5" data-testid="family-use">
        <h2 className="mb-2">{t('useTitle')}</h2>
        {page.use.length === 0 ? <p>{t('useNone')}</p> : null}
        {page.use.map((u) => (
          <div key={`${u.prescriptionId}${u.eye}`} className="border-t border-rule py-1">
            <WearerLink className="underline" id={u.wearerId} name={u.name} /> <span className="note">{t('bornOn', { day: formatDay(u.birthDate) })}</span>
            <span className="flex gap-2 items-center note">
              <EyeBadge eye={u.eye} /> {formatRefraction({ sphere: u.sphereD, cylinder: u.cylinderD, axis: u.axisDeg })} ·{' '}
              {t('until', { day: formatDay(u.expiresOn) })}
            </span>
          </div>
        ))}
      </section>
    </>
  );
}

function VersionLine({
  version: v,
  pressed,
  inForce,
  onShow,
}: {
  readonly version: Version;
  readonly pressed: boolean;
  readonly inForce: boolean;
  readonly onShow: (id: string) => void;
}) {
  const t = useTranslations('library');
  const { session } = useServer();
  const announced = v.startsOn !== null && v.startsOn > session.today ? v.startsOn : null;
  const moment = formatMoment(v.createdAt, session.practice.timeZone);
  return (
    <div className="border-t border-rule py-2">
      <button type="button" className="btn btn-quiet" aria-pressed={pressed} aria-label={t('showVersion', { version: v.version })} onClick={() => onShow(v.id)}>
        {v.version}
      </button>{' '}
      {inForce ? t('inForce') : announced !== null ? t('announced', { day: formatDay(announced) }) : t('earlier')}
      <span className="block note">{v.createdByName ? t('versionBy', { name: v.createdByName, moment }) : moment}</span>
    </div>
  );
}
