import { useTranslations } from 'use-intl';
import { daysCovered, EYES, LIFE_DAYS, type Eye } from '@/core';
import { formatDay, formatMoney, formatShortDay } from '@/i18n/format';
import { useEyeWords } from '../../../common/eyeWords';
import type { WorkingBlock } from '../../../common/Working';
import { useVisit } from '../../shell/VisitProvider';
import type { Supply } from './useSupply';

/** Most hand-overs that a working lists. */
const SHOWN = 3;

/** How the days of each eye's lenses, and the cost, come about. */
export function useSupplyWorking({ supplies, total }: Supply): readonly WorkingBlock[] {
  const t = useTranslations('supply');
  const eyeWords = useEyeWords();
  const { practice, settings } = useVisit().record.session;
  const daysOf = (e: Eye): WorkingBlock[] => {
    const s = supplies[e];
    if (!s?.plan.runOut) return [];
    const { plan, input, modality } = s;
    const daily = modality === 'daily';
    const life = LIFE_DAYS[modality];
    const lasts = daily
      ? t('workingDaily', { packs: s.packs, size: s.packSize, days: input.wear.daysPerWeek })
      : t('workingReusable', { packs: s.packs, size: s.packSize, life });
    // Hand-overs of years ago are used up: the last few tell how the day comes about.
    const handed = input.deliveries.filter((d) => d.state === 'inHand').slice(-SHOWN);
    const inHand = handed.map((d, i) => ({
      what: t('workingInHand', { day: formatShortDay(d.openedOn ?? d.on), count: d.lenses, life }),
      comes: plan.inHandUntil && i === handed.length - 1 ? formatDay(plan.inHandUntil) : '',
    }));
    const lines = [
      ...inHand,
      { what: t('workingArrives', { lead: s.leadDays }), comes: t('workingOpens', { day: formatDay(plan.orderOpens) }) },
      { what: lasts, comes: t('workingDays', { count: daysCovered(s.packs * s.packSize, input.wear) }) },
      { what: t('workingRunOut'), comes: formatDay(s.plan.runOut), strong: true },
      {
        what: t('workingReorder', { lead: s.leadDays, margin: settings.reorderMarginDays }),
        comes: plan.reorderBy ? formatDay(plan.reorderBy) : '',
        strong: true,
      },
    ];
    const foot = daily ? t('workingFootDaily') : t('workingFoot');
    return [{ id: `supply-${e}`, title: t('workingTitle', { eye: eyeWords.short(e) }), lines, foot }];
  };
  const money = (minor: number): string => formatMoney(minor, practice.currency);
  const costs = EYES.flatMap((e) => {
    const s = supplies[e];
    if (!s || !Number.isFinite(s.packs)) return [];
    return [{ what: t('costLine', { eye: eyeWords.short(e), packs: s.packs, price: money(s.packPriceMinor) }), comes: money(s.packs * s.packPriceMinor) }];
  });
  const cost: WorkingBlock = { id: 'cost', title: t('costTitle'), lines: [...costs, { what: t('cost'), comes: money(total), strong: true }] };
  return [...EYES.flatMap(daysOf), cost];
}
