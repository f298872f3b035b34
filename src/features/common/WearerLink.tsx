'use client';
import Link from 'next/link';
import { may } from '@/core';
import { useServer } from './ServerProvider';

/** A wearer's name: the way to the record for whoever may read it, a name for the others. */
export function WearerLink({ id, name, className = 'value' }: { readonly id: string; readonly name: string; readonly className?: string }) {
  const { session } = useServer();
  if (!may(session.viewer.roles, 'clinicalRead')) return <span className={className.replace('underline', '')}>{name}</span>;
  return (
    <Link href={`/wearers/${id}`} prefetch={false} className={className}>
      {name}
    </Link>
  );
}
