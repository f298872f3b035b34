'use client';
import { lazy, Suspense } from 'react';
import { useTranslations } from 'use-intl';
import { formatRefraction, type Eye } from '@/core';
import { formatElapsed, formatTime } from '@/i18n/format';
import { LensToken, type Ring } from '@/ui/LensToken';
import { Stated } from '@/ui/marks';
import { useNow } from '../../../common/Clock';
import { Correctable } from '../../shell/Correct';
import { useEyeWords } from '../../../common/eyeWords';
import { useVisit } from '../../shell/VisitProvider';
import type { LiveEye } from './model';
import { useMadeWords } from './OrderRows';
import { secondsSince } from '../../../common/elapsed';

// Few lenses that were taken off go back.
const PutBack = lazy(() => import('./PutBack').then((m) => ({ default: m.PutBack })));

/** The lens on one eye: which, since when, settled or not, and the earlier ones behind it. */
export function LensOn({ eye, live }: { readonly eye: Eye; readonly live: LiveEye }) {
  const t = useTranslations('onEye');
  const eyeWords = useEyeWords();
  const { record, run, busy } = useVisit();
  const made = useMadeWords();
  const moment = useNow();
  const { state, lens } = live;
  const zone = record.session.practice.timeZone;
  // Lenses that were never on stay to be read; those that were are in the lens line.
  const earlier = record.facts.onEye.filter((c) => c.current === null && c.rows[0]?.eye === eye);
  const describe = (row: { lensId: string | null; description: string | null }): string => {
    const l = row.lensId ? record.lenses[row.lensId] : undefined;
    return l ? `${l.familyName} ${formatRefraction({ sphere: l.sphereD, cylinder: l.cylinderD, axis: l.axisDeg })}` : (row.description ?? '');
  };
  const old = earlier.map((c) => (
    <span key={c.rootId} className="note">
      <Correctable kind="lensOnEye" chain={c} show={describe} />
    </span>
  ));
  if (!state.onEye) return <>{old.length > 0 ? old : <span className="label">{t('noLens')}</span>}</>;
  const row = state.onEye.current;
  const extra = record.facts.onEyeExtras.find((e) => e.lensOnEyeId === row.rootId);
  const elapsed = secondsSince(row.putOnAt, moment);
  const settle = lens?.settleMinutes ?? 15;
  const ring: Ring = state.fit?.current.verdict ?? 'unjudged';
  const geometry = lens?.geometry ?? 'sphere';
  const curves = `${lens?.baseCurveMm?.toFixed(1) ?? ''} / ${lens?.diameterMm?.toFixed(1) ?? ''}`;
  const ofSet = record.sets.find((l) => l.id === row.diagnosticLensId);
  const power = lens ? made({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg }, geometry) : t('powerUnknown');
  const actions = (
    <>
      {!state.takenOffAt ? (
        <button
          type="button"
          className="btn btn-quiet"
          disabled={busy || record.visit.closedAt !== null}
          onClick={() => void run('takeOff', { lensOnEyeIds: [row.rootId] })}
        >
          {t('takeOff')}
        </button>
      ) : null}
      <Correctable kind="lensOnEye" chain={state.onEye} show={describe} fromDrawer={(r) => r.trialStockId !== null} />
    </>
  );
  return (
    <div className={`flex gap-3 items-center ${eye === 'left' ? 'flex-row-reverse' : ''}`}>
      <div className={`flex flex-col gap-0.5 ${eye === 'right' ? 'items-end' : 'items-start'}`}>
        <span className="power" data-testid={`on-${eye}`}>
          {power}
        </span>
        <span className="note">
          {ofSet
            ? t('setLine', { number: ofSet.number, family: ofSet.setName, curves })
            : row.source === 'trial'
              ? t('trialLine', {
                  number: row.trialNumber ?? 1,
                  family: lens?.familyName ?? '',
                  curves,
                  lot: row.lot ?? '',
                })
              : row.source === 'dispensed' || row.source === 'order'
                ? t('wornLine', {
                    family: lens?.familyName ?? '',
                    curves,
                    lot: row.lot ?? 'none',
                  })
                : t('broughtLine', { name: row.description ?? lens?.familyName ?? '' })}
        </span>
        <span className={`flex gap-3 items-baseline flex-wrap ${eye === 'right' ? 'flex-row-reverse' : ''}`}>
          {state.choice ? (
            <Stated state="watch">{t('takenUp', { why: state.choice.why, name: state.choice.chosenByName })}</Stated>
          ) : state.takenOffAt ? (
            <span className="label">
              {t('takenOff', { time: formatTime(state.takenOffAt, zone) })}
              <Suspense fallback={null}>
                <PutBack lensOnEyeId={row.rootId} />
              </Suspense>
            </span>
          ) : elapsed >= settle * 60 ? (
            <Stated state="ok">{t('settled', { time: formatElapsed(elapsed) })}</Stated>
          ) : (
            <span className="label" data-testid={`settling-${eye}`}>
              {t('settling', { time: formatElapsed(elapsed), asked: settle })}
            </span>
          )}
          {actions}
        </span>
        {!state.confirmed ? (
          <span className="flex flex-wrap gap-2 items-center">
            <Stated state="stop">{lens ? t('whoSays') : t('unknownLens')}</Stated>
            {lens ? (
              <>
                <button
                  type="button"
                  className="btn btn-quiet"
                  disabled={busy}
                  onClick={() => void run('confirmLens', { lensOnEyeId: row.rootId, how: 'boxSeen' })}
                >
                  {t('boxSeen')}
                </button>
                <button
                  type="button"
                  className="btn btn-quiet"
                  disabled={busy}
                  onClick={() => void run('confirmLens', { lensOnEyeId: row.rootId, how: 'wearerSaid' })}
                >
                  {t('wearerSaid')}
                </button>
              </>
            ) : null}
          </span>
        ) : null}
        {extra?.withdrawnOffAt ? (
          <span className="note">
            <del className="struck no-underline">{t('takenOff', { time: formatTime(extra.withdrawnOffAt, zone) })}</del>{' '}
            {t('withdrawn', { reason: extra.withdrawnReason ?? '' })}
          </span>
        ) : null}
        {old}
      </div>
      <LensToken
        size={44}
        ring={ring}
        geometry={geometry}
        rotationLeft={Math.round(live.stats?.mean ?? live.turn)}
        axisGiven={lens && lens.cylinderD !== 0 ? lens.axisDeg - (live.stats?.mean ?? 0) : null}
        axisAsked={live.verdict.fromRefraction && live.verdict.fromRefraction.cylinder !== 0 ? live.verdict.fromRefraction.axis : null}
        label={t('tokenLabel', { eye: eyeWords.name(eye), power, turn: eyeWords.turn(Math.round(live.stats?.mean ?? 0)) })}
      />
    </div>
  );
}
