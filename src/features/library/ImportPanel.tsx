'use client';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import { formatMoment } from '@/i18n/format';
import type { LibraryPage } from '@/services/family/queries';
import { useServer } from '../common/ServerProvider';

const ImportForm = dynamic(() => import('./ImportForm').then((m) => m.ImportForm));

/** A catalogue file is brought in here; what was brought in before stands below. */
export function ImportPanel({ imports, mayChange }: { readonly imports: LibraryPage['imports']; readonly mayChange: boolean }) {
  const t = useTranslations('library');
  const { session } = useServer();
  return (
    <section data-testid="import">
      <h2 className="mb-2">{t('importTitle')}</h2>
      {mayChange ? <ImportForm /> : <p className="label mb-3">{t('importAdmin')}</p>}
      <p className="note mt-3">{t('importHeader')}</p>
      {imports.length > 0 ? <h2 className="mt-5 mb-2">{t('importsBefore')}</h2> : null}
      {imports.map((i) => (
        <div key={i.id} className="border-t border-rule py-2">
          {mayChange ? (
            <Link className="underline break-all" href={`/library/import/${i.id}`} prefetch={false}>
              {i.fileName}
            </Link>
          ) : (
            <span className="break-all">{i.fileName}</span>
          )}
          <span className="block note">
            {t(`importState.${i.state}`)} · {t('versionBy', { name: i.createdByName, moment: formatMoment(i.createdAt, session.practice.timeZone) })}
          </span>
        </div>
      ))}
    </section>
  );
}
