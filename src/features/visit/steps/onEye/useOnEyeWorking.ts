import { useTranslations } from 'use-intl';
import { EYES, type Eye } from '@/core';
import { useBlurWorking } from '../../../common/blurWorking';
import { useEyeWords } from '../../../common/eyeWords';
import type { WorkingBlock } from '../../../common/Working';
import { useVisit } from '../../shell/VisitProvider';
import type { Readings } from './useReadings';
import { costWorking, expectedWorking, nextWorking, routesWorking, seriesWorking, type RouteWords } from './working';

/** Every working of this screen, each eye in turn. */
export function useOnEyeWorking(readings: Readings): WorkingBlock[] {
  const t = useTranslations('onEye');
  const turn = useTranslations('turnDesk.working');
  const fit = useTranslations('fitDesk.working');
  const eyeWords = useEyeWords();
  const blurWorking = useBlurWorking();
  const { record } = useVisit();
  const routeWords = (e: Eye): RouteWords => ({
    title: t('workingTitle', { eye: eyeWords.short(e) }),
    lensAsLabelled: t('workingLens'),
    asItLies: (axis) => t('workingLies', { axis }),
    overAtCornea: t('workingOver'),
    need: t('workingNeed'),
    route1: t('route1'),
    route2: t('route2'),
    gap: t('gap'),
    gapOfMean: t('gapOfMean'),
    meanOnly: t('meanOnly'),
    weighted: t('weightedWorking'),
    gate: t('gate'),
    order: (sum) => t('workingOrder', { turn: sum }),
    made: t('workingMade'),
    foot: t('workingFoot'),
  });
  return EYES.flatMap((e) => {
    const live = readings.live[e];
    const { verdict, made, state, lens, over, stats } = live;
    return [
      routesWorking(`routes-${e}`, live, over, routeWords(e)),
      made && verdict.order ? blurWorking(`blur-${e}`, eyeWords.short(e), verdict.order, made.lens) : null,
      state.refraction && lens && verdict.fromRefraction && verdict.expectedOverRefraction
        ? expectedWorking(
            `expected-${e}`,
            {
              need: verdict.fromRefraction,
              lens: { sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg },
              turn: (over ? live.overTurn : stats?.mean) ?? 0,
              expected: verdict.expectedOverRefraction,
              vertexMm: over?.vertexMm ?? state.refraction.current.vertexMm,
            },
            {
              title: t('expectedTitle', { eye: eyeWords.short(e) }),
              need: t('workingNeed'),
              lies: t('expectedLies'),
              left: t('expectedLeft'),
              atFrame: t('expectedAtFrame'),
              foot: t('workingFoot'),
            },
          )
        : null,
      stats && stats.sd !== null
        ? seriesWorking(`series-${e}`, live.blinks, stats, live.verdict.need?.cylinder ?? lens?.cylinderD ?? 0, record.session.settings, {
            title: turn('seriesTitle', { eye: eyeWords.short(e) }),
            readings: turn('readings'),
            mean: turn('mean'),
            sd: turn('sd'),
            noise: turn('noise'),
            own: turn('own'),
            slope: turn('slope'),
            limit: (cylinder, blur) => turn('limit', { cylinder, blur }),
            three: turn('three'),
            foot: turn('seriesFoot'),
          })
        : null,
      stats && lens && lens.cylinderD !== 0
        ? costWorking(`cost-${e}`, lens.cylinderD, stats.mean, {
            title: turn('costTitle', { eye: eyeWords.short(e) }),
            cylinder: turn('cylinder'),
            blur: turn('blur'),
            foot: turn('costFoot'),
          })
        : null,
      lens?.baseCurveMm && lens.diameterMm && live.family
        ? nextWorking(
            `next-${e}`,
            { baseCurve: lens.baseCurveMm, diameter: lens.diameterMm },
            live.family.blocks.flatMap((b) => b.curves),
            {
              title: fit('sagTitle', { eye: eyeWords.short(e) }),
              foot: fit('sagFoot'),
            },
          )
        : null,
    ].filter((b): b is WorkingBlock => b !== null);
  });
}
