'use client';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import { may } from '@/core';
import { formatDay, formatMoment, formatRecord } from '@/i18n/format';
import type { WearersFound } from '@/services/wearer/queries';
import { Stated } from '@/ui/marks';
import { useServer } from '../common/ServerProvider';
import { WearerLink } from '../common/WearerLink';

/** Wearers, each with the last visit and whether one is under way. */
export function WearerTable({ wearers }: { readonly wearers: WearersFound['wearers'] }) {
  const t = useTranslations('wearers');
  const { session } = useServer();
  const { timeZone } = session.practice;
  const mayRead = may(session.viewer.roles, 'clinicalRead');
  return (
    <table className="ledger">
      <thead>
        <tr>
          <th>{t('record')}</th>
          <th>{t('name')}</th>
          <th>{t('birth')}</th>
          <th className="drop-narrow">{t('last')}</th>
          <th>{t('state')}</th>
        </tr>
      </thead>
      <tbody>
        {wearers.map((row) => (
          <tr key={row.id}>
            <td className="font-mono">{formatRecord(row.recordNumber)}</td>
            <td>
              <WearerLink id={row.id} name={row.name} />
              <div className="label">{row.occupation}</div>
            </td>
            <td>{formatDay(row.birthDate)}</td>
            <td className="drop-narrow">{row.lastVisitAt ? formatMoment(row.lastVisitAt, timeZone) : t('never')}</td>
            <td>
              {row.openVisitId && mayRead ? (
                <Link href={`/visits/${row.openVisitId}/history`} prefetch={false}>
                  <Stated state="watch">{t('open')}</Stated>
                </Link>
              ) : null}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
