import type { Eye, IsoInstant } from '../units';
import { FACT_KIND_NAMES, type FactKind } from './factKinds';

/** What stands in a wearer's timeline beside the facts of visits. */
export const TIMELINE_OTHERS = [
  'visitOpened',
  'visitClosed',
  'historyAnswer',
  'stopOpened',
  'stopEnded',
  'stopOverridden',
  'referral',
  'kindDecided',
  'prescription',
  'prescriptionCopy',
  'outsidePrescription',
  'sellersRequest',
  'order',
  'orderEvent',
  'orderReceipt',
  'lessonSignedOff',
  'appointment',
  'picture',
  'identityChange',
  'examinedElsewhere',
] as const;
export type TimelineWhat = FactKind | (typeof TIMELINE_OTHERS)[number];

/** Filters of the timeline, in the order of their presses. */
export const TIMELINE_FILTERS = ['all', 'lenses', 'measured', 'eyeHealth', 'asked', 'papers', 'supply', 'diary', 'corrections'] as const;
export type TimelineFilter = (typeof TIMELINE_FILTERS)[number];

const SHOWN: Readonly<Record<Exclude<TimelineFilter, 'all' | 'corrections'>, readonly TimelineWhat[]>> = {
  lenses: ['lensOnEye', 'handOver', 'wornAnswer', 'returnToWear', 'kindDecided'],
  measured: [
    'refraction',
    'overRefraction',
    'rotation',
    'fit',
    'lensFinding',
    'acuityBoth',
    'eyeAcuity',
    'nearFinding',
    'taskSight',
    'heldQuarter',
    'pairChange',
  ],
  eyeHealth: ['finding', 'cornealLesion', 'adverseEvent', 'returnToWear', 'stopOpened', 'stopEnded', 'stopOverridden', 'referral', 'picture'],
  asked: [
    'careSystem',
    'lessonInstruction',
    'historyAnswer',
    'aftercareAnswer',
    'aftercareEnd',
    'wornAnswer',
    'examinedElsewhere',
    'lessonAttempt',
    'lessonTopic',
    'lessonSignedOff',
  ],
  papers: ['prescription', 'prescriptionCopy', 'outsidePrescription', 'sellersRequest', 'referral'],
  supply: ['order', 'orderEvent', 'orderReceipt', 'handOver'],
  diary: ['appointment', 'visitOpened', 'visitClosed'],
};

/**
 * What a filter shows; corrections are of every kind of fact, and of who somebody is.
 * @example timelineOf('papers').includes('prescription') → true
 */
export const timelineOf = (filter: TimelineFilter): readonly TimelineWhat[] => {
  if (filter === 'all') return [...FACT_KIND_NAMES, ...TIMELINE_OTHERS];
  if (filter === 'corrections') return [...FACT_KIND_NAMES, 'identityChange'];
  return SHOWN[filter];
};

/** One line of a wearer's timeline. */
export interface TimelineEntry {
  readonly id: string;
  readonly what: TimelineWhat;
  readonly at: IsoInstant;
  readonly eye: Eye | null;
  readonly visitId: string | null;
  readonly byName: string | null;
  /** What was recorded, column by column. */
  readonly data: Readonly<Record<string, unknown>>;
  /** Of a correction: what it stands for, and why; it takes the fact back where it is voided. */
  readonly was: Readonly<Record<string, unknown>> | null;
  readonly reason: string | null;
  readonly voided: boolean;
}
