'use client';
import Link from 'next/link';
import { useDeferredValue, useMemo, useState } from 'react';
import { useKey } from '../common/keys';
import dynamic from 'next/dynamic';
import { useTranslations } from 'use-intl';
import { formatPower, formatRefraction, may, toCornealPlane } from '@/core';
import { formatDay, formatMoney } from '@/i18n/format';
import type { LibraryPage } from '@/services/family/queries';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { KeyCap, Stated } from '@/ui/marks';
import { useServer } from '../common/ServerProvider';
import { AppPage } from '../common/AppPage';
import { ImportPanel } from './ImportPanel';
import { extentOf, found, lifeOf, powerSought, type Found } from './model';
import expectedWords from '@/i18n/messages/en/expected.messages.json';
import lensWords from '@/i18n/messages/en/lens.messages.json';
import libraryWords from '@/i18n/messages/en/library.messages.json';
import { withWords } from '@/i18n/withWords';
import libraryProblems from '@/i18n/messages/en/libraryProblems.messages.json';

const HouseList = dynamic(() => import('./HouseList').then((m) => m.HouseList));

const SHOWN = 60;

/** Every lens family: found by words or by a power, what it makes, what it costs, and what the practice tries first. */
function LibraryPage({ families, houseList, imports }: Omit<LibraryPage, 'session'>) {
  const t = useTranslations('library');
  const { session } = useServer();
  const [search, setSearch] = useState('');
  const [all, setAll] = useState(false);
  const later = useDeferredValue(search);
  const { vertexMm } = session.settings;
  const rows = useMemo(() => found(families, later, vertexMm), [families, later, vertexMm]);
  const sought = powerSought(later);
  const mayChange = may(session.viewer.roles, 'settings');
  useKey(['slash', '/'], (event) => {
    event.preventDefault();
    document.getElementById('library-search')?.focus();
  });
  const shown = all ? rows : rows.slice(0, SHOWN);
  return (
    <AppPage
      place="library"
      title={t('title')}
      margin={<ImportPanel imports={imports} mayChange={mayChange} />}
      bar={
        <>
          <div className="frame-bar-keys">
            <span>
              <KeyCap>{'/'}</KeyCap> {t('keySearch')}
            </span>
          </div>
          <a className="btn btn-plain" href="/api/catalogue" download>
            {t('export')}
          </a>
          {mayChange ? (
            <Link className="btn btn-act" href="/library/new" prefetch={false}>
              {t('add')}
            </Link>
          ) : null}
        </>
      }
    >
      <div className="px-6 pt-3 max-w-[560px]">
        <Field
          id="library-search"
          label={t('search')}
          value={search}
          onValue={setSearch}
          hint={
            sought
              ? t('byPower', { power: formatRefraction(sought), need: formatRefraction(toCornealPlane(sought, vertexMm)), vertex: vertexMm })
              : t('searchHint')
          }
          autoComplete="off"
        />
      </div>
      <section className="px-6 pb-4" aria-label={t('families')}>
        <table className="ledger">
          <thead>
            <tr>
              <th scope="col">{t('family')}</th>
              <th scope="col">{t('made')}</th>
              <th scope="col">{t('oxygen')}</th>
              <th scope="col">{t('pack')}</th>
              <th scope="col">{sought ? t('nearest') : t('state')}</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((row) => (
              <FamilyRow key={row.family.code} row={row} houseList={houseList} />
            ))}
          </tbody>
        </table>
        {rows.length === 0 ? <p className="p-6 text-center">{t('nothing', { search: later })}</p> : null}
        {rows.length > shown.length ? (
          <p className="p-4 text-center">
            <Button onClick={() => setAll(true)}>{t('more', { count: rows.length - shown.length })}</Button>
          </p>
        ) : null}
      </section>
      <HouseList families={families} houseList={houseList} mayChange={mayChange} />
    </AppPage>
  );
}

function FamilyRow({ row, houseList }: { readonly row: Found; readonly houseList: LibraryPage['houseList'] }) {
  const t = useTranslations('library');
  const lens = useTranslations('lens');
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
          {family.maker} · {lens(`modality.${family.modality}`)} · {lens(`geometry.${family.geometry}`)} · {family.material}
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
      <td>{family.dktThickest ?? lens('unknown')}</td>
      <td className="whitespace-nowrap">{lens('pack', { size: family.packSize, price: formatMoney(family.packPriceMinor, session.practice.currency) })}</td>
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
            {life === 'ending' ? <Stated state="watch">{lens('endsSoon', { day: formatDay(family.lastOrderOn ?? '') })}</Stated> : null}
          </>
        )}
      </td>
    </tr>
  );
}

export const Library = withWords({ problems: libraryProblems, expected: expectedWords, lens: lensWords, library: libraryWords }, LibraryPage);
