import type { PracticeSettings } from '../practiceSettings';
import type { CareTopic } from '../teaching/careTopics';

/** What decides which lines the page has. */
export interface LinesFor {
  /** Topics of these lenses and this wearer, see `careTopicsFor`. */
  readonly topics: readonly CareTopic[];
  readonly singleUse: boolean;
  readonly settings: Pick<PracticeSettings, 'makeUp'>;
}
interface Line {
  readonly line: string;
  /** The topic in which it was taught: nothing stands on the page that nobody taught. */
  readonly topic: CareTopic;
  readonly side: 'do' | 'dont';
  readonly when?: (of: LinesFor) => boolean;
}

/**
 * What to do and what not to do, each from the topic in which it is taught.
 * @source common practice
 */
export const HOME_LINES = [
  { line: 'washHands', topic: 'cleanDryHands', side: 'do' },
  { line: 'rightFirst', topic: 'cleanDryHands', side: 'do' },
  { line: 'lensesBeforeMakeUp', topic: 'cleanDryHands', side: 'do', when: ({ settings }) => settings.makeUp === 'lensesFirst' },
  { line: 'powdersBeforeLenses', topic: 'cleanDryHands', side: 'do', when: ({ settings }) => settings.makeUp === 'powdersFirst' },
  { line: 'bowl', topic: 'rightWayOut', side: 'do' },
  { line: 'glassesWithYou', topic: 'glassesAlways', side: 'do' },
  { line: 'dryLens', topic: 'stuckLens', side: 'do' },
  { line: 'lostLens', topic: 'moveAndFind', side: 'do' },
  { line: 'rollOff', topic: 'rollOff', side: 'do' },
  { line: 'droppedSoak', topic: 'droppedLens', side: 'do', when: ({ singleUse }) => !singleUse },
  { line: 'dropsOnWaking', topic: 'overnightRules', side: 'do' },
  { line: 'noWater', topic: 'noWater', side: 'dont' },
  { line: 'noSleeping', topic: 'neverSleep', side: 'dont' },
  { line: 'notMoreNights', topic: 'overnightRules', side: 'dont' },
  { line: 'noToppingUp', topic: 'freshSolution', side: 'dont' },
  { line: 'noOtherCase', topic: 'ownCaseFullHours', side: 'dont' },
  { line: 'noSharing', topic: 'cleanDryHands', side: 'dont' },
  { line: 'notPastItsDays', topic: 'replaceOnTime', side: 'dont' },
  { line: 'sinkAway', topic: 'droppedLens', side: 'dont', when: ({ singleUse }) => !singleUse },
  { line: 'droppedAway', topic: 'droppedLens', side: 'dont', when: ({ singleUse }) => singleUse },
  { line: 'notOnRedEye', topic: 'dangerSigns', side: 'dont' },
] as const satisfies readonly Line[];
export type HomeLine = (typeof HOME_LINES)[number]['line'];

/**
 * The lines of the page, in its order; those of topics that these lenses do not have are left out.
 * @example homeLines({topics: ['noWater'], singleUse: true, settings: {makeUp: 'lensesFirst'}}).dont → ['noWater']
 */
export function homeLines(of: LinesFor): Readonly<Record<'do' | 'dont', readonly HomeLine[]>> {
  const rows: readonly (Line & { readonly line: HomeLine })[] = HOME_LINES;
  const lines = (side: Line['side']): readonly HomeLine[] =>
    rows.filter((l) => l.side === side && of.topics.includes(l.topic) && (l.when?.(of) ?? true)).map((l) => l.line);
  return { do: lines('do'), dont: lines('dont') };
}
