'use client';
import { useTranslations } from 'use-intl';
import type { CareWarning as Warning } from '@/core';
import { Stated } from '@/ui/marks';
import careWords from '@/i18n/messages/en/careSystem.messages.json';
import { withWords } from '@/i18n/withWords';

/** What is to be said of these lenses and what they are kept in, wherever both meet. */
function CareWarningLines({ warning }: { readonly warning: Warning }) {
  const t = useTranslations('careSystem');
  const name = warning.name ?? (warning.other ? t(`others.${warning.other}`) : '');
  return (
    <div className="py-2" data-testid="care-warning">
      {warning.findings.map((f) => (
        <p key={f.fault}>
          <Stated state={f.gravity === 'watch' ? 'watch' : 'stop'}>{t(`meets.${f.fault}`, { name })}</Stated>
        </p>
      ))}
    </div>
  );
}

export const CareWarning = withWords({ careSystem: careWords }, CareWarningLines);
