'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { firstStep, mayOpenVisit, stepSlug, VISIT_KINDS, type VisitKind } from '@/core';
import type { Problem } from '@/lib/outcome';
import { Button } from '@/ui/Button';
import { ProblemLine } from '@/ui/Field';
import { Panel } from '@/ui/Panel';
import { useServer } from '../common/ServerProvider';
import { useRefusalWords } from '../common/words';

/** Which kind of visit is opened. */
export function NewVisit({ wearerId, onClose }: { readonly wearerId: string; readonly onClose: () => void }) {
  const t = useTranslations('wearer');
  const kinds = useTranslations('today.kind');
  const refusal = useRefusalWords();
  const router = useRouter();
  const { command, session } = useServer();
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const begin = async (kind: VisitKind): Promise<void> => {
    setBusy(true);
    const done = await command('openVisit', { wearerId, kind });
    setBusy(false);
    if (done?.ok) router.push(`/visits/${done.value.visitId}/${stepSlug(firstStep(kind))}`);
    else if (done) setProblem(done.error);
  };
  return (
    <Panel open onClose={onClose} title={t('visitTitle')}>
      <div className="flex flex-col gap-2">
        {VISIT_KINDS.filter((kind) => mayOpenVisit(session.viewer.roles, kind)).map((kind) => (
          <Button key={kind} disabled={busy} onClick={() => void begin(kind)}>
            {kinds(kind)}
          </Button>
        ))}
        {problem ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
      </div>
    </Panel>
  );
}
