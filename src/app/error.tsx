'use client';
import { useTranslations } from 'use-intl';
import { MessagesProvider } from '@/i18n/MessagesProvider';
import { Button } from '@/ui/Button';

/** A page that could not be made: what did not happen, what is safe, what to do. */
export default function Failed({ reset }: { readonly reset: () => void }) {
  return (
    <MessagesProvider timeZone="UTC">
      <Words reset={reset} />
    </MessagesProvider>
  );
}

function Words({ reset }: { readonly reset: () => void }) {
  const t = useTranslations('failed');
  return (
    <main className="p-10 max-w-[560px]">
      <h1 className="power mb-3">{t('title')}</h1>
      <p className="mb-4">{t('text')}</p>
      <Button look="act" onClick={reset}>
        {t('again')}
      </Button>
    </main>
  );
}
