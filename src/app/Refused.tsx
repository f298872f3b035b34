import { notFound } from 'next/navigation';
import type { Problem } from '@/lib/outcome';
import { PlainPage } from './PlainPage';

/** A page that may not be shown, or is not there. */
export function Refused({ problem }: { readonly problem: Problem }) {
  if (problem.kind === 'notFound' || problem.kind === 'invalid') notFound();
  return <PlainPage says="refused" />;
}
