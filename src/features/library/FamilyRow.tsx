'use client';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import { formatPower, formatRefraction } from '@/core';
import { formatDay, formatMoney } from '@/i18n/format';
import type { LibraryPage } from '@/services/family/queries';
import { Stated } from '@/ui/marks';
import { useServer } from '../common/ServerProvider';
import { extentOf, lifeOf, type Found } from './model';

/** One family of the list; while a power is searched for, with what it would give. */
export function FamilyRow({ row, houseList }: { readonly row: Found; readonly houseList: LibraryPage['houseList'] }) {
  const t = useTranslations('library');
  const ofFamily = useTranslations('family');
  const expected = useTranslations('expected');
  const { session } = useServer();
  const { family, reach, out } = row;
  const extent = extentOf(family.blocks);
  const life = lifeOf(family, session.today);
  const place = houseList.find((h) => h.modality === family.modality && h.geometry === family.geometry)?.codes.indexOf(family.code) ?? -1;
  const past = out && (out.sphere > 0 || out.cylinder > 0.125 || out.axis > 0);
  return (
    <tr data-testid={`family-${family.code}`}>
      <th scope="row">
        <Link href={`/library/${family.code}`} prefetch={false} className="font-[620] text-[16px] text-ink underline">
          {family.name}
        </Link>
        <span className="block note">
          {family.maker} · {ofFamily(`modality.${family.modality}`)} · {ofFamily(`geometry.${family.geometry}`)} · {family.material}
        </span>
      </th>
      <td>
        {extent ? (
          <>
            <span className="whitespace-nowrap">{t('fromTo', { from: formatPower(extent.from), to: formatPower(extent.to) })}</span>
            {extent.cylinder === 0 ? null : <span className="block note">{t('cylinderTo', { cylinder: formatPower(extent.cylinder) })}</span>}
            <span className="block note">{extent.curves.slice(0, 3).join(', ')}</span>
          </>
        ) : (
          t('nothingMade')
        )}
      </td>
      <td>{family.dktThickest ?? ofFamily('unknown')}</td>
      <td className="whitespace-nowrap">{ofFamily('pack', { size: family.packSize, price: formatMoney(family.packPriceMinor, session.practice.currency) })}</td>
      <td>
        {reach ? (
          <>
            <span className="whitespace-nowrap font-mono">{formatRefraction(reach.power)}</span>
            <span className="block note">{t('blur', { blur: reach.blur.toFixed(2) })}</span>
            {past && out ? (
              <span className="block">
                <Stated state="watch">
                  {expected('out', {
                    parts: [
                      ...(out.sphere > 0 && Number.isFinite(out.sphere) ? [expected('outSphere', { past: out.sphere.toFixed(2) })] : []),
                      ...(out.cylinder > 0.125 ? [expected('outCylinder', { past: out.cylinder.toFixed(2) })] : []),
                      ...(out.axis > 0 && Number.isFinite(out.axis) ? [expected('outAxis', { degrees: Math.round(out.axis) })] : []),
                    ].join(', '),
                  })}
                </Stated>
              </span>
            ) : null}
          </>
        ) : (
          <>
            {place >= 0 ? <span className="block">{t('onHouseList', { place: place + 1 })}</span> : null}
            {life === 'ended' ? <Stated state="stop">{t('ended', { day: formatDay(family.lastOrderOn ?? '') })}</Stated> : null}
            {life === 'ending' ? <Stated state="watch">{ofFamily('endsSoon', { day: formatDay(family.lastOrderOn ?? '') })}</Stated> : null}
          </>
        )}
      </td>
    </tr>
  );
}
