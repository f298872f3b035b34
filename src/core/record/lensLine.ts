import { dayIn } from '../calendar/dates';
import type { Eye, IsoDate } from '../units';
import type { FactChain } from './chains';
import type { HandOverFact, WornAnswerFact } from './visitFacts';
import type { BroughtAlong } from './wornNow';

/** A stretch of time in which one eye wore one lens. */
export interface LensSpan {
  readonly lensId: string;
  readonly from: IsoDate;
  /** The day on which the next lens came; null while it is worn. */
  readonly to: IsoDate | null;
  readonly known: 'handedOver' | 'boughtElsewhere' | 'broughtAlong';
}

export interface LensLineOf {
  readonly handOvers: readonly FactChain<HandOverFact>[];
  readonly wornAnswers: readonly FactChain<WornAnswerFact>[];
  readonly broughtAlong: readonly BroughtAlong[];
  /** Of the practice, IANA. */
  readonly timeZone: string;
}

/**
 * The lenses of one eye over the years, oldest first: what was handed over, bought elsewhere or brought along. The same lens handed
 * over again goes on; lenses that were only tried, prescribed or ordered are none of it.
 * @source common practice: five facts that are never mixed
 */
export function lensLine(of: LensLineOf, eye: Eye): readonly LensSpan[] {
  const day = (at: string): IsoDate => dayIn(at, of.timeZone);
  const all: (LensSpan & { readonly at: string })[] = [
    ...of.handOvers.flatMap(({ current: h }) =>
      h?.eye === eye ? [{ lensId: h.lensId, from: h.handedOn, to: null, known: 'handedOver' as const, at: h.observedAt }] : [],
    ),
    ...of.wornAnswers.flatMap(({ current: a }) =>
      a?.eye === eye && a.answer === 'boughtElsewhere' && a.lensId !== null
        ? [{ lensId: a.lensId, from: day(a.observedAt), to: null, known: 'boughtElsewhere' as const, at: a.observedAt }]
        : [],
    ),
    ...of.broughtAlong.flatMap((b) => (b.eye === eye ? [{ lensId: b.lensId, from: b.asOf, to: null, known: 'broughtAlong' as const, at: b.recordedAt }] : [])),
  ].sort((a, b) => a.from.localeCompare(b.from) || a.at.localeCompare(b.at));
  const spans: LensSpan[] = [];
  for (const { at: _at, ...next } of all) {
    const last = spans.at(-1);
    if (last?.lensId === next.lensId) continue;
    if (last) spans[spans.length - 1] = { ...last, to: next.from };
    spans.push(next);
  }
  return spans;
}
