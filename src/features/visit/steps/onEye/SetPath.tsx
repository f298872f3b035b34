'use client';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import {
  CYLINDER_AFTER_DAYS,
  cylinderOfEye,
  cylinderSeen,
  daysInSphere,
  EYES,
  formatAcuity,
  irregularPath,
  settleOf,
  upGazeCurve,
  type Eye,
  type PathStep,
} from '@/core';
import setPathWords from '@/i18n/messages/en/setPath.messages.json';
import { withWords } from '@/i18n/withWords';
import { Stated } from '@/ui/marks';
import { useNow } from '../../../common/Clock';
import { secondsSince } from '../../../common/elapsed';
import { useEyeWords } from '../../../common/eyeWords';
import { useVisit } from '../../shell/VisitProvider';
import type { Live } from './useLive';

/** Steps that another lens of the set answers. */
const ANOTHER: readonly PathStep[] = ['steeper', 'flatter', 'refit'];

/** Over an irregular cornea: what comes next on each eye, and whether a cylinder is looked for. */
function SetPathPart({ live }: { readonly live: Live['live'] }) {
  return <>{EYES.map((e) => (live[e].lens?.irregular === true && !live[e].state.takenOffAt ? <NextStep key={e} eye={e} live={live[e]} /> : null))}</>;
}

function NextStep({ eye, live }: { readonly eye: Eye; readonly live: Live['live'][Eye] }) {
  const t = useTranslations('setPath');
  const eyeWords = useEyeWords();
  const { record } = useVisit();
  const moment = useNow(5000);
  const days = daysInSphere(eye, record.handOvers, (id) => record.lenses[id], record.session.today);
  const { state, lens, acuities, over } = live;
  const { settings } = record.session;
  const on = state.onEye?.current;
  if (!on || !lens) return null;
  const settle = settleOf(lens);
  const minutesOn = Math.floor(secondsSince(on.putOnAt, moment) / 60);
  const said = state.fit?.current.verdict ?? live.fitVerdict.verdict;
  const wanders = live.findings.markUpGaze;
  const rotation = live.verdict.rotation;
  const step = irregularPath({
    minutesOn,
    settle,
    fit: said,
    markSteady: rotation === null || rotation.why === 'few' || rotation.why === 'scatters' ? null : rotation.code !== 'refit',
    upGazeWanders: wanders === undefined ? null : wanders === 'wanders',
    overRefracted: over !== null,
    lensAcuity: acuities.lens,
    overAcuity: acuities.over,
    best: acuities.best ?? null,
  });
  const family = record.ofLenses.find((f) => f.code === lens.familyCode);
  const tried = lens.baseCurveMm !== null && lens.diameterMm !== null ? { baseCurve: lens.baseCurveMm, diameter: lens.diameterMm } : null;
  const steeper =
    wanders === 'wanders' && family && tried
      ? upGazeCurve(
          family.blocks.flatMap((b) => b.curves),
          tried,
        )
      : null;
  const withCylinder = over !== null && over.power.cylinder !== 0;
  const seen = { ...cylinderSeen({ ...state, acuities }), over: over && { cylinder: over.power.cylinder, acuity: acuities.over } };
  const cylinder = step === 'order' || withCylinder ? cylinderOfEye(seen, days, settings.irregularCylinder) : null;
  const data = {
    ...{ eye: eyeWords.short(eye), left: Math.max(1, (step === 'waitFit' ? settle.fit : settle.sight) - minutesOn) },
    best: acuities.best === null || acuities.best === undefined ? '' : ` (${formatAcuity(acuities.best, settings.acuity)})`,
  };
  return (
    <div className="mb-4" data-testid={`path-${eye}`} data-step={step}>
      <p>
        {step === 'notThisKind' ? <Stated state="stop">{t(`step.${step}`, data)}</Stated> : <strong>{t(`step.${step}`, data)}</strong>}{' '}
        {ANOTHER.includes(step) ? (
          <Link className="underline" href={`/visits/${record.visit.id}/diagnostic-set`} prefetch={false}>
            {t('another')}
          </Link>
        ) : null}
      </p>
      {wanders === 'wanders' ? (
        <p>
          <Stated state="watch">{steeper ? t('upGaze', { curve: steeper.baseCurve.toFixed(1) }) : t('upGazeNone')}</Stated>
        </p>
      ) : null}
      {cylinder ? (
        <p>
          <Stated state={cylinder.may || !withCylinder ? 'ok' : 'watch'}>
            {t(`cylinder.${cylinder.why}`, { days: Math.max(1, CYLINDER_AFTER_DAYS - days) })}
          </Stated>
        </p>
      ) : null}
    </div>
  );
}

export const SetPath = withWords({ setPath: setPathWords }, SetPathPart);
