'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { expiryState } from '@/core';
import { formatDay } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Stated } from '@/ui/marks';
import { useServer } from '../common/ServerProvider';
import { powerOfLot, type Lot } from './model';

const SHOWN = 100;

/** What a lens is made in, beside its power. */
export function useMadeIn(): (lot: Lot) => string {
  const t = useTranslations('drawer');
  return (lot) =>
    [
      ...(lot.baseCurveMm !== null && lot.diameterMm !== null ? [`${lot.baseCurveMm.toFixed(1)} / ${lot.diameterMm.toFixed(1)}`] : []),
      ...(lot.addBand ? [t('add', { add: lot.addBand })] : []),
    ].join(', ');
}

/** Every lot with lenses left: its power, its day, how many. */
export function LotTable({ lots, search, onLot }: { readonly lots: readonly Lot[]; readonly search: string; readonly onLot: (lot: Lot) => void }) {
  const t = useTranslations('drawer');
  const [all, setAll] = useState(false);
  const shown = all ? lots : lots.slice(0, SHOWN);
  return (
    <section className="px-6 pb-4" aria-label={t('lenses')}>
      <table className="ledger">
        <thead>
          <tr>
            <th scope="col">{t('family')}</th>
            <th scope="col">{t('power')}</th>
            <th scope="col" className="drop-narrow">
              {t('made')}
            </th>
            <th scope="col">{t('lot')}</th>
            <th scope="col">{t('expires')}</th>
            <th scope="col">{t('left')}</th>
            <th aria-label={t('act')} />
          </tr>
        </thead>
        <tbody>
          {shown.map((lot, i) => (
            <LotRow key={lot.id} lot={lot} named={shown[i - 1]?.familyName !== lot.familyName} onLot={onLot} />
          ))}
        </tbody>
      </table>
      {lots.length === 0 ? <p className="p-6 text-center">{t('nothing', { search })}</p> : null}
      {lots.length > shown.length ? (
        <p className="p-4 text-center">
          <Button onClick={() => setAll(true)}>{t('more', { count: lots.length - shown.length })}</Button>
        </p>
      ) : null}
    </section>
  );
}

/** @param named the first row of its family says which */
function LotRow({ lot, named, onLot }: { readonly lot: Lot; readonly named: boolean; readonly onLot: (lot: Lot) => void }) {
  const t = useTranslations('drawer');
  const { session } = useServer();
  const madeIn = useMadeIn();
  const state = expiryState(lot.expiresOn, session.today);
  const day = formatDay(lot.expiresOn);
  const power = powerOfLot(lot);
  return (
    <tr data-testid={`lot-${lot.lot}`}>
      <th scope="row">
        <span className={named ? 'font-[620]' : 'sr-only'}>{lot.familyName}</span>
      </th>
      <td className="value">{power}</td>
      <td className="drop-narrow">{madeIn(lot)}</td>
      <td className="font-mono">{lot.lot}</td>
      <td>{state === 'fine' ? day : <Stated state={state === 'soon' ? 'watch' : 'stop'}>{t(state, { day })}</Stated>}</td>
      <td className="value">{lot.count}</td>
      <td className="text-right">
        <button type="button" className="btn btn-quiet" aria-label={t('actOne', { power, lot: lot.lot })} onClick={() => onLot(lot)}>
          {t('act')}
        </button>
      </td>
    </tr>
  );
}
