'use client';
import { useTranslations } from 'use-intl';
import { formatMoment } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Stated } from '@/ui/marks';
import type { ServiceOutput } from '../common/server';
import { useServer } from '../common/ServerProvider';

export type Person = ServiceOutput<'readStaff'>['staff'][number];

/** Who works here, what they may do, and what may be done about them. */
export function StaffTable({
  staff,
  onAct,
}: {
  readonly staff: readonly Person[];
  readonly onAct: (kind: 'change' | 'end' | 'password', who: Person) => void;
}) {
  const t = useTranslations('staff');
  const { session } = useServer();
  return (
    <table className="ledger">
      <thead>
        <tr>
          <th>{t('name')}</th>
          <th>{t('account')}</th>
          <th>{t('roles')}</th>
          <th>{t('state')}</th>
          <th>
            <span className="sr-only">{t('actions')}</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {staff.map((person) => (
          <tr key={person.personId}>
            <td>
              <span className="value">{person.displayName}</span>
              <div className="label">{[person.title, person.registerNumber, person.address].filter(Boolean).join(' · ')}</div>
            </td>
            <td className="font-mono">{person.account}</td>
            <td>{person.roles.map((r) => t(`role.${r}`)).join(', ')}</td>
            <td>
              {person.endedAt ? (
                <Stated state="stop">{t('ended', { time: formatMoment(person.endedAt, session.practice.timeZone) })}</Stated>
              ) : (
                <Stated state="ok">{t('works')}</Stated>
              )}
            </td>
            <td className="text-right">
              {person.endedAt ? null : (
                <span className="flex gap-3 justify-end">
                  <Button look="quiet" onClick={() => onAct('change', person)}>
                    {t('change')}
                  </Button>
                  <Button look="quiet" onClick={() => onAct('password', person)}>
                    {t('newPassword')}
                  </Button>
                  {person.personId === session.viewer.personId ? null : (
                    <Button look="quiet" onClick={() => onAct('end', person)}>
                      {t('end')}
                    </Button>
                  )}
                </span>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
