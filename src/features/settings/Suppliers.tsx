'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { formatMinuteOfDay, type Supplier } from '@/core';
import { formatMoney } from '@/i18n/format';
import deskProblems from '@/i18n/messages/en/deskProblems.messages.json';
import diaryProblems from '@/i18n/messages/en/diaryProblems.messages.json';
import suppliersWords from '@/i18n/messages/en/suppliers.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Stated } from '@/ui/marks';
import { AppPage } from '../common/AppPage';
import { useServer } from '../common/ServerProvider';
import { useRefusalWords } from '../common/words';
import { SupplierForm } from './SupplierForm';

/** Who sells lenses to the practice, and by what way orders go there. */
function SuppliersPage({ suppliers }: { readonly suppliers: readonly Supplier[] }) {
  const t = useTranslations('suppliers');
  const router = useRouter();
  const [open, setOpen] = useState<string | null>(null);
  return (
    <AppPage place="settings" title={t('title')}>
      <section className="px-6 py-3 max-w-[820px]">
        <p className="label pb-2">{t('line')}</p>
        {suppliers.length === 0 ? <p className="py-2">{t('none')}</p> : null}
        {suppliers.map((supplier) => (
          <SupplierLine key={supplier.id} supplier={supplier} onChange={() => setOpen(supplier.id)} />
        ))}
        <Button className="mt-4" onClick={() => setOpen('new')}>
          {t('add')}
        </Button>
      </section>
      {open ? <SupplierForm supplier={suppliers.find((s) => s.id === open) ?? null} onClose={() => setOpen(null)} onDone={() => router.refresh()} /> : null}
    </AppPage>
  );
}

function SupplierLine({ supplier, onChange }: { readonly supplier: Supplier; readonly onChange: () => void }) {
  const t = useTranslations('suppliers');
  const refusal = useRefusalWords();
  const { command, session } = useServer();
  const [secret, setSecret] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const renew = async (): Promise<void> => {
    const done = await command('renewSupplierSecret', { supplierId: supplier.id });
    if (!done) return;
    setSecret(done.ok ? done.value.secret : null);
    setProblem(done.ok ? null : refusal(done.error));
  };
  return (
    <div className="border-b border-rule py-3" data-testid="supplier">
      <div className="flex justify-between gap-4">
        <div>
          <span className="value">{supplier.name}</span> {supplier.ended ? <Stated state="stop">{t('ended')}</Stated> : null}
          <p className="label">
            {[
              supplier.makers.length === 0 ? t('allMakers') : supplier.makers.join(', '),
              supplier.endpoint ?? t('byTelephone', { telephone: supplier.telephone ?? '' }),
              t('leaves', { time: formatMinuteOfDay(supplier.cutOffMinute) }),
              supplier.minimumMinor > 0 ? `${t('minimum')} ${formatMoney(supplier.minimumMinor, session.practice.currency)}` : null,
              supplier.toWearers ? t('toWearers') : null,
            ]
              .filter(Boolean)
              .join(' · ')}
          </p>
          <p className="label">{supplier.learnedLeadDays === null ? t('notLearned') : t('learned', { days: supplier.learnedLeadDays })}</p>
        </div>
        <div className="flex gap-2 items-start">
          {supplier.endpoint === null ? null : (
            <Button look="quiet" onClick={() => void renew()}>
              {t('secret')}
            </Button>
          )}
          <Button onClick={onChange}>{t('change')}</Button>
        </div>
      </div>
      {secret ? (
        <p className="pt-2">
          {t('secretLine')} <code className="font-mono break-all block">{secret}</code>
          <span className="label">{t('hook', { path: `/api/suppliers/${supplier.id}/messages` })}</span>
        </p>
      ) : null}
      {problem ? <Stated state="stop">{problem}</Stated> : null}
    </div>
  );
}

export const Suppliers = withWords({ suppliers: suppliersWords, problems: { ...diaryProblems, ...deskProblems } }, SuppliersPage);
