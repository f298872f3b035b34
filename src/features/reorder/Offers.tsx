'use client';
import { useTranslations } from 'use-intl';
import { EYES, type Eye, type Offer } from '@/core';
import { formatDay, formatMoney, formatShortDay } from '@/i18n/format';
import { Field } from '@/ui/Field';
import { EyeBadge, KeyCap, Stated, type State } from '@/ui/marks';
import { useEyeWords } from '../common/eyeWords';
import { useServer } from '../common/ServerProvider';
import { Figure } from '../common/Working';
import { problemAt, useProblemWords } from '../common/words';
import type { ReorderPageState } from './useReorder';

interface Of {
  readonly page: ReorderPageState;
}

const REACH_STATE: Readonly<Record<Offer['reach'], State>> = { within: 'ok', oneOver: 'watch', tooFar: 'stop' };

/** What may be said on the telephone: so many boxes each, to which days, at what price. */
export function Offers({ page }: Of) {
  const t = useTranslations('reorder');
  const { session } = useServer();
  const { offers, packs, eyes, prescription } = page;
  const both = EYES.flatMap((eye) => (eyes[eye] ? [eye] : []));
  return (
    <section className="py-3">
      <h2 className="pb-1">{t('offersTitle', { count: both.length })}</h2>
      <table className="ledger whitespace-nowrap" data-testid="offers">
        <thead>
          <tr>
            <th scope="col">{t('each')}</th>
            {both.map((eye) => (
              <th key={eye} scope="col">
                {t('to', { eye })}
              </th>
            ))}
            <th scope="col" className="text-right">
              {t('cost')}
            </th>
            <th scope="col">{prescription ? t('by', { day: formatShortDay(prescription.expiresOn) }) : ''}</th>
          </tr>
        </thead>
        <tbody>
          {offers.map((offer, i) => (
            <tr key={offer.packs} data-chosen={both.every((eye) => packs[eye] === offer.packs) || undefined}>
              <td>
                <button
                  type="button"
                  className="btn btn-quiet"
                  aria-pressed={both.every((eye) => packs[eye] === offer.packs)}
                  onClick={() => page.choose(offer.packs)}
                >
                  <KeyCap>{String(i + 1)}</KeyCap> {t('boxes', { count: offer.packs })}
                </button>
              </td>
              {both.map((eye) => (
                <td key={eye}>{offer.eyes[eye]?.runOut ? formatShortDay(offer.eyes[eye].runOut) : ''}</td>
              ))}
              <td className="text-right">
                {formatMoney(offer.packs * both.reduce((sum, eye) => sum + (eyes[eye]?.trade.packPriceMinor ?? 0), 0), session.practice.currency)}
              </td>
              <td>
                <Stated state={REACH_STATE[offer.reach]}>{t(`reach.${offer.reach}`)}</Stated>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Cost page={page} />
    </section>
  );
}

/** Boxes of each eye, and what they come to: paid now, back later, and what remains. */
function Cost({ page }: Of) {
  const t = useTranslations('reorder');
  const { session } = useServer();
  const money = (minor: number): string => formatMoney(minor, session.practice.currency);
  const { cost } = page;
  return (
    <dl className="grid grid-cols-[1fr_max-content] gap-x-4 items-baseline pt-2">
      {EYES.map((eye) => (page.eyes[eye] ? <EyeBoxes key={eye} page={page} eye={eye} /> : null))}
      <dt>{t('upFront')}</dt>
      <dd className="text-right">
        <Figure id="cost">
          <span className="value" data-testid="up-front">
            {money(cost.upFront)}
          </span>
        </Figure>
      </dd>
      {cost.rebate > 0 ? (
        <>
          <dt>{t('rebate')}</dt>
          <dd className="text-right">{`−${money(cost.rebate)}`}</dd>
          <dt className="value border-t-2 border-ink pt-1">{t('net')}</dt>
          <dd className="value text-right border-t-2 border-ink pt-1">{money(cost.net)}</dd>
        </>
      ) : null}
    </dl>
  );
}

function EyeBoxes({ page, eye }: Of & { readonly eye: Eye }) {
  const t = useTranslations('reorder');
  const words = useProblemWords();
  const eyeWords = useEyeWords();
  const { session } = useServer();
  const of = page.eyes[eye];
  if (!of) return null;
  const found = problemAt(page.problem, `${eye}Packs`);
  const fault = Number.isNaN(page.packs[eye]) ? words('wholeNumber') : found ? words(found.code, found.data) : null;
  const runOut = page.plans[eye]?.runOut ?? null;
  return (
    <>
      <dt className="flex items-start gap-2 flex-wrap">
        <span className="pt-7">
          <EyeBadge eye={eye} />
        </span>
        <Field
          label={t('boxesOf', { eye: eyeWords.short(eye) })}
          value={page.textOf(eye)}
          onValue={(text) => page.setTyped(eye, text)}
          inputMode="numeric"
          className="w-[110px]"
          problem={fault}
        />
        <span className="label pt-8">
          {t('line', { family: of.familyName, size: of.trade.packSize, price: formatMoney(of.trade.packPriceMinor, session.practice.currency) })}
        </span>
      </dt>
      <dd className="text-right">
        {runOut === null ? null : (
          <Figure id={`reorder-${eye}`}>
            <span data-testid={`lasts-${eye}`}>{formatDay(runOut)}</span>
          </Figure>
        )}
      </dd>
    </>
  );
}
