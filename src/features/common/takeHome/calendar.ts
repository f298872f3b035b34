import type { IsoInstant, TakeHomePage } from '@/core';
import { homeWords, type HomeLanguage } from './words';

/** An entry of the wearer's calendar, its words made. */
interface Entry {
  readonly uid: string;
  readonly summary: string;
  readonly description: string;
  readonly location: string;
  readonly writtenAt: IsoInstant;
}
export type HomeEntry = Entry & ({ readonly day: string } | { readonly startsAt: IsoInstant; readonly minutes: number });

/**
 * The calendar of a page: hours that are built up, last days, the next check. The days are those of the page; a page given again names its
 * entries alike, so that a calendar replaces them.
 * @param of what the entries are named after, and when they are written
 */
export function homeCalendar(
  page: TakeHomePage,
  language: HomeLanguage,
  of: { readonly visitId: string; readonly writtenAt: IsoInstant },
): readonly HomeEntry[] {
  const { t } = homeWords(language);
  const { practice, product } = page;
  const entry = (what: string, summary: string, description: string): Entry => ({
    uid: `${of.visitId}-${what}@keenfit`,
    summary,
    description,
    location: practice.address,
    writtenAt: of.writtenAt,
  });
  const note = t('calendar.note', { telephone: page.emergencyTelephone });
  const hours = page.hours.map(({ day, hours: count }, i) => ({ ...entry(`hours-${i + 1}`, t('calendar.hours', { hours: count }), note), day }));
  const changes = page.changes.flatMap(({ what, lastDay }) =>
    lastDay === null ? [] : [{ ...entry(what, t(`calendar.${what}`, { product: product?.name ?? '' }), note), day: lastDay }],
  );
  const check = page.check
    ? [
        {
          ...entry('check', t('calendar.check', { practice: practice.name }), t('calendar.checkNote', { telephone: practice.telephone })),
          startsAt: page.check.startsAt,
          minutes: page.check.minutes,
        },
      ]
    : [];
  return [...hours, ...changes, ...check];
}
