import { useTranslations } from 'use-intl';
import type { CareSystem } from '@/core';

/** What goes with a peroxide wherever one is named: its own case, the whole cycle, never into the eye. */
export function PeroxideCaution({ product }: { readonly product: { readonly system: CareSystem; readonly name: string } | null }) {
  const t = useTranslations('peroxide');
  return product?.system === 'peroxide' ? (
    <p className="label py-2" data-testid="peroxide-caution">
      {t('caution', { name: product.name })}
    </p>
  ) : null;
}
