import type { LessonPart, Technique } from '@/core';
import type { SceneName } from '@/ui/drawing/scene';

/** What decides which drawings a part of the lesson shows. */
export interface PagesFor {
  readonly on: Technique;
  readonly off: Technique;
  readonly singleUse: boolean;
  readonly peroxide: boolean;
}

const SETTLE: readonly SceneName[] = ['settleUp', 'settleLeft', 'settleRight', 'settleDown', 'letGo'];
const ON: Readonly<Partial<Record<Technique, readonly SceneName[]>>> = {
  twoHanded: ['liftLid', 'lensReady', 'sticksToFinger', 'placeLens', ...SETTLE],
  oneHanded: ['lowerWhite', 'lidRises'],
};
const OFF: Readonly<Partial<Record<Technique, readonly SceneName[]>>> = {
  slideAndPinch: ['fingerOnLens', 'slideDown', 'pinchPads'],
  lowerThird: ['fingerOnLens', 'pinchPads'],
  rollOff: ['fingerOnLens', 'rollOff'],
  outerCorner: ['outerCorner'],
};

/** The care of these lenses: evening, morning, and what never. */
function carePages({ singleUse, peroxide }: PagesFor): readonly SceneName[] {
  const kept: readonly SceneName[] = peroxide
    ? ['rubLens', 'rinseLens', 'peroxideSoak', 'peroxideBurns', 'ownCaseDry']
    : ['rubLens', 'rinseLens', 'soakLenses', 'emptyCase', 'rinseCase', 'dryCase'];
  return [
    'theTable',
    'washHands',
    'dryHands',
    ...(singleUse ? (['intoTheBin'] as const) : kept),
    'neverWater',
    'droppedLens',
    'dangerSigns',
    'lensesOff',
    ...(peroxide ? (['flushEye'] as const) : []),
  ];
}

/** The drawings of a part of the lesson, in order. */
export function pagesOf(part: LessonPart, of: PagesFor): readonly SceneName[] {
  switch (part) {
    case 'care':
      return carePages(of);
    case 'wayOut':
      return ['openPack', 'onFinger', 'bowl', 'flare', 'palmFold', 'engravedMark'];
    case 'on':
      return ['rehearseLids', 'comfortDrop', ...(ON[of.on] ?? [])];
    case 'moveAndFind':
      return ['nudgeLens', 'underLid', 'strokeLid', 'foldedLens', 'tornLens'];
    case 'off':
      return ['stuckLens', ...(OFF[of.off] ?? [])];
    case 'again':
      return [...(ON[of.on] ?? []), ...(OFF[of.off] ?? [])];
    case 'signOff':
      return ['dangerSigns', 'lensesOff'];
  }
}
