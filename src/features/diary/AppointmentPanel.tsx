'use client';
import { useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import { may } from '@/core';
import { formatDay, formatMoment, formatRecord, formatTime } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Panel } from '@/ui/Panel';
import type { ServiceOutput } from '../common/server';
import { useServer } from '../common/ServerProvider';
import { WearerLink } from '../common/WearerLink';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';
import { mayBeDespite } from './place';
import type { Row } from './strip';
import { useDiaryCommand } from './useDiaryCommand';

type Events = ServiceOutput<'readAppointment'>;

/** One appointment: what may be done about it now, and all that happened to it. */
export function AppointmentPanel({
  row,
  onMove,
  onDone,
  onClose,
}: {
  readonly row: Row;
  readonly onMove: () => void;
  readonly onDone: () => void;
  readonly onClose: () => void;
}) {
  const t = useTranslations('diary');
  const kinds = useTranslations('today.kind');
  const { session } = useServer();
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { send, problem, busy } = useDiaryCommand(onDone);
  const [late, setLate] = useState('');
  const [despite, setDespite] = useState('');
  const zone = session.practice.timeZone;
  const mayChange = may(session.viewer.roles, 'wearers');
  const of = { appointmentId: row.appointmentId, version: row.version };
  const does = (done: Promise<boolean>): void => void done.then((ok) => (ok ? onClose() : undefined));
  const mark = (as: 'arrived' | 'missed' | 'cancelled') => () => does(send('markAppointment', { ...of, as }));
  const booked = row.state === 'booked';
  const taken = problem?.kind === 'invalid' && mayBeDespite(problem);
  const lateProblem = problemAt(problem, 'minutes');
  return (
    <Panel open onClose={onClose} title={row.name}>
      <p className="label">{t('bornRecord', { day: formatDay(row.birthDate), record: formatRecord(row.recordNumber) })}</p>
      <p className="value">
        {t('panelWhat', { kind: kinds(row.kind), time: formatTime(row.startsAt, zone), minutes: row.chairMinutes, staff: row.staffMinutes })}
      </p>
      <p>{[row.room, row.staff, row.telephone].filter(Boolean).join(' · ')}</p>
      {row.note ? <p>{t('quoted', { text: row.note })}</p> : null}
      <p className="py-2">
        <WearerLink id={row.wearerId} name={t('toRecord')} className="underline" />
      </p>
      {mayChange ? (
        <>
          <div className="flex flex-wrap gap-2 py-2">
            {booked ? (
              <Button look="act" disabled={busy} onClick={mark('arrived')}>
                {t('arrived')}
              </Button>
            ) : null}
            {row.state !== 'arrived' && row.state !== 'done' ? <Button onClick={onMove}>{t('moveDo')}</Button> : null}
            {booked ? (
              <>
                <Button disabled={busy} onClick={mark('missed')}>
                  {t('missed')}
                </Button>
                <Button disabled={busy} onClick={mark('cancelled')}>
                  {t('cancelled')}
                </Button>
              </>
            ) : null}
            {row.state !== 'done' && !row.visitOpen ? (
              <Button disabled={busy} onClick={() => does(send('undoAppointment', { ...of, despite }))}>
                {t(taken ? 'undoAnyway' : 'undo')}
              </Button>
            ) : null}
          </div>
          {taken ? (
            <>
              {problem.fields.map((field) => (
                <ProblemLine key={field.code}>{words(field.code, field.data)}</ProblemLine>
              ))}
              <Field label={t('despite')} value={despite} onValue={setDespite} hint={t('despiteHint')} autoComplete="off" />
            </>
          ) : null}
          {booked ? (
            <form
              className="flex gap-3 items-end"
              onSubmit={(event) => {
                event.preventDefault();
                does(send('sayLate', { ...of, minutes: /^\d{1,3}$/.test(late.trim()) ? Number(late.trim()) : -1 }));
              }}
            >
              <Field
                className="w-44"
                label={t('late')}
                value={late}
                onValue={setLate}
                inputMode="numeric"
                mono
                problem={lateProblem ? words(lateProblem.code, lateProblem.data) : null}
                hint={t('lateHint')}
              />
              <Button type="submit" disabled={busy || late.trim() === ''} className="mb-[20px]">
                {t('lateDo')}
              </Button>
            </form>
          ) : null}
        </>
      ) : null}
      {problem && problem.kind !== 'invalid' ? <ProblemLine>{problem.kind === 'conflict' ? t('changed') : refusal(problem)}</ProblemLine> : null}
      <Story appointmentId={row.appointmentId} version={row.version} />
      <div className="flex justify-end mt-3">
        <Button onClick={onClose}>{t('close')}</Button>
      </div>
    </Panel>
  );
}

function Story({ appointmentId, version }: { readonly appointmentId: string; readonly version: number }) {
  const t = useTranslations('diary');
  const { query, session } = useServer();
  const [events, setEvents] = useState<Events>([]);
  useEffect(() => {
    void query('readAppointment', { appointmentId }).then((read) => {
      if (read?.ok) setEvents(read.value);
    });
  }, [query, appointmentId, version]);
  const zone = session.practice.timeZone;
  return (
    <section className="mt-3">
      <h3 className="label">{t('story')}</h3>
      <ul className="max-h-[170px] overflow-auto" data-testid="appointment-story">
        {events.map((event, i) => (
          <li key={i} className="flex flex-wrap gap-3 border-t border-rule py-1">
            <span>
              {t(`events.${event.kind}`, { time: formatMoment(event.startsAt, zone), minutes: event.lateMinutes })}
              {event.reason ? t('because', { reason: event.reason }) : null}
            </span>
            <span className="note ml-auto">{[event.byName, formatMoment(event.at, zone)].filter(Boolean).join(', ')}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
