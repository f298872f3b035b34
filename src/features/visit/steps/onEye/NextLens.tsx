'use client';
import { useRouter } from 'next/navigation';
import { useTranslations } from 'use-intl';
import { COMFORT_LADDER, nextCurves, refitStep, type Eye } from '@/core';
import { Button } from '@/ui/Button';
import { Stated } from '@/ui/marks';
import { Figure } from '../../../common/Working';
import { useVisit } from '../../shell/VisitProvider';
import { FindingWords } from './findings';
import type { Readings } from './useReadings';

export function ComfortLadder({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('fitDesk');
  return (
    <div className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`} data-testid={`ladder-${eye}`}>
      <ol className="list-decimal pl-5 text-left">
        {COMFORT_LADDER.map((step) => (
          <li key={step}>{t(`ladder.${step}`)}</li>
        ))}
      </ol>
      <FindingWords readings={readings} eye={eye} sign="insideOut" />
      <FindingWords readings={readings} eye={eye} sign="debris" />
    </div>
  );
}

/** The lens to try next, from sags within the family; another family when it has none. */
export function NextLens({ readings, eye }: { readonly readings: Readings; readonly eye: Eye }) {
  const t = useTranslations('fitDesk');
  const router = useRouter();
  const { record, run, busy } = useVisit();
  const { lens, family, state, fitSaid: word, made, verdict } = readings.live[eye];
  const toFamilies = <Button onClick={() => router.push(`/visits/${record.visit.id}/lens`)}>{t('otherFamily')}</Button>;
  // A set has its own steps: its next lens is named there, and no other goes on.
  if (lens?.irregular === true && (word === 'loose' || word === 'tight' || verdict.noOrder === 'refit'))
    return <Button onClick={() => router.push(`/visits/${record.visit.id}/diagnostic-set`)}>{t('nextOfSet')}</Button>;
  if (verdict.noOrder === 'refit' && refitStep(word) === 'stabilisation')
    return (
      <>
        <Stated state="stop">{t('otherStabilisation')}</Stated>
        {toFamilies}
      </>
    );
  if (!state.onEye || (word !== 'loose' && word !== 'tight')) return <span className="label">{word === 'fits' ? t('nextNone') : t('nextLater')}</span>;
  if (!lens || !family || lens.baseCurveMm === null || lens.diameterMm === null) return <span className="label">{t('nextUnknown')}</span>;
  const power = made?.lens.power ?? { sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg };
  const variants = family.blocks.flatMap((b) => b.curves);
  const next = nextCurves({ baseCurve: lens.baseCurveMm, diameter: lens.diameterMm }, variants, word);
  const other = (
    <>
      <span>{t(word === 'loose' ? 'otherLoose' : 'otherTight')}</span>
      {toFamilies}
    </>
  );
  return (
    <span className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`} data-testid={`next-${eye}`}>
      {next.length === 0 ? other : null}
      {next.slice(0, 2).map((n) => (
        <span key={`${n.curve.baseCurve}|${n.curve.diameter}`} className="flex gap-3 items-baseline flex-wrap">
          <Figure id={`next-${eye}`}>
            {t('nextCurve', {
              step: t(`steps.${n.step}`),
              curve: n.curve.baseCurve.toFixed(1),
              diameter: n.curve.diameter.toFixed(1),
              sag: `${n.sagChange < 0 ? '−' : '+'}${Math.abs(n.sagChange * 1000).toFixed(0)}`,
            })}
          </Figure>
          <Button
            disabled={busy || readings.closed}
            onClick={() => {
              const spec = { familyId: family.id, ...power, add: lens.addBand, baseCurve: n.curve.baseCurve, diameter: n.curve.diameter };
              void run('putOnTrials', { right: eye === 'right' ? spec : null, left: eye === 'left' ? spec : null }, t('putOnDone'));
            }}
          >
            {t('putOn')}
          </Button>
        </span>
      ))}
      {verdict.noOrder === 'refit' ? <span className="note">{t('turnsToo')}</span> : null}
    </span>
  );
}
