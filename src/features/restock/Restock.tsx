'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useTranslations } from 'use-intl';
import { formatRefraction, RESTOCK_DAYS, SOON_EXPIRED_DAYS, USED_DAYS } from '@/core';
import restockWords from '@/i18n/messages/en/restock.messages.json';
import { withWords } from '@/i18n/withWords';
import type { RestockPage } from '@/services/trialStock/levels';
import { Button } from '@/ui/Button';
import { ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { AppPage } from '../common/AppPage';
import { useSending } from '../common/useSending';
import { useRefusalWords } from '../common/words';

type Line = RestockPage['lines'][number];

/** Trial lenses of which the drawer has fewer than it keeps, by whoever sells them; ordered by a press, by whatever way. */
function RestockBody({ lines, levels }: Omit<RestockPage, 'session'>) {
  const t = useTranslations('restock');
  const suppliers = [...new Set(lines.map((l) => l.supplierName))];
  return (
    <AppPage
      place="drawer"
      title={t('title')}
      bar={
        <>
          <Link className="btn" href="/drawer/plan" prefetch={false}>
            {t('plan')}
          </Link>
          {lines.length > 0 ? (
            <a className="btn" href="/api/restock" download>
              {t('file')}
            </a>
          ) : null}
        </>
      }
    >
      <section className="px-6 py-3">
        <p className="pb-3 max-w-[760px]">
          {t('line', { count: lines.length, levels })}{' '}
          <Link className="underline" href="/drawer" prefetch={false}>
            {t('back')}
          </Link>
        </p>
        {suppliers.map((name) => (
          <OfSupplier key={name ?? ''} name={name} lines={lines.filter((l) => l.supplierName === name)} />
        ))}
      </section>
    </AppPage>
  );
}

function OfSupplier({ name, lines }: { readonly name: string | null; readonly lines: readonly Line[] }) {
  const t = useTranslations('restock');
  const router = useRouter();
  const refusal = useRefusalWords();
  const { send, problem, busy } = useSending<'recordRestock'>(() => router.refresh());
  const title = name ?? t('nobody');
  return (
    <section className="pb-6" aria-label={title}>
      <div className="flex flex-wrap items-center gap-x-4 border-b border-rule-2 pb-1">
        <h2 className="grow">{title}</h2>
        <span className="label">{t('orderedNote', { days: RESTOCK_DAYS })}</span>
        <Button
          look="act"
          disabled={busy}
          aria-label={t('orderedOf', { supplier: title })}
          onClick={() => void send('recordRestock', { lines: lines.map(({ lensId, count }) => ({ lensId, count })) })}
        >
          {t('ordered')}
        </Button>
      </div>
      {problem ? <ProblemLine>{problem.kind === 'invalid' ? null : refusal(problem)}</ProblemLine> : null}
      <table className="ledger w-full">
        <thead>
          <tr>
            {(['lens', 'left', 'level', 'coming', 'why', 'order'] as const).map((head) => (
              <th key={head} scope="col">
                {t(head)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => (
            <RestockRow key={line.lensId} line={line} />
          ))}
        </tbody>
      </table>
    </section>
  );
}

function RestockRow({ line }: { readonly line: Line }) {
  const t = useTranslations('restock');
  const { baseCurveMm, diameterMm, addBand, why } = line;
  const made = [
    ...(baseCurveMm !== null && diameterMm !== null ? [t('curve', { baseCurve: baseCurveMm.toFixed(1), diameter: diameterMm.toFixed(1) })] : []),
    ...(addBand ? [t('add', { add: addBand })] : []),
  ];
  const days = { below: 0, expiring: SOON_EXPIRED_DAYS, used: USED_DAYS }[why];
  return (
    <tr>
      <td>
        <span className="power">{formatRefraction({ sphere: line.sphereD, cylinder: line.cylinderD, axis: line.axisDeg })}</span>{' '}
        <span className="label">{[line.familyName, ...made].join(', ')}</span>
      </td>
      <td className="value">{line.left}</td>
      <td className="value">{line.least ?? t('none')}</td>
      <td className="value">{line.coming}</td>
      <td>
        <Stated state="watch">{t(`reason.${why}`, { expiring: line.expiring, used: line.used, days })}</Stated>
      </td>
      <td className="value">{line.count}</td>
    </tr>
  );
}

export const Restock = withWords({ restock: restockWords }, RestockBody);
