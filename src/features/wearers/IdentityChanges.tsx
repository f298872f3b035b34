'use client';
import { useTranslations } from 'use-intl';
import { formatDay, formatMoment } from '@/i18n/format';
import type { IdentityChangeRow } from '@/core';

/** What a wearer's identity was before each change, who changed it and when. */
export function IdentityChanges({ changes, zone }: { readonly changes: readonly IdentityChangeRow[]; readonly zone: string }) {
  const t = useTranslations('wearer');
  if (changes.length === 0) return null;
  return (
    <section className="mt-5" data-testid="identity-changes">
      <h2 className="mb-2">{t('identityWas')}</h2>
      {changes.map((c) => (
        <p key={c.version} className="mb-2">
          {[c.was.name, c.was.birthDate === null ? null : formatDay(c.was.birthDate), c.was.telephone, c.was.occupation, c.was.guardian]
            .filter((v) => v !== null)
            .join(', ')}
          <span className="note block">{t('identityChanged', { name: c.changedByName, time: formatMoment(c.changedAt, zone) })}</span>
        </p>
      ))}
    </section>
  );
}
