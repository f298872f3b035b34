'use client';
import Link from 'next/link';
import { lazy, Suspense } from 'react';
import { useTranslations } from 'use-intl';
import { formatRefraction, type DrawerDifference } from '@/core';
import coverageWords from '@/i18n/messages/en/coverage.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { AppPage } from '../common/AppPage';
import { KeepPlan } from './KeepPlan';
import { MOST_DEPTH, MOST_LENSES, useCoverage, type CoverageData } from './useCoverage';

const CoverageChart = lazy(() => import('./CoverageChart').then((m) => ({ default: m.CoverageChart })));

/** Which trial lenses let most of the practice's wearers walk out with a pair; what to buy, and what serves nobody. */
function CoverageBody({ data }: { readonly data: CoverageData }) {
  const t = useTranslations('coverage');
  const page = useCoverage(data);
  const { answer, share } = page;
  const nameOf = (code: string): string => data.families.find((f) => f.code === code)?.name ?? code;
  return (
    <AppPage
      place="drawer"
      title={t('title')}
      marginOpen={t('why')}
      margin={
        <>
          <h2 className="mb-2">{t('why')}</h2>
          <p>{t('whyText')}</p>
        </>
      }
      bar={
        share === null ? (
          <Button look="act" disabled={data.needs.length === 0} onClick={() => void page.plan()}>
            {t('plan')}
          </Button>
        ) : (
          <>
            <span role="status" className="value">
              {t('progress', { percent: Math.round(share * 100) })}
            </span>
            <Button onClick={page.stop}>{t('stop')}</Button>
          </>
        )
      }
    >
      <section className="px-6 py-3">
        <p className="pb-3 max-w-[760px]">
          {data.needs.length === 0 ? t('none') : t('line', { wearers: data.needs.length })}{' '}
          <Link className="underline" href="/drawer" prefetch={false}>
            {t('back')}
          </Link>
        </p>
        <div className="flex flex-wrap gap-x-6">
          <Field
            className="w-[200px]"
            label={t('most')}
            value={page.most}
            onValue={page.setMost}
            inputMode="numeric"
            problem={page.faults.most ? t('numberWrong', MOST_LENSES) : null}
          />
          <Field
            className="w-[260px]"
            label={t('depth')}
            value={page.depth}
            onValue={page.setDepth}
            inputMode="numeric"
            hint={t('depthHint')}
            problem={page.faults.depth ? t('numberWrong', MOST_DEPTH) : null}
          />
        </div>
        <fieldset className="pb-3">
          <legend className="label">{t('families')}</legend>
          <div className="flex flex-wrap gap-x-5">
            {data.families.map((family) => (
              <label key={family.code} className="flex gap-2 items-center min-h-8">
                <input type="checkbox" className="w-5 h-5" checked={page.codes.includes(family.code)} onChange={() => page.toggle(family.code)} />
                {family.name}
              </label>
            ))}
          </div>
          {page.faults.families ? <ProblemLine>{t('familiesNone')}</ProblemLine> : null}
        </fieldset>
        {answer ? (
          <div data-testid="plan">
            <p className="py-2">
              <Stated state="ok">
                {t('result', {
                  covered: answer.plan.covered,
                  wearers: answer.plan.wearers,
                  share: `${answer.plan.wearers === 0 ? 0 : Math.round((answer.plan.covered / answer.plan.wearers) * 100)} %`,
                })}
              </Stated>{' '}
              {t('lenses', { lenses: answer.plan.keep.reduce((n, k) => n + k.count, 0), kinds: answer.plan.keep.length })}{' '}
              {answer.plan.unreachable > 0 ? t('unreachable', { count: answer.plan.unreachable }) : null}
            </p>
            <Suspense fallback={<div className="h-[260px]" />}>
              <CoverageChart
                points={answer.plan.points}
                wearers={answer.plan.wearers}
                label={t('chart')}
                lensesLabel={t('axisLenses')}
                wearersLabel={t('axisWearers')}
              />
            </Suspense>
            <KeepPlan answer={answer} families={data.families} />
            <div className="grid grid-cols-1 wide:grid-cols-2 gap-8 pt-4">
              <Differences title={t('buy')} none={t('nothingToBuy')} rows={answer.buy} nameOf={nameOf} />
              <Differences title={t('retire')} none={t('nothingToRetire')} rows={answer.retire} nameOf={nameOf} />
            </div>
          </div>
        ) : null}
      </section>
    </AppPage>
  );
}

function Differences({
  title,
  none,
  rows,
  nameOf,
}: {
  readonly title: string;
  readonly none: string;
  readonly rows: readonly DrawerDifference[];
  readonly nameOf: (code: string) => string;
}) {
  const t = useTranslations('coverage');
  return (
    <section aria-label={title}>
      <h2 className="border-b border-rule-2 pb-1">{title}</h2>
      {rows.length === 0 ? (
        <p className="label py-2">{none}</p>
      ) : (
        <table className="ledger w-full">
          <thead>
            <tr>
              {(['lens', 'has', 'keeps'] as const).map((head) => (
                <th key={head} scope="col">
                  {t(head)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(({ lens, has, plan }, i) => (
              <tr key={i}>
                <td>
                  <span className="power">{formatRefraction(lens.power)}</span>{' '}
                  <span className="label">{`${nameOf(lens.familyCode)} ${t('curve', { baseCurve: lens.baseCurve, diameter: lens.diameter })}`}</span>
                </td>
                <td className="value">{has}</td>
                <td className="value">{plan}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

export const Coverage = withWords({ coverage: coverageWords }, CoverageBody);
