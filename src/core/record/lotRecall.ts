import type { Eye, IsoDate, IsoInstant } from '../units';

/** What a call about a recalled lot came to: lenses out and put aside, none of them worn, a message left, not reached. */
export const RECALL_OUTCOMES = ['stopped', 'notWorn', 'message', 'notReached'] as const;
export type RecallOutcome = (typeof RECALL_OUTCOMES)[number];

/** After which of them nobody needs to call again. */
export const isRecallDone = (outcome: RecallOutcome | null): boolean => outcome === 'stopped' || outcome === 'notWorn';

/** A lot that is called back. */
export interface LotRecall {
  readonly id: string;
  readonly lot: string;
  /** Of one family alone; null: whoever's. */
  readonly familyCode: string | null;
  readonly familyName: string | null;
  readonly reason: string;
  readonly openedAt: IsoInstant;
  readonly openedByName: string;
  readonly liftedAt: IsoInstant | null;
}

/** How a lens of the lot came to a wearer: taken home, or only tried here. */
export interface RecalledLens {
  readonly how: 'handedOver' | 'tried';
  readonly eye: Eye;
  readonly on: IsoDate;
  readonly familyName: string;
  readonly lenses: number;
}

/** Somebody who had lenses of a recalled lot. */
export interface RecalledWearer {
  readonly wearerId: string;
  readonly recordNumber: number;
  readonly name: string;
  readonly telephone: string | null;
  readonly had: readonly RecalledLens[];
  readonly outcome: RecallOutcome | null;
  readonly calledAt: IsoInstant | null;
  readonly calledByName: string | null;
  readonly note: string | null;
}

/** Who is called first: lenses at home before lenses only tried, the newest first; who is done with last. */
export const recallOrder = (a: RecalledWearer, b: RecalledWearer): number => {
  const rank = (w: RecalledWearer): number => (isRecallDone(w.outcome) ? 2 : w.had.some((h) => h.how === 'handedOver') ? 0 : 1);
  const newest = (w: RecalledWearer): string =>
    w.had
      .map((h) => h.on)
      .sort()
      .at(-1) ?? '';
  return rank(a) - rank(b) || newest(b).localeCompare(newest(a)) || a.recordNumber - b.recordNumber;
};
