'use client';
import type { ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, type Eye } from '@/core';
import blurWorkingWords from '@/i18n/messages/en/blurWorking.messages.json';
import fitDeskWords from '@/i18n/messages/en/fitDesk.messages.json';
import onEyeWorkingWords from '@/i18n/messages/en/onEyeWorking.messages.json';
import turnDeskWords from '@/i18n/messages/en/turnDesk.messages.json';
import { withWords } from '@/i18n/withWords';
import { useBlurWorking } from '../../../common/blurWorking';
import { useEyeWords } from '../../../common/eyeWords';
import { useOpenWorking, WorkingView } from '../../../common/Working';
import { useVisit } from '../../shell/VisitProvider';
import { WORKINGS, type LiveEye, type WorkingKind } from './model';
import type { Readings } from './useReadings';
import { costWorking, expectedWorking, nextWorking, routesWorking, seriesWorking } from './working';

interface Of {
  readonly eye: Eye;
  readonly live: LiveEye;
  readonly id: string;
}

function Routes({ eye, live, id }: Of) {
  const t = useTranslations('onEyeWorking');
  const block = routesWorking(id, live, live.over, {
    title: t('workingTitle', { eye: useEyeWords().short(eye) }),
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
  return block && <WorkingView block={block} />;
}

function Blur({ eye, live, id }: Of) {
  const blurWorking = useBlurWorking();
  const short = useEyeWords().short(eye);
  const { verdict, made } = live;
  return made && verdict.order ? <WorkingView block={blurWorking(id, short, verdict.order, made.lens)} /> : null;
}

function Expected({ eye, live, id }: Of) {
  const t = useTranslations('onEyeWorking');
  const title = t('expectedTitle', { eye: useEyeWords().short(eye) });
  const { verdict, lens, state, over, stats } = live;
  const { fromRefraction: need, expectedOverRefraction: expected } = verdict;
  if (!state.refraction || !lens || !need || !expected) return null;
  const values = {
    need,
    lens: { sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg },
    turn: (over ? live.overTurn : stats?.mean) ?? 0,
    expected,
    vertexMm: over?.vertexMm ?? state.refraction.current.vertexMm,
  };
  const words = { title, need: t('workingNeed'), lies: t('expectedLies'), left: t('expectedLeft'), atFrame: t('expectedAtFrame'), foot: t('workingFoot') };
  return <WorkingView block={expectedWorking(id, values, words)} />;
}

function Series({ eye, live, id }: Of) {
  const t = useTranslations('turnDesk.working');
  const title = t('seriesTitle', { eye: useEyeWords().short(eye) });
  const { settings } = useVisit().record.session;
  const { stats, blinks, verdict, lens } = live;
  if (!stats) return null;
  const words = {
    title,
    readings: t('readings'),
    mean: t('mean'),
    sd: t('sd'),
    noise: t('noise'),
    own: t('own'),
    slope: t('slope'),
    limit: (cylinder: string, blur: string) => t('limit', { cylinder, blur }),
    three: t('three'),
    foot: t('seriesFoot'),
  };
  return <WorkingView block={seriesWorking(id, blinks, stats, verdict.need?.cylinder ?? lens?.cylinderD ?? 0, settings, words)} />;
}

function Cost({ eye, live, id }: Of) {
  const t = useTranslations('turnDesk.working');
  const title = t('costTitle', { eye: useEyeWords().short(eye) });
  const { stats, lens } = live;
  if (!stats || !lens) return null;
  return <WorkingView block={costWorking(id, lens.cylinderD, stats.mean, { title, cylinder: t('cylinder'), blur: t('blur'), foot: t('costFoot') })} />;
}

function Next({ eye, live, id }: Of) {
  const t = useTranslations('fitDesk.working');
  const title = t('sagTitle', { eye: useEyeWords().short(eye) });
  const { lens, family } = live;
  if (!lens?.baseCurveMm || !lens.diameterMm || !family) return null;
  const curves = family.blocks.flatMap((b) => b.curves);
  const block = nextWorking(id, { baseCurve: lens.baseCurveMm, diameter: lens.diameterMm }, curves, { title, foot: t('sagFoot') });
  return <WorkingView block={block} />;
}

const VIEWS: Readonly<Record<WorkingKind, (of: Of) => ReactNode>> = {
  routes: Routes,
  blur: Blur,
  expected: Expected,
  series: Series,
  cost: Cost,
  next: Next,
};

/** The working that is open. */
function Working({ readings }: { readonly readings: Readings }) {
  const openId = useOpenWorking();
  const [kindText, eyeText] = openId?.split('-') ?? [];
  const kind = WORKINGS.find((k) => k === kindText);
  const eye = EYES.find((e) => e === eyeText);
  if (openId === null || !kind || !eye) return null;
  const View = VIEWS[kind];
  return <View eye={eye} live={readings.live[eye]} id={openId} />;
}

export const OnEyeWorking = withWords(
  { blurWorking: blurWorkingWords, fitDesk: fitDeskWords, onEyeWorking: onEyeWorkingWords, turnDesk: turnDeskWords },
  Working,
);
