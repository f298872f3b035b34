'use client';
import { useTranslations } from 'use-intl';
import { EYES } from '@/core';
import { formatDay, formatMoment, formatMoney } from '@/i18n/format';
import { OpenWorking, type WorkingBlock } from '../common/Working';
import { useEyeWords } from '../common/eyeWords';
import { useServer } from '../common/ServerProvider';
import type { ReorderPageState } from './useReorder';

/** What to say, in words that can be read aloud; the working; the calls before this one. */
export function ReorderMargin({ page, blocks }: { readonly page: ReorderPageState; readonly blocks: readonly WorkingBlock[] }) {
  const t = useTranslations('reorder');
  const eyeWords = useEyeWords();
  const { session } = useServer();
  const { timeZone, currency } = session.practice;
  const day = (eye: 'right' | 'left'): string | null => page.plans[eye]?.inHandUntil ?? null;
  const sentences = [
    ...EYES.flatMap((eye) => {
      const until = day(eye);
      if (!page.eyes[eye]) return [];
      const name = { eye: eyeWords.name(eye) };
      const coming = page.eyes[eye].plan.runway.runOut;
      return [
        until !== null ? t('sayUntil', { ...name, day: formatDay(until) }) : t('sayNothing', name),
        ...(coming !== null && coming !== until ? [t('sayComing', { day: formatDay(coming) })] : []),
      ];
    }),
    ...(page.bar === null && page.cost.upFront > 0
      ? [t('sayOrder', { right: page.packs.right || 0, left: page.packs.left || 0, cost: formatMoney(page.cost.upFront, currency) })]
      : []),
  ];
  return (
    <>
      <h2 className="mb-2">{t('say')}</h2>
      <p className="mb-5">{`“${sentences.join(' ')}”`}</p>
      <OpenWorking blocks={blocks} />
      <h2 className="mb-2 mt-5">{t('calls')}</h2>
      {page.calls.length === 0 ? <p className="label">{t('noCalls')}</p> : null}
      <ul>
        {page.calls.map((call) => (
          <li key={call.id} className="py-1">
            <span className="font-[560]">{t(`outcome.${call.outcome}`)}</span>
            {call.orderNumber === null ? '' : ` ${t('orderNumber', { number: call.orderNumber })}`}
            {call.laterOn === null ? '' : ` ${t('from', { day: formatDay(call.laterOn) })}`}
            {call.note === null ? null : <div>{call.note}</div>}
            <div className="label">{`${formatMoment(call.calledAt, timeZone)} · ${call.calledByName}`}</div>
          </li>
        ))}
      </ul>
    </>
  );
}
