'use client';
import { lazy, Suspense, useState } from 'react';
import { useTranslations } from 'use-intl';
import { mayOpenVisit } from '@/core';
import { Button } from '@/ui/Button';
import { useVisit } from './VisitProvider';

const ChangeKind = lazy(() => import('./ChangeKind').then((m) => ({ default: m.ChangeKind })));

/** What this visit is; pressed, it becomes another, or costs something else. */
export function KindOfVisit() {
  const kinds = useTranslations('steps.kinds');
  const t = useTranslations('frame');
  const { record } = useVisit();
  const [open, setOpen] = useState(false);
  const { kind, closedAt } = record.visit;
  const mayChange = closedAt === null && mayOpenVisit(record.session.viewer.roles, kind);
  return (
    <>
      {mayChange ? (
        <Button look="quiet" aria-label={t('changeKind', { kind: kinds(kind) })} onClick={() => setOpen(true)} data-testid="kind-of-visit">
          {kinds(kind)}
        </Button>
      ) : (
        <span className="label" data-testid="kind-of-visit">
          {kinds(kind)}
        </span>
      )}
      {open ? (
        <Suspense fallback={null}>
          <ChangeKind onClose={() => setOpen(false)} />
        </Suspense>
      ) : null}
    </>
  );
}
