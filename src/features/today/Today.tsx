'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import { may } from '@/core';
import { formatDay, formatRecord, formatTime, formatWeekday } from '@/i18n/format';
import type { TodayRow } from '@/db/appointment';
import type { Problem } from '@/lib/outcome';
import { Button } from '@/ui/Button';
import { ProblemLine } from '@/ui/Field';
import { Frame } from '@/ui/Frame';
import { Stated } from '@/ui/marks';
import { useNow, WallClock } from '../common/Clock';
import { useNews } from '../common/news';
import { useServer } from '../common/ServerProvider';
import { Rail } from '../common/Rail';
import { WearerLink } from '../common/WearerLink';
import { useRefusalWords } from '../common/words';
import todayWords from '@/i18n/messages/en/today.messages.json';
import { withWords } from '@/i18n/withWords';

/** While people work the list is read anew no more often than this, ms. */
const ANEW_MS = 10_000;

/** The day's list as it is: what others open and close is shown as it happens. */
function useRows(first: readonly TodayRow[]): readonly TodayRow[] {
  const { poll } = useServer();
  const [rows, setRows] = useState(first);
  const due = useRef<ReturnType<typeof setTimeout> | null>(null);
  // The ear opens after the page is there: that alone is no reason to read the list again.
  const fresh = useRef(true);
  useNews((what) => {
    if (what === 'look' && fresh.current) {
      fresh.current = false;
      return;
    }
    if ((what !== 'look' && what.what !== 'visit') || due.current !== null) return;
    due.current = setTimeout(
      () => {
        due.current = null;
        void poll('readToday', {}).then((read) => (read?.ok ? setRows(read.value.rows) : undefined));
      },
      what === 'look' ? 0 : ANEW_MS,
    );
  });
  useEffect(() => () => (due.current === null ? undefined : clearTimeout(due.current)), []);
  return rows;
}

/** The day's list: who, when, where, and the way into each fit. */
function TodayPage({ rows: first }: { readonly rows: readonly TodayRow[] }) {
  const t = useTranslations('today');
  const frame = useTranslations('frame');
  const refusal = useRefusalWords();
  const router = useRouter();
  const { command, session } = useServer();
  const moment = useNow(30_000);
  const rows = useRows(first);
  const [problem, setProblem] = useState<Problem | null>(null);
  const mayOpen = may(session.viewer.roles, 'clinicalWrite');
  const mayRead = may(session.viewer.roles, 'clinicalRead');
  const zone = session.practice.timeZone;
  const open = async (row: TodayRow): Promise<void> => {
    const done = await command('openVisit', { wearerId: row.wearerId, kind: row.kind, appointmentId: row.appointmentId });
    if (done?.ok) router.push(`/visits/${done.value.visitId}/history`);
    else if (done) setProblem(done.error);
  };
  const next = rows.find((row) => row.visitOpen) ?? rows.find((row) => row.visitId === null && row.state === 'booked');
  return (
    <Frame
      rail={<Rail place="today" />}
      strip={
        <>
          <div className="px-6 py-2 flex flex-col justify-center">
            <h1 className="power">{formatWeekday(new Date(moment).toISOString(), zone)}</h1>
            <div className="label">{t('place', { practice: session.practice.name, town: session.practice.town })}</div>
          </div>
          <div className="strip-cell drop-narrow">
            <div className="label">{t('signedIn')}</div>
            <div>{session.viewer.name}</div>
          </div>
          <WallClock />
        </>
      }
      marginWords={{ open: frame('marginOpen'), close: frame('marginClose'), label: frame('margin') }}
      bar={<Button onClick={() => router.push('/wearers')}>{t('allWearers')}</Button>}
    >
      {problem ? (
        <div className="px-6 pt-3">
          <ProblemLine>{refusal(problem)}</ProblemLine>
        </div>
      ) : null}
      {rows.length === 0 ? (
        <div className="p-8 max-w-[560px]">
          <h2 className="power mb-2">{t('emptyTitle')}</h2>
          <p>{t('emptyText')}</p>
        </div>
      ) : (
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
              <tr key={row.appointmentId ?? row.wearerId} data-testid={`today-${row.recordNumber}`}>
                <td className="value">{formatTime(row.startsAt, zone)}</td>
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
                  {row.visitOpen ? (
                    <Stated state="watch">{t('openNow')}</Stated>
                  ) : row.visitId ? (
                    <Stated state="ok">{t('closed')}</Stated>
                  ) : (
                    <span className="label">{t('booked')}</span>
                  )}
                </td>
                <td className="text-right">
                  {row.visitId && mayRead ? (
                    <Button look={row === next ? 'act' : 'plain'} onClick={() => router.push(`/visits/${row.visitId}/history`)}>
                      {row.visitOpen ? t('goOn') : t('look')}
                    </Button>
                  ) : mayOpen && row.visitId === null ? (
                    <Button look={row === next ? 'act' : 'plain'} onClick={() => void open(row)}>
                      {t('begin')}
                    </Button>
                  ) : null}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Frame>
  );
}

export const Today = withWords({ today: todayWords }, TodayPage);
