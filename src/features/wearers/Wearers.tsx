'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import dynamic from 'next/dynamic';
import { may } from '@/core';
import wearersWords from '@/i18n/messages/en/wearers.messages.json';
import { withWords } from '@/i18n/withWords';
import type { WearersFound } from '@/services/wearer/queries';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { KeyCap, Stated } from '@/ui/marks';
import { AppPage } from '../common/AppPage';
import { useKey } from '../common/keys';
import { useServer } from '../common/ServerProvider';
import { NewWearer } from './NewWearer';
import { WearerTable } from './WearerTable';

const ListPanel = dynamic(() => import('../common/ListPanel').then((m) => m.ListPanel));

/** What is searched for is asked this long after the last key, ms. */
const ASK_AFTER_MS = 150;

/** What is found for the words typed, and the pages of the whole list that were asked for. */
function useFound(initial: WearersFound, search: string) {
  const { look } = useServer();
  const [found, setFound] = useState(initial);
  const asked = useRef(0);
  useEffect(() => {
    // The whole list came with the page.
    if (search === '' && asked.current === 0) return undefined;
    const mine = ++asked.current;
    const timer = setTimeout(() => {
      void look('searchWearers', { search }).then((done) => {
        if (done?.ok && mine === asked.current) setFound(done.value);
      });
    }, ASK_AFTER_MS);
    return () => clearTimeout(timer);
  }, [search, look]);
  const more = async (): Promise<void> => {
    const last = found.wearers.at(-1);
    if (!last) return;
    const mine = asked.current;
    const next = await look('searchWearers', { search: '', after: { name: last.name, id: last.id } });
    if (next?.ok && mine === asked.current) setFound({ ...next.value, wearers: [...found.wearers, ...next.value.wearers] });
  };
  const anew = async (): Promise<void> => {
    const mine = ++asked.current;
    const done = await look('searchWearers', { search });
    if (done?.ok && mine === asked.current) setFound(done.value);
  };
  return { found, more, anew };
}

/** All wearers, found while typing. */
function WearersPage({ initial }: { readonly initial: WearersFound }) {
  const t = useTranslations('wearers');
  const router = useRouter();
  const { session } = useServer();
  const [search, setSearch] = useState('');
  const [adding, setAdding] = useState(false);
  const [listing, setListing] = useState(false);
  const { found, more, anew } = useFound(initial, search);
  const mayAdd = may(session.viewer.roles, 'wearers');
  // By its place on the board and by what it writes: not every layout has it on the same key.
  useKey(['slash', '/'], (event) => {
    event.preventDefault();
    document.getElementById('find-wearer')?.focus();
  });
  useKey(
    'n',
    (event) => {
      if (!mayAdd) return;
      event.preventDefault();
      setAdding(true);
    },
    [mayAdd],
  );
  return (
    <AppPage
      place="wearers"
      title={t('title')}
      bar={
        <>
          <div className="frame-bar-keys">
            <span>
              <KeyCap>{'/'}</KeyCap> {t('keyFind')}
            </span>
            {mayAdd ? (
              <span>
                <KeyCap>{'N'}</KeyCap> {t('keyNew')}
              </span>
            ) : null}
          </div>
          {may(session.viewer.roles, 'merge') ? <Button onClick={() => router.push('/wearers/merge')}>{t('merge')}</Button> : null}
          {may(session.viewer.roles, 'settings') ? <Button onClick={() => setListing(true)}>{t('fromFile')}</Button> : null}
          {mayAdd && !adding ? (
            <Button look="act" keys={['N']} onClick={() => setAdding(true)}>
              {t('add')}
            </Button>
          ) : null}
        </>
      }
    >
      {adding ? (
        <NewWearer onMade={(id) => router.push(`/wearers/${id}`)} onCancel={() => setAdding(false)} />
      ) : (
        <section className="p-6">
          <Field id="find-wearer" label={t('find')} value={search} onValue={setSearch} autoComplete="off" className="max-w-[420px]" hint={t('findHint')} />
          <div aria-live="polite">
            {found.wearers.length === 0 ? <p className="py-6">{search ? t('noneFound', { search }) : t('empty')}</p> : null}
            {found.how === 'alike' && found.wearers.length > 0 ? (
              <p className="py-2">
                <Stated state="watch">{t('alike', { search })}</Stated>
              </p>
            ) : null}
          </div>
          {found.wearers.length > 0 ? <WearerTable wearers={found.wearers} /> : null}
          {found.more ? (
            <p className="p-4 text-center">
              {found.how === 'all' ? <Button onClick={() => void more()}>{t('more')}</Button> : t('typeOn', { count: found.wearers.length })}
            </p>
          ) : null}
        </section>
      )}
      {listing ? <ListPanel of="wearers" onTaken={() => void anew()} onClose={() => setListing(false)} /> : null}
    </AppPage>
  );
}

export const Wearers = withWords({ wearers: wearersWords }, WearersPage);
