import Link from 'next/link';
import { translator } from './words';

/** A page that only says something and leads back. */
export function PlainPage({ says }: { readonly says: 'refused' | 'notFoundPage' }) {
  const t = translator(says);
  return (
    <main className="p-10 max-w-[560px]">
      <h1 className="power mb-3">{t('title')}</h1>
      <p className="mb-4">{t('text')}</p>
      <Link className="btn" href="/">
        {t('back')}
      </Link>
    </main>
  );
}
