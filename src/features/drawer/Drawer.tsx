'use client';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useDeferredValue, useState } from 'react';
import { useTranslations } from 'use-intl';
import { SOON_EXPIRED_DAYS } from '@/core';
import drawerWords from '@/i18n/messages/en/drawer.messages.json';
import drawerProblems from '@/i18n/messages/en/drawerProblems.messages.json';
import powerFieldWords from '@/i18n/messages/en/powerField.messages.json';
import { withWords } from '@/i18n/withWords';
import type { DrawerPage as Page } from '@/services/trialStock/queries';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { KeyCap } from '@/ui/marks';
import { AppPage } from '../common/AppPage';
import { useKey } from '../common/keys';
import { OnceAlive } from '../common/OnceAlive';
import { useServer } from '../common/ServerProvider';
import { ExpiredLots } from './ExpiredLots';
import { LotTable } from './LotTable';
import { figuresOf, lotsFound, type Lot } from './model';

const Loans = dynamic(() => import('./Loans').then((m) => m.Loans));
const LotPanel = dynamic(() => import('./LotPanel').then((m) => m.LotPanel));
const ListPanel = dynamic(() => import('../common/ListPanel').then((m) => m.ListPanel));
const ReceiveForm = dynamic(() => import('./ReceiveForm').then((m) => m.ReceiveForm), { ssr: false });

const focusOn = (id: string) => (event: KeyboardEvent) => {
  event.preventDefault();
  document.getElementById(id)?.focus();
};

/** The practice's trial lenses: what is there, what is past its day, what came in. */
function DrawerPage({ stock, loans, libraryTag }: Pick<Page, 'loans' | 'libraryTag'> & { readonly stock: readonly Lot[] }) {
  const t = useTranslations('drawer');
  const { session } = useServer();
  const [search, setSearch] = useState('');
  const [listing, setListing] = useState(false);
  const router = useRouter();
  const [lot, setLot] = useState<Lot | null>(null);
  const later = useDeferredValue(search);
  const { lenses, expired, soon } = figuresOf(stock, session.today);
  useKey(['slash', '/'], focusOn('drawer-search'));
  useKey('n', focusOn('receive-family'));
  return (
    <AppPage
      place="drawer"
      title={t('title')}
      marginOpen={t('marginOpen')}
      margin={<ReceiveForm libraryTag={libraryTag} />}
      bar={
        <>
          <div className="frame-bar-keys">
            <span>
              <KeyCap>{'/'}</KeyCap> {t('keySearch')}
            </span>
            <span>
              <KeyCap>{'N'}</KeyCap> {t('keyReceive')}
            </span>
          </div>
          <Link className="btn" href="/drawer/order" prefetch={false}>
            {t('toOrder')}
          </Link>
          <Link className="btn" href="/drawer/sets" prefetch={false}>
            {t('sets')}
          </Link>
          <Link className="btn" href="/drawer/plan" prefetch={false}>
            {t('plan')}
          </Link>
          <Button onClick={() => setListing(true)}>{t('fromFile')}</Button>
        </>
      }
    >
      <div className="px-6 pt-3 flex flex-wrap gap-x-8 items-start">
        <div className="w-full max-w-[420px]">
          <Field id="drawer-search" label={t('search')} value={search} onValue={setSearch} hint={t('searchHint')} autoComplete="off" />
        </div>
        <div className="pt-7" data-testid="figures">
          <div className="value">{t('figures', { lenses, lots: stock.length })}</div>
          {soon.length > 0 ? <div className="note">{`${t('soonTitle', { days: SOON_EXPIRED_DAYS })}: ${soon.length}`}</div> : null}
        </div>
      </div>
      <ExpiredLots lots={expired} />
      {loans.length > 0 ? (
        <OnceAlive>
          <Loans loans={loans} />
        </OnceAlive>
      ) : null}
      {stock.length === 0 ? <p className="p-6">{t('empty')}</p> : <LotTable lots={lotsFound(stock, later)} search={later} onLot={setLot} />}
      {lot ? <LotPanel lot={stock.find((s) => s.id === lot.id) ?? { ...lot, count: 0 }} onClose={() => setLot(null)} /> : null}
      {listing ? <ListPanel of="trials" onTaken={() => router.refresh()} onClose={() => setListing(false)} /> : null}
    </AppPage>
  );
}

export const Drawer = withWords({ drawer: drawerWords, powerField: powerFieldWords, problems: drawerProblems }, DrawerPage);
