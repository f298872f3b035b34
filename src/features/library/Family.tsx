'use client';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { may } from '@/core';
import familyWords from '@/i18n/messages/en/family.messages.json';
import libraryWords from '@/i18n/messages/en/library.messages.json';
import { withWords } from '@/i18n/withWords';
import type { FamilyPage } from '@/services/family/queries';
import { Button } from '@/ui/Button';
import { KeyCap } from '@/ui/marks';
import { AppPage } from '../common/AppPage';
import { useServer } from '../common/ServerProvider';
import { Blocks } from './Blocks';
import { FamilyFacts } from './FamilyFacts';
import { FamilyMargin } from './FamilyMargin';
import { extentOf } from './model';

const FamilyEditor = dynamic(() => import('./FamilyEditor').then((m) => m.FamilyEditor));
const FamilyMade = dynamic(() => import('./FamilyMade').then((m) => m.FamilyMade), { ssr: false });

/** One lens family: what it makes as a picture, with a power put on it; its versions, its end, and who is on it. */
function FamilyPage({ page }: { readonly page: FamilyPage }) {
  const t = useTranslations('library');
  const router = useRouter();
  const { session } = useServer();
  const [editing, setEditing] = useState(false);
  const [looked, setLooked] = useState<string | null>(null);
  const newest = page.versions[0];
  const shown = page.versions.find((v) => v.id === (looked ?? page.inForce?.id)) ?? newest;
  const mayChange = may(session.viewer.roles, 'settings');
  if (!newest || !shown) return null;
  const saved = (): void => {
    setEditing(false);
    router.refresh();
  };
  return (
    <AppPage
      place="library"
      title={shown.name}
      strip={<FamilyStrip shown={shown} />}
      margin={editing ? undefined : <FamilyMargin page={page} shown={shown} mayChange={mayChange} onShow={setLooked} />}
      bar={
        <>
          <div className="frame-bar-keys">
            <span>
              <KeyCap>{'R'}</KeyCap> <KeyCap>{'L'}</KeyCap> {t('keyPlace')}
            </span>
          </div>
          <Link className="btn btn-plain" href="/library" prefetch={false}>
            {t('toLibrary')}
          </Link>
          {mayChange ? (
            <Button look={editing ? 'plain' : 'act'} aria-pressed={editing} onClick={() => setEditing(!editing)}>
              {editing ? t('close') : t('changeFamily')}
            </Button>
          ) : null}
        </>
      }
    >
      {editing ? (
        <FamilyEditor code={newest.code} baseVersion={newest.version} lines={page.lines} onSaved={saved} />
      ) : (
        <div className="px-6 py-4">
          <h2 className="mb-2">{shown.id === page.inForce?.id ? t('madeTitle') : t('madeVersion', { version: shown.version })}</h2>
          <FamilyMade page={page} shown={shown} />
          <h2 className="settings-group mt-4">{t('blocks')}</h2>
          <Blocks blocks={shown.blocks} />
          <h2 className="settings-group mt-4">{t('facts')}</h2>
          <FamilyFacts shown={shown} />
        </div>
      )}
    </AppPage>
  );
}

/** What counts first of a family: wear, material, curves, mark. */
function FamilyStrip({ shown }: { readonly shown: FamilyPage['versions'][number] }) {
  const t = useTranslations('library');
  const ofFamily = useTranslations('family');
  const unknown = ofFamily('unknown');
  const cells: readonly (readonly [label: string, lines: readonly string[]])[] = [
    [t('worn'), [ofFamily(`modality.${shown.modality}`), ofFamily(shown.overnightApproved ? 'approved' : 'dayOnly')]],
    [t('material'), [shown.material, t('dkt', { centre: shown.dktCentre ?? unknown, thickest: shown.dktThickest ?? unknown })]],
    [t('curves'), extentOf(shown.blocks)?.curves.slice(0, 2) ?? []],
    [t('mark'), [ofFamily(`marks.${shown.markLayout}`), t('settles', { count: shown.settleMinutes })]],
  ];
  return cells.map(([label, lines]) => (
    <div key={label} className="strip-cell max-wide:hidden">
      <div className="label">{label}</div>
      {lines.map((line) => (
        <div key={line}>{line}</div>
      ))}
    </div>
  ));
}

export const Family = withWords({ family: familyWords, library: libraryWords }, FamilyPage);
