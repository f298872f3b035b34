'use client';
import { useEffect, useRef } from 'react';
import { useTranslations } from 'use-intl';
import { daysBetween, EYES, type DueProposal } from '@/core';
import { formatDay, formatMoment, formatShortDay } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { EyeBadge, Stated } from '@/ui/marks';
import { useEyeWords } from '../common/eyeWords';
import { useServer } from '../common/ServerProvider';
import { WearerLink } from '../common/WearerLink';
import { barsOf, monthsOf, placeOf } from './dueAxis';
import type { DueLine } from './useDue';

const STATE: Readonly<Record<DueProposal['kind'], 'ok' | 'watch' | 'stop'>> = { see: 'stop', book: 'watch', bookAndCall: 'watch', call: 'ok' };

/** One wearer who is due: both eyes on the axis of days, why, what is proposed, and the press that does it. */
export function DueRow({
  line,
  chosen,
  onChoose,
  onAccept,
  onMessage,
  onNoLonger,
}: {
  readonly line: DueLine;
  readonly chosen: boolean;
  readonly onChoose: () => void;
  readonly onAccept: () => void;
  readonly onMessage: () => void;
  /** Null where only a page of lapsed wearers has it. */
  readonly onNoLonger: (() => void) | null;
}) {
  const t = useTranslations('due');
  const eyeWords = useEyeWords();
  const { session } = useServer();
  const { of, first, proposal } = line;
  const row = useRef<HTMLTableRowElement>(null);
  useEffect(() => {
    if (chosen) row.current?.scrollIntoView({ block: 'nearest' });
  }, [chosen]);
  const late = daysBetween(of.dueOn, session.today);
  return (
    <tr ref={row} data-chosen={chosen || undefined} data-testid={`due-${of.recordNumber}`} onClick={onChoose} aria-current={chosen ? 'true' : undefined}>
      <td className="w-[200px]">
        <WearerLink id={of.wearerId} name={of.name} />
        <div className="label">{of.telephone ?? t('noTelephone')}</div>
      </td>
      <td className="min-w-[300px]">
        <Bars line={line} />
        <p className="label pt-1">
          {first
            ? t('why', {
                past: first.runOut < session.today ? 'yes' : 'no',
                eye: eyeWords.name(first.eye),
                runOut: formatDay(first.runOut),
                by: formatDay(first.reorderBy),
              })
            : null}
          {first?.paceRunOut ? ` ${t(first.paceRunOut < first.runOut ? 'faster' : 'slower', { day: formatDay(first.paceRunOut) })}` : null}
          {line.examinationOn ? ` ${t('booked', { day: formatDay(line.examinationOn) })}` : null}
        </p>
        {of.lastCall ? (
          <p className="label">
            {t('lastCall', { outcome: t(`outcome.${of.lastCall.outcome}`), at: formatMoment(of.lastCall.at, session.practice.timeZone), by: of.lastCall.by })}
          </p>
        ) : null}
      </td>
      <td className="w-[200px]">
        <Stated state={STATE[proposal.kind]}>{words(t, line)}</Stated>
        <div className="label">{late > 0 ? t('lateBy', { days: late }) : late === 0 ? t('dueToday') : t('dueOn', { day: formatShortDay(of.dueOn) })}</div>
      </td>
      <td className="w-[190px]">
        <div className="flex flex-wrap gap-2">
          <Button look={chosen ? 'act' : 'plain'} onClick={onAccept} aria-label={t('acceptOf', { what: t(`accept.${proposal.kind}`), name: of.name })}>
            {t(`accept.${proposal.kind}`)}
          </Button>
          <Button look="quiet" onClick={onMessage} aria-label={t('messageOf', { name: of.name })}>
            {t('message')}
          </Button>
          {onNoLonger ? (
            <Button look="quiet" onClick={onNoLonger} aria-label={t('noLongerOf', { name: of.name })}>
              {t('noLonger')}
            </Button>
          ) : null}
        </div>
      </td>
    </tr>
  );
}

function words(t: ReturnType<typeof useTranslations<'due'>>, { proposal, of }: DueLine): string {
  if (proposal.kind === 'see' || proposal.kind === 'book') return t(`proposal.${proposal.why}`, { day: formatDay(of.eyes[0]?.expiresOn ?? of.dueOn) });
  return t(`proposal.${proposal.kind}`, { right: proposal.packs.right, left: proposal.packs.left });
}

/** Both eyes on one axis, R above L: black what is in hand, hatched what is on its way, a double line where the prescription ends. */
function Bars({ line }: { readonly line: DueLine }) {
  const t = useTranslations('due');
  const eyeWords = useEyeWords();
  const { session } = useServer();
  const { today } = session;
  const said = line.of.eyes.map((r) => t('bars', { eye: eyeWords.name(r.eye), day: formatDay(r.runOut) })).join(' ');
  return (
    <div className="due-bars" role="img" aria-label={said}>
      {EYES.map((eye) => {
        const row = line.of.eyes.find((r) => r.eye === eye);
        return (
          <div key={eye} className="due-eye">
            <EyeBadge eye={eye} />
            <div className="due-track">
              {monthsOf(today).map((month) => (
                <i key={month} className="due-month" style={{ left: `${placeOf(month, today)}%` }} />
              ))}
              {row
                ? barsOf(row, today).map((bar) => (
                    <i key={bar.look} className="due-bar" data-look={bar.look} style={{ left: `${bar.from}%`, width: `${bar.width}%` }} />
                  ))
                : null}
              {row ? <i className="due-end" style={{ left: `${placeOf(row.expiresOn, today)}%` }} /> : null}
              <i className="due-today" style={{ left: `${placeOf(today, today)}%` }} />
            </div>
          </div>
        );
      })}
    </div>
  );
}
