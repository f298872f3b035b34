'use client';
import Link from 'next/link';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { mayOpenVisit } from '@/core';
import todayWords from '@/i18n/messages/en/today.messages.json';
import visitKindProblems from '@/i18n/messages/en/visitKindProblems.messages.json';
import visitKindWords from '@/i18n/messages/en/visitKind.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { ChangeKind } from './ChangeKind';
import { useVisit } from './VisitProvider';

/** What this visit is; pressed, it becomes another, or costs something else. */
function KindButton() {
  const kinds = useTranslations('today.kind');
  const t = useTranslations('visitKind');
  const { record } = useVisit();
  const [open, setOpen] = useState(false);
  const { kind, closedAt } = record.visit;
  const mayChange = closedAt === null && mayOpenVisit(record.session.viewer.roles, kind);
  return (
    <>
      {mayChange ? (
        <Button look="quiet" aria-label={t('change', { kind: kinds(kind) })} onClick={() => setOpen(true)} data-testid="kind-of-visit">
          {kinds(kind)}
        </Button>
      ) : (
        <span className="label" data-testid="kind-of-visit">
          {kinds(kind)}
        </span>
      )}
      {kind === 'redEye' ? null : (
        <Link className="btn btn-quiet" href={`/visits/${record.visit.id}/red-eye`} prefetch={false}>
          {t('redEye')}
        </Link>
      )}
      {open ? <ChangeKind onClose={() => setOpen(false)} /> : null}
    </>
  );
}

export const KindOfVisit = withWords({ today: todayWords, visitKind: visitKindWords, problems: visitKindProblems }, KindButton);
