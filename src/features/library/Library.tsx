'use client';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useDeferredValue, useEffect, useMemo, useState } from 'react';
import { useTranslations } from 'use-intl';
import { may } from '@/core';
import expectedWords from '@/i18n/messages/en/expected.messages.json';
import familyWords from '@/i18n/messages/en/family.messages.json';
import libraryWords from '@/i18n/messages/en/library.messages.json';
import { withWords } from '@/i18n/withWords';
import type { LibraryPage } from '@/services/family/queries';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { KeyCap } from '@/ui/marks';
import { AppPage } from '../common/AppPage';
import { useKey } from '../common/keys';
import { useServer } from '../common/ServerProvider';
import { FamilyRow } from './FamilyRow';
import { ImportPanel } from './ImportPanel';
import { byWords, type Family, type Found } from './model';
import type * as PowerSearch from './powerSearch';

const HouseList = dynamic(() => import('./HouseList').then((m) => m.HouseList));

const SHOWN = 60;

interface Search {
  readonly rows: readonly Found[];
  /** The power searched for, as given and as needed at the cornea; null while words are searched for. */
  readonly sought: { readonly power: string; readonly need: string } | null;
}

/** Families by words, or by a power: how powers are searched is loaded when the first figure is typed. */
function useSearch(families: readonly Family[], search: string, vertexMm: number): Search {
  const [powers, setPowers] = useState<typeof PowerSearch | null>(null);
  const figures = /\d/.test(search);
  useEffect(() => {
    if (figures && powers === null) void import('./powerSearch').then(setPowers);
  }, [figures, powers]);
  return useMemo(() => {
    const glasses = powers?.powerSought(search);
    if (!powers || !glasses) return { rows: byWords(families, search), sought: null };
    return { rows: powers.byPower(families, glasses, vertexMm), sought: powers.soughtText(glasses, vertexMm) };
  }, [families, powers, search, vertexMm]);
}

/** Every lens family: found by words or by a power, what it makes, what it costs, and what the practice tries first. */
function LibraryPage({ families, houseList, imports }: Omit<LibraryPage, 'session'>) {
  const t = useTranslations('library');
  const { session } = useServer();
  const [search, setSearch] = useState('');
  const [all, setAll] = useState(false);
  const later = useDeferredValue(search);
  const { vertexMm } = session.settings;
  const { rows, sought } = useSearch(families, later, vertexMm);
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
      marginOpen={t('importTitle')}
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
          hint={sought ? t('byPower', { ...sought, vertex: vertexMm }) : t('searchHint')}
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

export const Library = withWords({ expected: expectedWords, family: familyWords, library: libraryWords }, LibraryPage);
