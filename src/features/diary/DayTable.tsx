'use client';
import { useRouter } from 'next/navigation';
import { useTranslations } from 'use-intl';
import { dayIn, firstStep, may, mayOpenVisit, standingOf, stepSlug } from '@/core';
import { formatDay, formatRecord, formatTime } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Stated } from '@/ui/marks';
import { useServer } from '../common/ServerProvider';
import { WearerLink } from '../common/WearerLink';
import type { Row } from './strip';

/** The day's appointments as a list: who, when, where, how it stands, and the way into each visit. */
export function DayTable({
  rows,
  now,
  next,
  onBegin,
  onOpen,
}: {
  readonly rows: readonly Row[];
  readonly now: number;
  /** The appointment whose action is the next one. */
  readonly next: string | null;
  readonly onBegin: (row: Row) => void;
  readonly onOpen: (row: Row) => void;
}) {
  const t = useTranslations('today');
  const { session } = useServer();
  return (
    <table className="ledger mx-6 my-4 w-[calc(100%-48px)]!">
      <thead>
        <tr>
          <th>{t('time')}</th>
          <th>{t('wearer')}</th>
          <th>{t('visit')}</th>
          <th className="drop-narrow">{t('where')}</th>
          <th>{t('state')}</th>
          <th>
            <span className="sr-only">{t('next')}</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.appointmentId} data-testid={`today-${row.recordNumber}`}>
            <td className="value">{formatTime(row.startsAt, session.practice.timeZone)}</td>
            <td>
              <WearerLink id={row.wearerId} name={row.name} />
              <div className="label">{t('bornRecord', { day: formatDay(row.birthDate), record: formatRecord(row.recordNumber) })}</div>
            </td>
            <td>{t(`kind.${row.kind}`)}</td>
            <td className="drop-narrow">
              {row.room}
              <div className="label">{row.staff}</div>
            </td>
            <td>
              <StandingWords row={row} now={now} />
            </td>
            <td className="text-right whitespace-nowrap">
              <RowActions row={row} isNext={row.appointmentId === next} onBegin={onBegin} onOpen={onOpen} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** How an appointment stands, in words. */
function StandingWords({ row, now }: { readonly row: Row; readonly now: number }) {
  const t = useTranslations('today');
  if (row.visitOpen) return <Stated state="watch">{t('openNow')}</Stated>;
  if (row.visitId !== null) return <Stated state="ok">{t('closed')}</Stated>;
  const standing = standingOf(row, now);
  switch (standing.kind) {
    case 'late':
    case 'overdue':
      return <Stated state="watch">{t('lateBy', { hours: Math.floor(standing.byMinutes / 60), minutes: standing.byMinutes % 60 })}</Stated>;
    case 'arrived':
      return <Stated state="ok">{t('arrived')}</Stated>;
    case 'done':
      return <Stated state="ok">{t('closed')}</Stated>;
    case 'missed':
      return <Stated state="stop">{t('missed')}</Stated>;
    case 'cancelled':
      return <span className="label">{t('cancelled')}</span>;
    case 'booked':
      return <span className="label">{row.lateMinutes > 0 ? t('saidLate', { minutes: row.lateMinutes }) : t('booked')}</span>;
  }
}

function RowActions({
  row,
  isNext,
  onBegin,
  onOpen,
}: {
  readonly row: Row;
  readonly isNext: boolean;
  readonly onBegin: (row: Row) => void;
  readonly onOpen: (row: Row) => void;
}) {
  const t = useTranslations('today');
  const router = useRouter();
  const { session } = useServer();
  const { roles } = session.viewer;
  const takesPlace = row.state !== 'cancelled' && row.state !== 'missed';
  // A visit begins on its day: who comes earlier is moved to today first.
  const later = dayIn(row.startsAt, session.practice.timeZone) > session.today;
  return (
    <>
      {may(roles, 'wearers') ? (
        <button type="button" className="btn btn-quiet mr-3" aria-label={t('changeOne', { name: row.name })} onClick={() => onOpen(row)}>
          {t('change')}
        </button>
      ) : null}
      {row.visitId && may(roles, 'clinicalRead') ? (
        <Button look={isNext ? 'act' : 'plain'} onClick={() => router.push(`/visits/${row.visitId}/${stepSlug(firstStep(row.kind))}`)}>
          {row.visitOpen ? t('goOn') : t('look')}
        </Button>
      ) : row.visitId === null && takesPlace && !later && mayOpenVisit(roles, row.kind) ? (
        <Button look={isNext ? 'act' : 'plain'} onClick={() => onBegin(row)}>
          {t('begin')}
        </Button>
      ) : null}
    </>
  );
}
