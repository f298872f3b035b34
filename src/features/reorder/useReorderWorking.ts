import { useTranslations } from 'use-intl';
import { daysCovered, EYES, LIFE_DAYS, type Eye } from '@/core';
import { formatDay, formatMoney, formatShortDay } from '@/i18n/format';
import { useEyeWords } from '../common/eyeWords';
import { useServer } from '../common/ServerProvider';
import type { WorkingBlock, WorkingLine } from '../common/Working';
import type { ReorderPageState } from './useReorder';

/** Most deliveries that a working lists: hand-overs of years ago are used up. */
const SHOWN = 3;

/** How the days of each eye and the cost come about. */
export function useReorderWorking(page: ReorderPageState): readonly WorkingBlock[] {
  const t = useTranslations('reorder');
  const eyeWords = useEyeWords();
  const { session } = useServer();
  const money = (minor: number): string => formatMoney(minor, session.practice.currency);
  const daysOf = (eye: Eye): WorkingBlock[] => {
    const of = page.eyes[eye];
    const plan = page.plans[eye];
    if (!of || !plan?.runOut) return [];
    const { input } = of;
    const packs = Number.isFinite(page.packs[eye]) ? page.packs[eye] : 0;
    const each = of.modality === 'daily' ? t('workDaily', { days: input.wear.daysPerWeek }) : t('workReusable', { life: LIFE_DAYS[of.modality] });
    const lines: WorkingLine[] = [
      { what: each, comes: '' },
      ...input.deliveries.slice(-SHOWN).map((d) => ({
        what: t(d.state === 'inHand' ? 'workInHand' : 'workOnTheWay', { lenses: d.lenses, day: formatShortDay(d.openedOn ?? d.on) }),
        comes: t('workDays', { days: daysCovered(d.lenses, input.wear) }),
      })),
      { what: t('workHas'), comes: plan.runway.runOut === null ? t('nothing') : formatDay(plan.runway.runOut) },
      ...(packs > 0
        ? [
            {
              what: t('workOrder', { packs, size: of.trade.packSize, lead: of.trade.leadDays }),
              comes: t('workDays', { days: daysCovered(packs * of.trade.packSize, input.wear) }),
            },
          ]
        : []),
      { what: t('workRunOut'), comes: formatDay(plan.runOut), strong: true },
      { what: t('workWithin'), comes: t('boxes', { count: of.within }) },
    ];
    return [{ id: `reorder-${eye}`, title: t('workTitle', { eye: eyeWords.name(eye) }), lines, foot: t('workFoot') }];
  };
  const costs = EYES.flatMap((eye) => {
    const of = page.eyes[eye];
    if (!of || !(page.packs[eye] > 0)) return [];
    return [
      {
        what: t('workCost', { eye: eyeWords.short(eye), packs: page.packs[eye], price: money(of.trade.packPriceMinor) }),
        comes: money(page.packs[eye] * of.trade.packPriceMinor),
      },
    ];
  });
  const rebate = page.cost.rebate > 0 ? [{ what: t('rebate'), comes: `−${money(page.cost.rebate)}` }] : [];
  const cost: WorkingBlock = { id: 'cost', title: t('cost'), lines: [...costs, ...rebate, { what: t('net'), comes: money(page.cost.net), strong: true }] };
  return [...EYES.flatMap(daysOf), cost];
}
