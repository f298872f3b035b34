'use client';
import { useRouter } from 'next/navigation';
import { useTranslations } from 'use-intl';
import { may } from '@/core';
import { useServer } from '../common/ServerProvider';
import { AppPage } from '../common/AppPage';
import { FamilyEditor } from './FamilyEditor';
import libraryWords from '@/i18n/messages/en/library.messages.json';
import { withWords } from '@/i18n/withWords';

/** A family that is not in the library yet. */
function NewFamilyPage() {
  const t = useTranslations('library');
  const router = useRouter();
  const { session } = useServer();
  return (
    <AppPage place="library" title={t('newTitle')}>
      {may(session.viewer.roles, 'settings') ? (
        <FamilyEditor code={null} baseVersion={0} lines={[]} onSaved={(code) => router.push(`/library/${code}`)} />
      ) : (
        <p className="p-8">{t('importAdmin')}</p>
      )}
    </AppPage>
  );
}

export const NewFamily = withWords({ library: libraryWords }, NewFamilyPage);
