'use client';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import { formatAcuity, formatPower, nameOfAdd, type ChangeOutlook, type PairChange } from '@/core';
import { Button } from '@/ui/Button';
import { Stated } from '@/ui/marks';
import { useEyeWords } from '../../../common/eyeWords';
import { useVisit } from '../../shell/VisitProvider';
import type { PairPage } from './usePair';

interface Of {
  readonly page: PairPage;
}
/** The one change to make next, with what it is expected to gain and to cost at every distance; or that the pair is kept. */
export function NextChange({ page }: Of) {
  const t = useTranslations('pairDesk');
  const { record } = useVisit();
  const { verdict, no } = page;
  if (no !== null) return <p className="label">{t(`no.${no}`)}</p>;
  if (!verdict) return null;
  return (
    <section aria-label={t('next')} data-testid="next-change" className="border-t-2 border-ink pt-3">
      <h2 className="mb-1">{t('next')}</h2>
      {verdict.verdict === 'change' ? (
        <Proposed outlook={verdict.proposed} page={page} look="act" />
      ) : (
        <p>
          <Stated state={verdict.verdict === 'stop' ? 'watch' : 'ok'}>{t(verdict.verdict === 'stop' ? `stop.${verdict.why}` : verdict.verdict)}</Stated>{' '}
          {verdict.verdict === 'stop' ? (
            <Link className="btn btn-quiet" href={`/visits/${record.visit.id}/near-vision`} prefetch={false}>
              {t('anotherWay')}
            </Link>
          ) : null}
          {verdict.verdict === 'homeTrial' ? (
            <Link className="btn btn-quiet" href={`/visits/${record.visit.id}/lesson`} prefetch={false}>
              {t('goHome')}
            </Link>
          ) : null}
        </p>
      )}
      {verdict.others.length > 0 ? (
        <details className="mt-2">
          <summary>{t('others')}</summary>
          {verdict.others.slice(0, 5).map((o) => (
            <Proposed key={JSON.stringify(o.change)} outlook={o} page={page} look="plain" />
          ))}
        </details>
      ) : null}
      <p className="note mt-2">{t('model')}</p>
    </section>
  );
}

function useChangeWords(): (change: PairChange) => string {
  const t = useTranslations('pairDesk');
  const eyeWords = useEyeWords();
  return (change) => {
    switch (change.kind) {
      case 'sphere':
        return t('change.sphere', { eye: eyeWords.short(change.eye), by: formatPower(change.by) });
      case 'add':
        return t('change.add', { eye: eyeWords.short(change.eye), add: change.to === null ? t('noAdd') : nameOfAdd(change.to, (band) => t(`band.${band}`)) });
      case 'swap':
        return t('change.swap');
      case 'toric':
        return t('change.toric', { eye: eyeWords.short(change.eye) });
    }
  };
}

function Proposed({ outlook, page, look }: Of & { readonly outlook: ChangeOutlook; readonly look: 'act' | 'plain' }) {
  const t = useTranslations('pairDesk');
  const words = useChangeWords();
  const { record } = useVisit();
  const notation = record.session.settings.acuity;
  return (
    <div className="py-2">
      <div className="flex gap-3 items-center flex-wrap">
        <strong className="power" data-testid={look === 'act' ? 'proposed' : undefined}>
          {words(outlook.change)}
        </strong>
        {outlook.ruled !== null ? <span className="note">{t('byRule')}</span> : null}
        <Button look={look} disabled={page.blocked || page.waiting} onClick={() => void page.change(outlook)}>
          {t('do')}
        </Button>
      </div>
      <ul className="flex gap-x-6 gap-y-1 flex-wrap">
        {outlook.tasks.map((task) => {
          const named = page.tasks.find(({ cm }) => Math.abs((cm >= 600 ? 0 : 100 / cm) - task.demand.vergence) < 1e-6);
          return (
            <li key={task.demand.vergence} className="note">
              {t('outlook', {
                task: named ? t(`tasks.${named.task}`) : `${task.demand.vergence.toFixed(2)} D`,
                now: formatAcuity(task.now, notation),
                then: formatAcuity(Math.round(task.then * 50) / 50, notation),
                said: Math.round(task.satisfactionThen),
              })}
            </li>
          );
        })}
      </ul>
    </div>
  );
}
