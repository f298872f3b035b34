'use client';
import { useTranslations } from 'use-intl';
import { formatAxis, formatRefraction, FULL_ACCOMMODATION_AGE, lensForTurn, NO_ORDER_RULES, type Eye, type Refraction } from '@/core';
import { Stated } from '@/ui/marks';
import { SpineRow } from '@/ui/Spine';
import { Figure } from '../../../common/Working';
import { useVisit } from '../../shell/VisitProvider';
import { useProblemWords } from '../../../common/words';
import type { LiveEye } from './model';
import type { Readings } from './useReadings';

/** A power as made, with the word that tells a stabilised sphere from a plain one. */
export function useMadeWords(): (power: { readonly sphere: number; readonly cylinder: number; readonly axis: number }, geometry: string | undefined) => string {
  const t = useTranslations('onEye');
  return (power, geometry) => {
    const toric = geometry === 'toric' || geometry === 'toricMultifocal';
    return toric && power.cylinder === 0 ? t('stabilised', { power: formatRefraction(power) }) : formatRefraction(power);
  };
}

/** What the eye needs, whether both routes agree, and the lens to order. */
export function OrderRows({ readings }: { readonly readings: Readings }) {
  const t = useTranslations('onEye');
  const of = (make: (live: LiveEye, eye: Eye) => React.ReactNode) => ({ right: make(readings.live.right, 'right'), left: make(readings.live.left, 'left') });
  return (
    <>
      <SpineRow
        label={t('needRow')}
        note={t('needNote')}
        {...of((live, eye) => (
          <>
            <Need live={live} eye={eye} />
            <Agree live={live} eye={eye} />
          </>
        ))}
      />
      <SpineRow label={t('orderRow')} note={t('orderNote')} {...of((live, eye) => <Order live={live} eye={eye} hasMark={readings.hasMark(eye)} />)} />
    </>
  );
}

function Need({ live, eye }: { readonly live: LiveEye; readonly eye: Eye }) {
  const t = useTranslations('onEye');
  const { verdict } = live;
  // While the two do not agree, what was found through the lens is shown: it is what has to be measured again.
  const need = verdict.need ?? verdict.fromOverRefraction?.need ?? verdict.fromRefraction;
  if (!need) return <span className="label">{t('nothingYet')}</span>;
  return (
    <Figure id={`routes-${eye}`}>
      <span className="power" data-testid={`need-${eye}`}>
        {formatRefraction(need)}
      </span>
      {verdict.parts === 'mean' && verdict.cylinderFrom !== null ? <span className="note">{t(`cylinderFrom.${verdict.cylinderFrom}`)}</span> : null}
    </Figure>
  );
}

function Agree({ live, eye }: { readonly live: LiveEye; readonly eye: Eye }) {
  const t = useTranslations('onEye');
  const { routes, freed, expectedOverRefraction } = live.verdict;
  if (!routes)
    return expectedOverRefraction ? (
      <span className="label">
        {t('expected')} <Figure id={`expected-${eye}`}>{formatRefraction(expectedOverRefraction)}</Figure>
      </span>
    ) : (
      <span className="label">{t('oneRoute')}</span>
    );
  return (
    <span data-testid={`routes-${eye}`} className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`}>
      {routes.agree ? (
        <Stated state="ok">{t(routes.parts === 'mean' ? 'agreeMean' : 'agree', { gap: routes.gap.toFixed(2) })}</Stated>
      ) : freed === null ? (
        <Stated state="stop">{t('disagree', { gap: routes.gap.toFixed(2), gate: routes.gate.toFixed(2) })}</Stated>
      ) : (
        <Stated state="watch">{t(`freed.${freed}`, { gap: routes.gap.toFixed(2) })}</Stated>
      )}
      {routes.agree ? null : <Again live={live} eye={eye} />}
    </span>
  );
}

/** What frees "measure again", and the mean of both beside it with the lens it would order. */
function Again({ live, eye }: { readonly live: LiveEye; readonly eye: Eye }) {
  const t = useTranslations('onEye');
  const { record, lensOf } = useVisit();
  const { routes, freed, weighted, need, fromOverRefraction } = live.verdict;
  if (!routes || !weighted) return null;
  const tried = live.lens ? lensOf(live.lens.id)?.tried : undefined;
  const named = (power: Refraction | null): string | null => {
    const made = tried && power ? lensForTurn(power, live.stats?.mean ?? 0, tried, record.session.settings.cylinderCap) : null;
    return made && formatRefraction(made.lens.power);
  };
  const [mean, decides] = [named(weighted.need), named(need ?? fromOverRefraction?.need ?? null)];
  const minor = record.wearer.age < FULL_ACCOMMODATION_AGE;
  return (
    <>
      {freed === null ? <span className="note">{t(routes.towardsPlus < 0 ? (minor ? 'freeMinusMinor' : 'freeMinus') : 'freePlus')}</span> : null}
      <span className="note" data-testid={`weighted-${eye}`}>
        {t('weighted', { power: formatRefraction(weighted.need), sd: weighted.meanSd.toFixed(2) })}{' '}
        {mean === null || decides === null ? null : mean === decides ? t('weightedSame') : t('weightedOther', { power: mean })}
      </span>
    </>
  );
}

const whole = (value: number): string => String(Math.round(value * 10) / 10);

function Order({ live, eye, hasMark }: { readonly live: LiveEye; readonly eye: Eye; readonly hasMark: boolean }) {
  const t = useTranslations('onEye');
  const problem = useProblemWords();
  const made = useMadeWords();
  const { verdict, stats } = live;
  if (verdict.noOrder === 'routesDisagree') return <span className="label">{t('noOrder')}</span>;
  if (verdict.noOrder !== null && verdict.noOrder !== 'nothing')
    return (
      <span data-testid={`order-${eye}`}>
        <Stated state="stop">{problem(NO_ORDER_RULES[verdict.noOrder])}</Stated>
      </span>
    );
  if (!verdict.order || !verdict.need) return <span className="label">{t('nothingYet')}</span>;
  const { need, order } = verdict;
  const turn = stats?.mean ?? 0;
  return (
    <span data-testid={`order-${eye}`} className={`flex flex-col ${eye === 'right' ? 'items-end' : 'items-start'}`}>
      {need.cylinder !== 0 ? (
        <span className="label">
          {!live.turnKnown && hasMark
            ? t('axisUnread', { axis: formatAxis(need.axis) })
            : verdict.rotation?.code === 'leave' && Math.abs(turn) >= 0.05
              ? t('axisLeave', { axis: formatAxis(need.axis) })
              : Math.abs(turn) < 0.05
                ? t('axisKept', { axis: formatAxis(need.axis) })
                : turn > 0
                  ? t('axisLeft', { axis: formatAxis(need.axis), turn: whole(turn), order: formatAxis(order.axis) })
                  : t('axisRight', { axis: formatAxis(need.axis), turn: whole(-turn), order: formatAxis(order.axis) })}
        </span>
      ) : null}
      <span className="power">{live.made ? made(live.made.lens.power, live.lens?.geometry) : formatRefraction(order)}</span>
      {live.made ? (
        <span className="note">
          {t('madeBlur')} <Figure id={`blur-${eye}`}>{t('blurFigure', { blur: live.made.blur.toFixed(2) })}</Figure>
        </span>
      ) : (
        <span className="note">{t('noFamily')}</span>
      )}
    </span>
  );
}
