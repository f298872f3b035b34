'use client';
import { useTranslations } from 'use-intl';
import { dayIn, timelineOf, UNDONE, type TimelineEntry } from '@/core';
import { formatDay, formatTime } from '@/i18n/format';
import { EyeBadge } from '@/ui/marks';

const ALL = timelineOf('all');
/** Of one moment: what closes a visit stands above what was done in it, what begins it below; the right eye above the left. */
const placeOf = ({ what, eye }: TimelineEntry): number =>
  (what === 'visitClosed' ? 1000 : what === 'visitOpened' || what === 'appointment' ? -1000 : -ALL.indexOf(what)) + (eye === 'left' ? -0.5 : 0);

/** Lines by day, newest first: when, what, of which eye, what it says, and who. */
export function Timeline({
  entries,
  says,
  zone,
}: {
  readonly entries: readonly TimelineEntry[];
  readonly says: (entry: TimelineEntry) => string;
  readonly zone: string;
}) {
  const t = useTranslations('file');
  const inOrder = [...entries].sort((a, b) => b.at.localeCompare(a.at) || placeOf(b) - placeOf(a));
  const days = [...new Set(entries.map((e) => dayIn(e.at, zone)))];
  return (
    <>
      {days.map((day) => (
        <section key={day} className="px-6 pt-3" aria-label={formatDay(day)}>
          <h3 className="border-b border-rule-2 pb-1">{formatDay(day)}</h3>
          <ul>
            {inOrder
              .filter((e) => dayIn(e.at, zone) === day)
              .map((entry) => (
                <li
                  key={`${entry.what} ${entry.id}`}
                  className="grid grid-cols-[52px_28px_190px_1fr_max-content] gap-3 items-baseline border-b border-rule py-1"
                >
                  <span className="note">{formatTime(entry.at, zone)}</span>
                  <span>{entry.eye ? <EyeBadge eye={entry.eye} /> : null}</span>
                  <span className="label">{t(`what.${entry.what}`)}</span>
                  <span>
                    {says(entry)}{' '}
                    {entry.reason === null ? null : (
                      <span className="note">{entry.reason === UNDONE ? t('undone') : t('reason', { reason: entry.reason })}</span>
                    )}
                  </span>
                  <span className="note">{entry.byName ?? ''}</span>
                </li>
              ))}
          </ul>
        </section>
      ))}
    </>
  );
}
