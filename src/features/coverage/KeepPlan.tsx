'use client';
import Link from 'next/link';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { CoverageLens } from '@/core';
import type { CoverageAnswer } from '@/workers/coverage.worker';
import { Button } from '@/ui/Button';
import { ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { useSending } from '../common/useSending';
import { useRefusalWords } from '../common/words';
import type { CoverageData } from './useCoverage';

/** What the plan keeps of each lens, and none of what it retires, as the drawer's levels: one press. */
export function KeepPlan({ answer, families }: { readonly answer: CoverageAnswer; readonly families: CoverageData['families'] }) {
  const t = useTranslations('coverage');
  const refusal = useRefusalWords();
  const [kept, setKept] = useState<CoverageAnswer | null>(null);
  const { send, problem, busy } = useSending<'setTrialLevels'>(() => setKept(answer));
  const level = ({ familyCode, power, baseCurve, diameter }: CoverageLens, least: number) => {
    const familyId = families.find((f) => f.code === familyCode)?.id;
    return familyId === undefined ? [] : [{ lens: { familyId, ...power, add: null, baseCurve, diameter }, least }];
  };
  const keep = (): void => {
    const levels = [...answer.keep.flatMap((k) => level(k.lens, k.count)), ...answer.retire.flatMap((r) => (r.plan === 0 ? level(r.lens, 0) : []))];
    void send('setTrialLevels', { levels });
  };
  return (
    <div className="pt-3 flex flex-wrap gap-x-4 items-center">
      <Button disabled={busy || answer.keep.length === 0} onClick={keep}>
        {t('keep')}
      </Button>
      {kept === answer ? (
        <p role="status">
          <Stated state="ok">{t('kept')}</Stated>{' '}
          <Link className="underline" href="/drawer/order" prefetch={false}>
            {t('toOrder')}
          </Link>
        </p>
      ) : null}
      {problem ? <ProblemLine>{problem.kind === 'invalid' ? null : refusal(problem)}</ProblemLine> : null}
    </div>
  );
}
