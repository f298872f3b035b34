import Link from 'next/link';
import { translator } from './words';

export default function NotFound() {
  const t = translator('notFoundPage');
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
