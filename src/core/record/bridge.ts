import { addDays, daysBetween } from '../calendar/dates';
import { lensesNeeded } from '../supply/runOut';
import type { Eye, IsoDate } from '../units';
import type { LensRow } from './lens';
import type { EyeReorder } from './reorder';
import { isSameLens } from './sameLens';
import type { WearerFile } from './wearerFile';

/** Most trial lenses of an eye that go home to bridge a gap: a strip of dailies. Our own choice. */
export const MOST_BRIDGED = 10;

/** Days without a lens until boxes come, and the lenses of the same kind that would carry an eye over them. */
export interface Bridge {
  readonly lens: LensRow;
  /** First and last day without a lens. */
  readonly from: IsoDate;
  readonly until: IsoDate;
  readonly lenses: number;
}

/**
 * Trial lenses of the very lens that is prescribed and worn carry an eye until its boxes come. Another power, or a lens never worn
 * before, is fitted, not lent.
 * @param worn what the eye wears now
 * @returns null where no day is without a lens, or the lens is not one that may go home like this
 * @source a trial pair to bridge until the order comes: common practice
 */
export function bridgeOf({ lens, input, plan, trade }: EyeReorder, worn: LensRow | null): Bridge | null {
  const { inHandUntil } = plan;
  if (lens === null || worn === null || inHandUntil === null || !isSameLens(lens, worn)) return null;
  const coming = input.deliveries.flatMap((d) => (d.state === 'onTheWay' ? [d.on] : [])).sort()[0];
  const comes = coming ?? addDays(input.today, trade.leadDays);
  const ended = addDays(inHandUntil, 1);
  const from = ended > input.today ? ended : input.today;
  const days = daysBetween(from, comes);
  return days < 1 ? null : { lens, from, until: addDays(comes, -1), lenses: Math.min(MOST_BRIDGED, lensesNeeded(days, input.wear)) };
}

/** Trial lenses that went home on a day to bridge a gap, of each eye, and the visit that kept them; null for none. */
export function bridgedOn(file: Pick<WearerFile, 'handOvers'>, day: IsoDate): (Readonly<Record<Eye, number>> & { readonly visitId: string }) | null {
  const given = file.handOvers.flatMap(({ current: h }) => (h?.source === 'trial' && h.lensOnEyeId === null && h.handedOn === day ? [h] : []));
  const visitId = given.at(-1)?.visitId;
  if (visitId === undefined) return null;
  const of = (eye: Eye): number => given.reduce((n, h) => (h.visitId === visitId && h.eye === eye ? n + h.lensCount : n), 0);
  return { right: of('right'), left: of('left'), visitId };
}
