'use client';
import { useTranslations } from 'use-intl';
import { dueAt, withoutOverlap, type Due } from '@/core';
import { formatTime } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { StateMark } from '@/ui/marks';
import { useServer } from '../common/ServerProvider';
import type { Row } from './strip';

/** Heights of the first item, which holds the next action, and of the others, px; and how many are shown. */
const FIRST_PX = 116;
const OTHER_PX = 46;
const SHOWN = 9;
/** Waits that are written beside the ruler, minutes. */
const TICKS = [5, 10, 20, 45, 120, 240, 480];

/** What is due next, on a ruler whose distance grows with the logarithm of the wait. */
export function DueRuler({ due, busy, onAct }: { readonly due: readonly Due<Row>[]; readonly busy: boolean; readonly onAct: (due: Due<Row>) => void }) {
  const t = useTranslations('diary');
  const { session } = useServer();
  const zone = session.practice.timeZone;
  const shown = due.slice(0, SHOWN);
  const places = withoutOverlap(
    shown.map((d) => dueAt(d.inMinutes)),
    shown.map((_, i) => (i === 0 ? FIRST_PX : OTHER_PX)),
  );
  const last = places.at(-1) ?? 0;
  const [first] = shown;
  return (
    <>
      <h2 className="flex justify-between items-baseline mb-2">
        {t('dueNext')} <span className="note font-[420]">{t('dueLine')}</span>
      </h2>
      {first ? (
        <div className="due-ruler" style={{ height: last + OTHER_PX + FIRST_PX / 2 }} data-testid="due-ruler">
          {TICKS.filter((minutes) => dueAt(minutes) <= last + OTHER_PX).map((minutes) => (
            <span key={minutes} className="due-tick" style={{ top: dueAt(minutes) }} aria-hidden="true">
              {minutes < 60 ? minutes : t('hours', { hours: minutes / 60 })}
            </span>
          ))}
          <ol>
            {shown.map((d, i) => (
              <li key={d.row.appointmentId} className={i === 0 ? 'due-first' : 'due-item'} style={{ top: places[i] }}>
                <strong>{d.row.name}</strong>
                <div className="note truncate">
                  {d.act === 'call' ? <StateMark state="watch" size={12} /> : null}{' '}
                  {[t(`due.${d.act}`, { time: formatTime(d.row.startsAt, zone) }), d.row.room].filter(Boolean).join(' · ')}
                </div>
                {i === 0 ? (
                  <Button look="act" className="mt-2" disabled={busy} onClick={() => onAct(d)}>
                    {t(`dueDo.${d.act}`)}
                  </Button>
                ) : null}
              </li>
            ))}
          </ol>
        </div>
      ) : (
        <p className="label">{t('nothingDue')}</p>
      )}
      {due.length > SHOWN ? <p className="label pt-2">{t('dueMore', { count: due.length - SHOWN })}</p> : null}
    </>
  );
}
