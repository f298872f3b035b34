'use client';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import { dayIn, type WearerFile } from '@/core';
import { formatDay, formatMoment } from '@/i18n/format';
import { useServer } from '../common/ServerProvider';

/** What is booked for a wearer, and what is still to be done. */
export function Coming({ file }: { readonly file: WearerFile }) {
  const t = useTranslations('wearer');
  const kinds = useTranslations('today.kind');
  const { session } = useServer();
  const zone = session.practice.timeZone;
  const booked = file.appointments.filter((a) => a.state === 'booked');
  return (
    <>
      <h2 className="mb-2">{t('booked')}</h2>
      {booked.length === 0 ? <p className="label mb-5">{t('nothingBooked')}</p> : null}
      <ul className={booked.length > 0 ? 'mb-5' : ''} data-testid="booked">
        {booked.map((a) => (
          <li key={a.appointmentId} className="py-1">
            <Link href={`/diary?day=${dayIn(a.startsAt, zone)}`} prefetch={false} className="underline">
              {formatMoment(a.startsAt, zone)}
            </Link>
            <div className="label">{[kinds(a.kind), a.room, a.staff].filter(Boolean).join(' · ')}</div>
          </li>
        ))}
      </ul>
      {file.tasks.length > 0 ? (
        <>
          <h2 className="mb-2">{t('tasks')}</h2>
          <ul className="mb-5">
            {file.tasks.map((task) => (
              <li key={task.id} className="py-1">
                {task.text ?? t('missedAppointment')}
                <div className="label">{formatDay(task.dueOn)}</div>
              </li>
            ))}
          </ul>
        </>
      ) : null}
    </>
  );
}
