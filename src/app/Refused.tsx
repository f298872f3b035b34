import Link from 'next/link';
import { notFound } from 'next/navigation';
import type { Problem } from '@/lib/outcome';
import { translator } from './words';

/** A page that may not be shown, or is not there. */
export function Refused({ problem }: { readonly problem: Problem }) {
  if (problem.kind === 'notFound' || problem.kind === 'invalid') notFound();
  const t = translator('refused');
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
