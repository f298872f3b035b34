'use client';
import { useTranslations } from 'use-intl';
import { daysBetween, EYES, lensLine, type Eye, type LensSpan } from '@/core';
import { formatDay } from '@/i18n/format';
import type { TimelinePage } from '@/services/personFile/queries';
import { EyeBadge } from '@/ui/marks';

/** Narrower spans are drawn so wide all the same, percent: a press must be able to hit them. */
const LEAST_PERCENT = 4;

/** The lenses of each eye over the years, on one scale of days. */
export function LensLines({ page, lensWords }: { readonly page: Pick<TimelinePage, 'line' | 'session'>; readonly lensWords: (lensId: string) => string }) {
  const t = useTranslations('file');
  const { today, practice } = page.session;
  const of = (eye: Eye): readonly LensSpan[] => lensLine({ ...page.line, timeZone: practice.timeZone }, eye);
  const lines = { right: of('right'), left: of('left') };
  const first = [...lines.right, ...lines.left].map((s) => s.from).sort()[0];
  if (first === undefined) return <p className="label px-6 py-3">{t('noLine')}</p>;
  const days = Math.max(1, daysBetween(first, today));
  const percent = (from: string, to: string): number => (daysBetween(from, to) / days) * 100;
  return (
    <section className="px-6 py-3 border-b border-rule" aria-label={t('line')}>
      <h2 className="mb-2">{t('line')}</h2>
      {EYES.map((eye) => (
        <div key={eye} className="flex gap-3 items-center mb-2" data-testid={`lens-line-${eye}`}>
          <EyeBadge eye={eye} />
          <ol className="flex-1 flex min-w-0" style={{ paddingLeft: `${lines[eye][0] ? percent(first, lines[eye][0].from) : 0}%` }}>
            {lines[eye].map((span) => (
              <li
                key={`${span.from} ${span.lensId}`}
                className={`min-w-0 border-l-2 border-ink px-2 py-1 ${span.to === null ? 'bg-lift' : ''}`}
                style={{ flex: `${Math.max(LEAST_PERCENT, percent(span.from, span.to ?? today))} 1 0%` }}
                title={t(span.to === null ? 'spanNow' : 'span', { lens: lensWords(span.lensId), from: formatDay(span.from), to: formatDay(span.to ?? today) })}
              >
                <span className="block truncate value">{lensWords(span.lensId)}</span>
                <span className="block truncate note">
                  {formatDay(span.from)} · {span.to === null ? t('now') : t(`known.${span.known}`)}
                </span>
              </li>
            ))}
          </ol>
        </div>
      ))}
    </section>
  );
}
