'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, openEvent, RETURN_NEEDS, returnMissing, type Eye, type ReturnNeed } from '@/core';
import { formatDay } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { ProblemLine } from '@/ui/Field';
import { EyeBadge, Stated } from '@/ui/marks';
import { problemAt, useProblemWords } from '../../../common/words';
import { powerWords } from '../../shell/worn';
import { useVisit } from '../../shell/VisitProvider';
import { EventPanel } from './EventPanel';
import type { AftercarePage } from './useAftercare';

interface Of {
  readonly page: AftercarePage;
}

/** What went wrong with either eye, with its lens and lot; and the way back into lenses. */
export function Events({ page }: Of) {
  const t = useTranslations('aftercare');
  const { record } = useVisit();
  const [recording, setRecording] = useState(false);
  const { adverseEvents, returns } = record.health;
  const events = adverseEvents.flatMap((c) => (c.current ? [c.current] : []));
  return (
    <section className="px-6 py-3 border-t border-rule flex flex-col gap-2" aria-label={t('events')}>
      <div className="flex gap-4 items-baseline flex-wrap">
        <h2>{t('events')}</h2>
        {page.closed ? null : (
          <Button look="quiet" onClick={() => setRecording(true)}>
            {t('record')}
          </Button>
        )}
      </div>
      <ul className="flex flex-col gap-2" data-testid="adverse-events">
        {events.map((event) => {
          const back = returns.find((r) => r.current?.adverseEventId === event.rootId)?.current;
          const lens = event.lensId === null ? '' : `${record.lenses[event.lensId]?.familyName ?? ''} ${powerWords(record, event.lensId)}`.trim();
          return (
            <li key={event.rootId} className="flex gap-2 items-baseline flex-wrap">
              <EyeBadge eye={event.eye} />
              <span className="value">{t('eventLine', { event: t(`event.${event.event}`), day: formatDay(event.beganOn) })}</span>
              <span className="note">{lens === '' ? t('eventNoLens') : t('eventLens', { lens, lot: event.lot ?? '' })}</span>
              {back ? <Stated state="ok">{t('returned', { day: formatDay(back.recordedAt.slice(0, 10)) })}</Stated> : null}
              {event.lensesOff && !back ? <Stated state="stop">{t('offSince')}</Stated> : null}
            </li>
          );
        })}
      </ul>
      {EYES.map((eye) => (openEvent(adverseEvents, returns, eye) && !page.closed ? <Back key={eye} page={page} eye={eye} /> : null))}
      {recording ? <EventPanel page={page} onClose={() => setRecording(false)} /> : null}
    </section>
  );
}

/** The six things that it takes before an eye goes back into lenses: what the record knows, and three that are asked. */
function Back({ page, eye }: Of & { readonly eye: Eye }) {
  const t = useTranslations('aftercare');
  const words = useProblemWords();
  const { record, busy, problem, run } = useVisit();
  const fault = RETURN_NEEDS.map((need) => problemAt(problem, need)).find((f) => f !== null && f !== undefined);
  const [asked, setAsked] = useState({ dropsOff: false, newLens: false, newCase: false });
  const event = openEvent(record.health.adverseEvents, record.health.returns, eye);
  const missing = returnMissing({
    ...asked,
    stopped: page.visit.health.absolute.length > 0,
    staining: page.visit.health.today[eye].staining,
    // Whether anything is booked is known by the server, and said when it is refused.
    seenOn: null,
    today: record.session.today,
  }).filter((need) => need !== 'aftercareBooked');
  const mayDecide = record.session.viewer.roles.includes('prescriber');
  const isAsked = (need: ReturnNeed): need is keyof typeof asked => need in asked;
  return (
    <div role="group" aria-label={t('back')} className="border border-rule rounded p-3 flex flex-col gap-2" data-testid={`back-${eye}`}>
      <h3 className="flex gap-2 items-center">
        <EyeBadge eye={eye} /> {t('back')}
      </h3>
      <p>{t('backText')}</p>
      <ul className="flex flex-col gap-1">
        {RETURN_NEEDS.map((need) => (
          <li key={need}>
            {isAsked(need) ? (
              <label className="flex gap-2 items-center min-h-11">
                <input type="checkbox" className="size-5" checked={asked[need]} onChange={(e) => setAsked({ ...asked, [need]: e.target.checked })} />
                {t(`needs.${need}`)}
              </label>
            ) : need === 'aftercareBooked' ? (
              <span>{t(`needs.${need}`)}</span>
            ) : (
              <Stated state={missing.includes(need) ? 'stop' : 'ok'}>{t(`needs.${need}`)}</Stated>
            )}
          </li>
        ))}
      </ul>
      {fault ? <ProblemLine>{words(fault.code, fault.data)}</ProblemLine> : null}
      {mayDecide ? (
        <Button
          look="act"
          className="self-start"
          disabled={busy || missing.length > 0 || !event}
          onClick={() => void run('returnToWear', { eye, adverseEventId: event?.rootId ?? '', ...asked }, t('backDone'))}
        >
          {t('backDo')}
        </Button>
      ) : (
        <p className="note">{t('backOnly')}</p>
      )}
    </div>
  );
}
